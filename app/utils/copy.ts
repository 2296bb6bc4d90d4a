import { tell } from './tell'

/**
 * Puts a text on the clipboard. In the home network the page has no clipboard of its own: there the text goes by way of
 * a field that is chosen and copied.
 */
export async function copyText(text: string, words = `Copied: ${text}`): Promise<void> {
  const kept = (await byClipboard(text)) || byField(text)
  await tell(
    kept ? words.slice(0, 120) : 'The browser does not let this page copy. Choose the text and copy it by hand.',
  )
}

async function byClipboard(text: string): Promise<boolean> {
  if (!('clipboard' in navigator)) return false
  return navigator.clipboard.writeText(text).then(
    () => true,
    () => false,
  )
}

function byField(text: string): boolean {
  const field = document.createElement('textarea')
  field.value = text
  field.style.position = 'fixed'
  field.style.opacity = '0'
  const before = document.activeElement
  document.body.append(field)
  field.select()
  const isCopied = document.execCommand('copy')
  field.remove()
  if (before instanceof HTMLElement) before.focus({ preventScroll: true })
  return isCopied
}

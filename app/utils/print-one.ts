/** Prints one thing of the page by itself, under the head of its build. */
export function printOne(thing: Element | null) {
  const page = document.documentElement
  thing?.classList.add('to-print')
  page.classList.add('prints-one')
  // Not every browser waits in `print` until it has printed.
  window.addEventListener(
    'afterprint',
    () => {
      page.classList.remove('prints-one')
      thing?.classList.remove('to-print')
    },
    { once: true },
  )
  window.print()
}

import { defineStore } from 'pinia'
import { wordsOfField } from '#core/text/display'
import { sameData } from '#core/basics/merge'
import type { NetworkReply } from '#shared/schemas/network'
import { defaultSettings, type Settings } from '#shared/settings'
import type { QueuedKeptChanges } from '../queue/overlay'

/** The settings as they were when the page was made; null where the server could not read them then. */
function settingsWithPage(): Settings | null {
  const text = document.getElementById('settings-with-page')?.textContent
  return text ? (JSON.parse(text) as Settings) : null
}

export const useSettingsStore = defineStore('settings', () => {
  const withPage = settingsWithPage()
  /** The settings as the server has them; what waits to be written comes on top. */
  let written: Settings = withPage ?? { ...defaultSettings }
  const settings = ref<Settings>(written)
  const loaded = ref(withPage !== null)
  const problem = ref('')

  let listening = false

  function show() {
    const waiting = listening ? useEditsStore().queue.pending('settings') : []
    settings.value = waiting.reduce(
      (seen, edit) => (edit.payload as QueuedKeptChanges).changes.reduce((sum, { set }) => ({ ...sum, ...set }), seen),
      written,
    )
  }
  /** The line of changes is only looked at once something is changed: a page that shows settings does without. */
  function listen() {
    if (listening) return
    listening = true
    useEditsStore().listen({
      accepted(document, sent) {
        if (document !== 'settings') return
        for (const edit of sent)
          for (const { set } of (edit.payload as QueuedKeptChanges).changes) written = { ...written, ...set }
        show()
      },
      changed(document) {
        if (document === 'settings') show()
      },
    })
  }

  async function load() {
    written = await askServer<Settings>('/api/settings')
    loaded.value = true
    show()
  }

  /**
   * Shows a change at once and has it written by field; what the server refuses goes back to what it has, with the
   * sentence in `problem`.
   */
  async function change(fields: Partial<Settings>): Promise<void> {
    listen()
    const keys = (Object.keys(fields) as (keyof Settings)[]).filter(key => !sameData(fields[key], settings.value[key]))
    if (keys.length === 0) return
    const picked = (from: Partial<Settings>) => Object.fromEntries(keys.map(key => [key, from[key]]))
    problem.value = await useEditsStore().keep(
      'settings',
      'Settings',
      [{ kind: 'settings', id: 'settings', seen: picked(settings.value), set: picked(fields) }],
      `Settings: ${keys.map(wordsOfField).join(', ')}`,
    )
    show()
  }

  const network = () => askServer<NetworkReply>('/api/network')
  const setPassphrase = (passphrase: string) =>
    askServer<{ passphraseSet: boolean }>('/api/passphrase', { method: 'PUT', body: { passphrase } })

  /** Ends this device’s session. What waits to be written stays in this browser. */
  const signOut = () => askServer<{ signedOut: true }>('/api/sign-out', { method: 'POST' })

  function reset() {
    written = { ...defaultSettings }
    settings.value = { ...defaultSettings }
    loaded.value = false
    problem.value = ''
  }
  return { settings, loaded, problem, load, change, network, setPassphrase, signOut, reset }
})

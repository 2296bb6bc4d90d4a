import { defineStore } from 'pinia'
import type { NetworkReply } from '#shared/schemas/network'
import { defaultSettings, type Settings } from '#shared/settings'

export const useSettingsStore = defineStore('settings', () => {
  const settings = ref<Settings>({ ...defaultSettings })
  const loaded = ref(false)
  const problem = ref('')

  let kept: Settings = { ...defaultSettings }
  let changes = 0
  let saving = Promise.resolve()

  async function load() {
    const answer = await askServer<Settings>('/api/settings')
    if (changes === 0) settings.value = answer
    kept = answer
    loaded.value = true
  }

  /**
   * Shows a change at once and saves it after those before it, so that no late answer overwrites a newer choice.
   * What the server refuses goes back to what it has kept.
   */
  function change(fields: Partial<Settings>): Promise<void> {
    changes++
    settings.value = { ...settings.value, ...fields }
    saving = saving.then(save)
    return saving
  }

  async function save() {
    try {
      kept = await askServer<Settings>('/api/settings', { method: 'PUT', body: settings.value })
      problem.value = ''
    }
    catch (error) {
      settings.value = kept
      problem.value = sentenceOf(error)
    }
  }

  const network = () => askServer<NetworkReply>('/api/network')
  const setPassphrase = (passphrase: string) => askServer<{ passphraseSet: boolean }>('/api/passphrase', { method: 'PUT', body: { passphrase } })

  function reset() {
    settings.value = { ...defaultSettings }
    loaded.value = false
    problem.value = ''
  }
  return { settings, loaded, problem, load, change, network, setPassphrase, reset }
})

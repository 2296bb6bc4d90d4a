import { defineStore } from 'pinia'
import { defaultSettings, type Settings } from '#shared/settings'

export const useSettingsStore = defineStore('settings', () => {
  const settings = ref<Settings>({ ...defaultSettings })
  const loaded = ref(false)
  const problem = ref('')

  async function load() {
    settings.value = await askServer<Settings>('/api/settings')
    loaded.value = true
  }
  /** Saves a change; shows it at once and takes it back when the server refuses it. */
  async function change(fields: Partial<Settings>) {
    const before = settings.value
    settings.value = { ...before, ...fields }
    try {
      settings.value = await askServer<Settings>('/api/settings', { method: 'PUT', body: settings.value })
      problem.value = ''
    }
    catch (error) {
      settings.value = before
      problem.value = sentenceOf(error)
    }
  }
  function reset() {
    settings.value = { ...defaultSettings }
    loaded.value = false
    problem.value = ''
  }
  return { settings, loaded, problem, load, change, reset }
})

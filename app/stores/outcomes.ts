import { defineStore } from 'pinia'
import type { OutcomesReply } from '#shared/schemas/outcomes'

/** How the plans of all builds came out. */
export const useOutcomesStore = defineStore('outcomes', () => {
  const told = shallowRef<OutcomesReply | null>(null)
  async function load() {
    told.value = await askServer<OutcomesReply>('/api/outcomes')
  }
  return { told, load }
})

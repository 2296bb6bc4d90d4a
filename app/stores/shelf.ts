import { defineStore } from 'pinia'
import type { ListingObservation } from '#core/listings'
import type { ShelfEntry } from '#core/report'
import type { Found, NewBuild } from '#shared/schemas/api'

export const useShelfStore = defineStore('shelf', () => {
  const entries = shallowRef<ShelfEntry[]>([])
  const loaded = ref(false)

  let coming: Promise<void> | null = null

  /** Asks for the shelf; whoever asks while an answer is on its way shares it. */
  function load(): Promise<void> {
    coming ??= fetchEntries().finally(() => { coming = null })
    return coming
  }

  async function fetchEntries() {
    const answer = await askServer<{ entries: ShelfEntry[] }>('/api/builds')
    entries.value = answer.entries
    loaded.value = true
  }
  async function start(wanted: NewBuild): Promise<string> {
    return (await askServer<{ id: string }>('/api/builds', { method: 'POST', body: wanted })).id
  }
  async function bringIn(text: string): Promise<string> {
    return (await askServer<{ id: string }>('/api/builds/import', { method: 'POST', text })).id
  }
  /** Puts a build away or back without opening it. */
  async function putAway(id: string, archived: boolean) {
    const { revision } = await askServer<{ revision: number }>(`/api/builds/${id}`)
    await askServer(`/api/builds/${id}/commands`, { method: 'POST', revision, body: { command: { type: 'build.set', fields: { archived } } } })
    await fetchEntries()
  }
  async function searchLines(text: string): Promise<Found[]> {
    return (await askServer<{ lines: Found[] }>(`/api/search?q=${encodeURIComponent(text)}`)).lines
  }
  async function listings(): Promise<readonly ListingObservation[]> {
    return (await askServer<{ observations: ListingObservation[] }>('/api/listings')).observations
  }
  const reset = () => { entries.value = []; loaded.value = false }
  return { entries, loaded, load, start, bringIn, putAway, searchLines, listings, reset }
})

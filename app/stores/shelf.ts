import { defineStore } from 'pinia'
import type { ShelfEntry } from '#core/report'
import type { Found, NewBuild } from '#shared/schemas/api'

export const useShelfStore = defineStore('shelf', () => {
  const entries = shallowRef<ShelfEntry[]>([])
  const loaded = ref(false)
  let asked = 0

  async function load() {
    const mine = ++asked
    const answer = await askServer<{ entries: ShelfEntry[] }>('/api/builds')
    if (mine !== asked) return
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
    await load()
  }
  async function searchLines(text: string): Promise<Found[]> {
    return (await askServer<{ lines: Found[] }>(`/api/search?q=${encodeURIComponent(text)}`)).lines
  }
  const reset = () => { entries.value = []; loaded.value = false }
  return { entries, loaded, load, start, bringIn, putAway, searchLines, reset }
})

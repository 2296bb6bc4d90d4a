import { defineStore } from 'pinia'
import type { ListingObservation } from '#core/mass/listings'
import type { Command } from '#core/changes/commands'
import type { Found, NewBuild, ShelvedBuild, UnreadableBuild } from '#shared/schemas/api'

export const useShelfStore = defineStore('shelf', () => {
  const entries = shallowRef<ShelvedBuild[]>([])
  /** Builds that cannot be read, with what is wrong. */
  const unreadable = shallowRef<readonly UnreadableBuild[]>([])
  const loaded = ref(false)

  let coming: Promise<void> | null = null

  /** Asks for the shelf; whoever asks while an answer is on its way shares it. */
  function load(): Promise<void> {
    coming ??= fetchEntries().finally(() => {
      coming = null
    })
    return coming
  }

  async function fetchEntries() {
    const answer = await askServer<{ entries: ShelvedBuild[]; unreadable: UnreadableBuild[] }>('/api/builds')
    entries.value = answer.entries
    unreadable.value = answer.unreadable
    loaded.value = true
  }
  async function start(wanted: NewBuild): Promise<string> {
    return (await askServer<{ id: string }>('/api/builds', { method: 'POST', body: wanted })).id
  }
  async function bringIn(text: string, withoutHistory = false): Promise<string> {
    return (
      await askServer<{ id: string }>(`/api/builds/import${withoutHistory ? '?without=journal' : ''}`, {
        method: 'POST',
        text,
        timeoutMs: 120_000,
      })
    ).id
  }
  /** Deletes a build that was put away, for good. */
  async function remove(id: string) {
    await askServer(`/api/builds/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await fetchEntries()
  }
  async function rescue(id: string, what: 'put away' | 'bring back' | 'take back') {
    await askServer(`/api/builds/${encodeURIComponent(id)}/rescue`, { method: 'POST', body: { what } })
    await fetchEntries()
  }
  /** Changes a build without opening it. */
  async function change(id: string, command: Command) {
    const { revision } = await askServer<{ revision: number }>(`/api/builds/${id}`)
    await askServer(`/api/builds/${id}/commands`, { method: 'POST', revision, body: { command } })
    await fetchEntries()
  }
  const putAway = (id: string, archived: boolean) => change(id, { type: 'build.set', fields: { archived } })
  const pin = (id: string, pinned: boolean) => change(id, { type: 'shelf.set', fields: { pinned } })
  const tag = (id: string, tags: readonly string[]) => change(id, { type: 'shelf.set', fields: { tags } })
  async function searchLines(text: string): Promise<Found[]> {
    return (await askServer<{ lines: Found[] }>(`/api/search?q=${encodeURIComponent(text)}`)).lines
  }
  async function listings(): Promise<readonly ListingObservation[]> {
    return (await askServer<{ observations: ListingObservation[] }>('/api/listings')).observations
  }
  const reset = () => {
    entries.value = []
    unreadable.value = []
    loaded.value = false
  }
  return {
    entries,
    unreadable,
    loaded,
    load,
    start,
    bringIn,
    putAway,
    remove,
    rescue,
    searchLines,
    listings,
    reset,
    pin,
    tag,
  }
})

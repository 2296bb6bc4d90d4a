import { defineStore } from 'pinia'
import { inDrawer, indexPart, lineOfPart, onBuilds, type Kit, type Part, type PartRow, type Placement } from '#core/drawer'
import { mostParts, type DrawerReply, type HandOverRequest, type PartHistory } from '#shared/schemas/drawer'
import type { BuildReply, CommandReply } from '#shared/schemas/api'

export const useDrawerStore = defineStore('drawer', () => {
  const parts = shallowRef<readonly Part[]>([])
  const kits = shallowRef<readonly Kit[]>([])
  const placements = shallowRef<readonly Placement[]>([])
  const loaded = ref(false)
  const problem = ref('')

  const indexed = computed(() => parts.value.map(indexPart))
  const placementsOf = computed(() => {
    const byPart = new Map<string, Placement[]>()
    for (const placement of placements.value) byPart.set(placement.partId, [...byPart.get(placement.partId) ?? [], placement])
    return byPart
  })
  const left = (part: Part) => inDrawer(part, placementsOf.value.get(part.id) ?? [])
  const out = (part: Part) => onBuilds(part.id, placementsOf.value.get(part.id) ?? [])
  const partOf = (id: string) => parts.value.find(part => part.id === id)

  async function load() {
    const reply = await askServer<DrawerReply>('/api/parts')
    parts.value = reply.parts
    kits.value = reply.kits
    placements.value = reply.placements
    loaded.value = true
  }

  /** Sends a write; shows it at once and takes back what was shown when the server refuses. Returns whether it was kept. */
  async function attempt(work: () => Promise<unknown>, shown: readonly Part[] | null = null): Promise<boolean> {
    const before = parts.value
    if (shown) parts.value = shown
    try {
      await work()
      problem.value = ''
      return true
    }
    catch (error) {
      parts.value = before
      problem.value = sentenceOf(error)
      return false
    }
  }
  function put(changed: readonly Part[]): Promise<boolean> {
    const byId = new Map(changed.map(part => [part.id, part]))
    const known = new Set(parts.value.map(part => part.id))
    const shown = [...parts.value.map(part => byId.get(part.id) ?? part), ...changed.filter(part => !known.has(part.id))]
    return attempt(() => askServer('/api/parts', { method: 'POST', body: { parts: changed } }), shown)
  }
  const change = (part: Part, fields: Partial<Part>) => put([{ ...part, ...fields }])
  function remove(ids: readonly string[]): Promise<boolean> {
    const gone = new Set(ids)
    return attempt(() => askServer('/api/parts/remove', { method: 'POST', body: { ids } }), parts.value.filter(part => !gone.has(part.id)))
  }
  async function putKit(kit: Kit, pieces: readonly Part[]): Promise<boolean> {
    const kept = await attempt(() => askServer(`/api/kits/${kit.id}`, { method: 'PUT', body: { kit, parts: pieces } }))
    if (kept) await load()
    return kept
  }
  /** The pieces stay; they only no longer say which kit they came from. */
  async function removeKit(id: string): Promise<boolean> {
    const gone = await attempt(() => askServer(`/api/kits/${id}`, { method: 'DELETE' }))
    if (gone) await load()
    return gone
  }
  const history = async (id: string) => (await askServer<PartHistory>(`/api/parts/${id}/history`)).versions

  /** Brings in many parts, so many a request; `progress` hears how many are kept, and may stop it. */
  async function bringIn(many: readonly PartRow[], progress: (kept: number) => boolean): Promise<number> {
    let kept = 0
    for (let at = 0; at < many.length; at += mostParts) {
      kept += (await askServer<{ count: number }>('/api/parts/rows', { method: 'POST', body: { rows: many.slice(at, at + mostParts) } })).count
      if (!progress(kept)) break
    }
    await load()
    return kept
  }
  const knownMapping = async (heads: string, mapping: Record<string, string> = {}) => (await askServer<{ mapping: Record<string, string> | null }>('/api/parts/mapping', { method: 'POST', body: { heads, mapping } })).mapping

  /** Puts pieces of a part on a build, as a line that stays this part. */
  async function placeOn(buildId: string, part: Part, quantity: number): Promise<boolean> {
    const kept = await attempt(async () => {
      const { revision } = await askServer<BuildReply>(`/api/builds/${buildId}`)
      await askServer(`/api/builds/${buildId}/commands`, { method: 'POST', revision, body: { command: { type: 'lines.add', lines: [lineOfPart(part, newId(), quantity)], beforeId: null }, note: '' } })
    })
    if (kept) await load()
    return kept
  }
  /** Moves lines of the open build to another one or into the drawer. */
  async function handOver(buildId: string, revision: number, wanted: HandOverRequest): Promise<boolean> {
    return attempt(() => askServer<CommandReply>(`/api/builds/${buildId}/hand-over`, { method: 'POST', revision, body: wanted }))
  }
  return { parts, kits, placements, placementsOf, indexed, loaded, problem, load, put, change, remove, putKit, removeKit, history, bringIn, knownMapping, placeOn, handOver, left, out, partOf }
})

import { defineStore } from 'pinia'
import {
  inDrawer,
  indexPart,
  lineOfPart,
  onBuilds,
  type Kit,
  type Part,
  type PartRow,
  type Placement,
} from '#core/parts/drawer'
import type { KeptChange } from '#shared/schemas/kept'
import type { QueuedEdit } from '../queue'
import { keptChangeBetween, overlaid, removalOf } from '../queue/overlay'
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
    for (const placement of placements.value)
      byPart.set(placement.partId, [...(byPart.get(placement.partId) ?? []), placement])
    return byPart
  })
  const left = (part: Part) => inDrawer(part, placementsOf.value.get(part.id) ?? [])
  const out = (part: Part) => onBuilds(part.id, placementsOf.value.get(part.id) ?? [])
  const partOf = (id: string) => parts.value.find(part => part.id === id)

  /** What the server has; what waits to be written comes on top. */
  let written: { parts: readonly Part[]; kits: readonly Kit[] } = { parts: [], kits: [] }
  function carriedOut(on: typeof written, edits: readonly QueuedEdit[]): typeof written {
    return { parts: overlaid(on.parts, 'part', edits), kits: overlaid(on.kits, 'kit', edits) }
  }
  function show() {
    const now = carriedOut(written, useEditsStore().queue.pending('drawer'))
    parts.value = now.parts
    kits.value = now.kits
  }
  useEditsStore().listen({
    accepted(document, sent) {
      if (document === 'drawer') written = carriedOut(written, sent)
    },
    changed(document) {
      if (document === 'drawer' && loaded.value) show()
    },
  })

  async function load() {
    const reply = await askServer<DrawerReply>('/api/parts')
    written = { parts: reply.parts, kits: reply.kits }
    placements.value = reply.placements
    loaded.value = true
    show()
  }

  /** Does what cannot wait in a line, and says why when it could not be done. */
  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work()
      problem.value = ''
      return true
    } catch (error) {
      problem.value = sentenceOf(error)
      return false
    }
  }
  /** Shows a change at once and has it written by field. Returns whether it is written or waits to be; `problem` says why not. */
  async function keep(changes: readonly (KeptChange | null)[], words: string): Promise<boolean> {
    problem.value = await useEditsStore().keep('drawer', 'Drawer', changes, words)
    return problem.value === ''
  }
  const changeOf = (part: Part) => keptChangeBetween('part', partOf(part.id) ?? null, part)
  const namesOf = (many: readonly { name: string }[]) => (many.length === 1 ? many[0]!.name : `${many.length} parts`)
  function put(changed: readonly Part[]): Promise<boolean> {
    return keep(
      changed.map(changeOf),
      `${namesOf(changed)} ${changed.every(part => !partOf(part.id)) ? 'added' : 'changed'}`,
    )
  }
  const change = (part: Part, fields: Partial<Part>) => put([{ ...(partOf(part.id) ?? part), ...fields }])
  async function remove(ids: readonly string[]): Promise<boolean> {
    const gone = ids.flatMap(id => partOf(id) ?? [])
    return keep(
      gone.map(part => removalOf('part', part)),
      `${namesOf(gone)} deleted`,
    )
  }
  async function putKit(kit: Kit, pieces: readonly Part[]): Promise<boolean> {
    return keep(
      [
        keptChangeBetween('kit', kits.value.find(k => k.id === kit.id) ?? null, kit),
        ...pieces.map(part => changeOf({ ...part, kitId: kit.id })),
      ],
      `Kit ${kit.name}`,
    )
  }
  /** The pieces stay; they only no longer say which kit they came from. */
  async function removeKit(id: string): Promise<boolean> {
    const kit = kits.value.find(k => k.id === id)
    const gone =
      kit !== undefined &&
      (await keep(
        [
          ...parts.value.filter(part => part.kitId === id).map(part => changeOf({ ...part, kitId: null })),
          removalOf('kit', kit),
        ],
        `Kit ${kit.name} forgotten`,
      ))
    return gone
  }
  /** Throws where the server cannot say: a history that did not come is not an empty one. */
  const history = async (id: string) => (await askServer<PartHistory>(`/api/parts/${id}/history`)).versions

  /**
   * Brings in many parts, so many a request; `progress` hears how many are kept, and may stop it. Asked for again with
   * the same token, what is in already is not brought in twice.
   */
  async function bringIn(
    many: readonly PartRow[],
    token: string,
    progress: (kept: number) => boolean,
  ): Promise<number> {
    let kept = 0
    for (let at = 0; at < many.length; at += mostParts) {
      kept += (
        await askServer<{ count: number }>('/api/parts/rows', {
          method: 'POST',
          body: { rows: many.slice(at, at + mostParts) },
          key: `${token}.${at}`,
          timeoutMs: 120_000,
        })
      ).count
      if (!progress(kept)) break
    }
    await load()
    return kept
  }
  const knownMapping = async (heads: string, mapping: Record<string, string> = {}) =>
    (
      await askServer<{ mapping: Record<string, string> | null }>('/api/parts/mapping', {
        method: 'POST',
        body: { heads, mapping },
      })
    ).mapping

  /** Puts pieces of a part on a build, as a line that stays this part. */
  const placeOn = (buildId: string, part: Part, quantity: number) => place(buildId, [{ part, quantity }], '')
  /** Puts all that is left of a kit on a build, in one step. */
  const placeKit = (buildId: string, kit: Kit) =>
    place(
      buildId,
      parts.value.filter(part => part.kitId === kit.id && left(part) > 0).map(part => ({ part, quantity: left(part) })),
      `from ${kit.name}`,
    )
  async function place(
    buildId: string,
    pieces: readonly { readonly part: Part; readonly quantity: number }[],
    note: string,
  ): Promise<boolean> {
    const kept = await attempt(async () => {
      const { revision } = await askServer<BuildReply>(`/api/builds/${buildId}`)
      await askServer(`/api/builds/${buildId}/commands`, {
        method: 'POST',
        revision,
        body: {
          command: {
            type: 'lines.add',
            lines: pieces.map(({ part, quantity }) => lineOfPart(part, newId(), quantity)),
            beforeId: null,
          },
          note,
        },
      })
    })
    if (kept) await load()
    return kept
  }
  /** Moves lines of the open build to another one or into the drawer. */
  async function handOver(buildId: string, revision: number, wanted: HandOverRequest): Promise<boolean> {
    return attempt(() =>
      askServer<CommandReply>(`/api/builds/${buildId}/hand-over`, { method: 'POST', revision, body: wanted }),
    )
  }
  return {
    parts,
    kits,
    placements,
    placementsOf,
    indexed,
    loaded,
    problem,
    load,
    put,
    change,
    remove,
    putKit,
    removeKit,
    history,
    bringIn,
    knownMapping,
    placeOn,
    placeKit,
    handOver,
    left,
    out,
    partOf,
  }
})

import { defineStore } from 'pinia'
import { useLocalStorage } from '@vueuse/core'
import { scaleStanding, type Placing, type ReferenceMass, type Scale, type ScaleCheck } from '#core/mass/scale'
import type { Mass } from '#core/model/ledger'
import { readAtHand, type ReadyScale } from '#core/deciding/weigh'
import type { KeptChange } from '#shared/schemas/kept'
import type { QueuedEdit } from '../queue'
import { keptChangeBetween, overlaid, removalOf } from '../queue/overlay'
import type { ReferenceFields, ScaleFields, ScalesReply, Tare } from '#shared/schemas/scales'

export const useScalesStore = defineStore('scales', () => {
  const scales = shallowRef<readonly Scale[]>([])
  const references = shallowRef<readonly ReferenceMass[]>([])
  const checks = shallowRef<readonly ScaleCheck[]>([])
  const tares = shallowRef<readonly Tare[]>([])
  const loaded = ref(false)
  /** The scale at this desk; every browser has its own. */
  const currentId = useLocalStorage('scale-at-hand', '')

  const current = computed(() => scales.value.find(scale => scale.id === currentId.value) ?? scales.value[0] ?? null)
  const standings = computed(() => {
    const now = Date.now()
    return new Map(scales.value.map(scale => [scale.id, scaleStanding(scale, checks.value, now)]))
  })
  /** The current scale with the check in force. */
  const ready = computed<ReadyScale | null>(() => {
    if (!current.value) return null
    const { check, result } = standings.value.get(current.value.id)!
    return { scale: current.value, name: current.value.name, check: check && result ? { id: check.id, result } : null }
  })

  /** Grams typed as weighed, as the scale at hand showed them; a sentence where it cannot have. */
  const typed = (mass: Mass) => readAtHand(ready.value, mass, new Date().toISOString())

  /** What the server has; what waits to be written comes on top. */
  let written: ScalesReply = { scales: [], references: [], checks: [], tares: [] }
  function carriedOut(on: ScalesReply, edits: readonly QueuedEdit[]): ScalesReply {
    return {
      scales: overlaid(on.scales, 'scale', edits),
      references: overlaid(on.references, 'reference', edits),
      checks: overlaid(on.checks, 'check', edits),
      tares: overlaid(on.tares, 'tare', edits),
    }
  }
  function show() {
    const now = carriedOut(written, listening ? useEditsStore().queue.pending('scales') : [])
    scales.value = now.scales
    references.value = [...now.references].sort((a, b) => a.massG - b.massG)
    checks.value = [...now.checks].sort((a, b) => a.takenAt.localeCompare(b.takenAt))
    tares.value = now.tares
  }
  let listening = false
  function listen() {
    if (listening) return
    listening = true
    useEditsStore().listen({
      accepted(document, sent) {
        if (document === 'scales') written = carriedOut(written, sent)
      },
      changed(document) {
        if (document === 'scales') show()
      },
    })
  }

  async function load() {
    written = await askServer<ScalesReply>('/api/scales')
    loaded.value = true
    show()
  }
  async function keep(change: KeptChange | null, words: string) {
    listen()
    const refused = await useEditsStore().keep('scales', 'Scales', [change], words)
    if (refused) throw new Error(refused)
  }
  const named = <T extends { id: string; name: string }>(things: readonly T[], id: string) =>
    things.find(thing => thing.id === id) ?? null
  const putScale = (id: string, fields: ScaleFields) =>
    keep(keptChangeBetween('scale', named(scales.value, id), { id, ...fields }), `Scale ${fields.name}`)
  async function removeScale(id: string) {
    const scale = named(scales.value, id)
    if (scale) await keep(removalOf('scale', scale), `Scale ${scale.name} deleted`)
  }
  const putReference = (id: string, fields: ReferenceFields) =>
    keep(
      keptChangeBetween('reference', named(references.value, id), { id, ...fields }),
      `Reference mass ${fields.name}`,
    )
  async function removeReference(id: string) {
    const reference = named(references.value, id)
    if (reference) await keep(removalOf('reference', reference), `Reference mass ${reference.name} deleted`)
  }
  const addCheck = (scaleId: string, placings: readonly Placing[]) =>
    keep(
      { kind: 'check', id: newId(), seen: null, set: { scaleId, takenAt: new Date().toISOString(), placings } },
      `Check of ${named(scales.value, scaleId)?.name ?? 'a scale'}`,
    )
  const addTare = (tare: Omit<Tare, 'id'>) =>
    keep({ kind: 'tare', id: newId(), seen: null, set: { ...tare } }, `Tray ${tare.name}`)
  async function removeTare(id: string) {
    const tare = named(tares.value, id)
    if (tare) await keep(removalOf('tare', tare), `Tray ${tare.name} deleted`)
  }
  /** Presses the zero key of the connected scale; false when there is none to press. */
  async function zero(): Promise<boolean> {
    try {
      await askServer('/api/bench-scale/zero', { method: 'POST' })
    } catch (error) {
      if (error instanceof ApiProblem) return false
      throw error
    }
    return true
  }
  async function practiceAvailable(): Promise<boolean> {
    return (await askServer<{ available: boolean }>('/api/practice')).available
  }
  async function putOnPracticePan(masses: readonly { name: string; massG: number }[]) {
    await askServer('/api/practice/pan', { method: 'PUT', body: { masses } })
  }

  function reset() {
    written = { scales: [], references: [], checks: [], tares: [] }
    scales.value = []
    references.value = []
    checks.value = []
    tares.value = []
    loaded.value = false
  }
  return {
    scales,
    references,
    checks,
    tares,
    loaded,
    currentId,
    current,
    standings,
    ready,
    typed,
    load,
    putScale,
    removeScale,
    putReference,
    removeReference,
    addCheck,
    addTare,
    removeTare,
    zero,
    practiceAvailable,
    putOnPracticePan,
    reset,
  }
})

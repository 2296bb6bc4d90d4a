import { defineStore } from 'pinia'
import { useLocalStorage } from '@vueuse/core'
import { scaleStanding, type Placing, type ReferenceMass, type Scale, type ScaleCheck } from '#core/scale'
import type { ReadyScale } from '#core/weigh'
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

  async function load() {
    const reply = await askServer<ScalesReply>('/api/scales')
    scales.value = reply.scales
    references.value = reply.references
    checks.value = reply.checks
    tares.value = reply.tares
    loaded.value = true
  }
  async function change(path: string, method: 'PUT' | 'POST' | 'DELETE', body?: unknown): Promise<string> {
    const { id } = await askServer<{ id: string }>(path, { method, body })
    await load()
    return id
  }
  const putScale = (id: string, fields: ScaleFields) => change(`/api/scales/${id}`, 'PUT', fields)
  const removeScale = (id: string) => change(`/api/scales/${id}`, 'DELETE')
  const putReference = (id: string, fields: ReferenceFields) => change(`/api/references/${id}`, 'PUT', fields)
  const removeReference = (id: string) => change(`/api/references/${id}`, 'DELETE')
  const addCheck = (scaleId: string, placings: readonly Placing[]) => change(`/api/scales/${scaleId}/checks`, 'POST', { takenAt: new Date().toISOString(), placings })
  const addTare = (tare: Omit<Tare, 'id'>) => change(`/api/tares/${newId()}`, 'PUT', tare)
  const removeTare = (id: string) => change(`/api/tares/${id}`, 'DELETE')
  /** Presses the zero key of the connected scale; false when there is none to press. */
  async function zero(): Promise<boolean> {
    try { await askServer('/api/bench-scale/zero', { method: 'POST' }) }
    catch (error) {
      if (error instanceof ApiProblem) return false
      throw error
    }
    return true
  }
  async function practiceAvailable(): Promise<boolean> {
    return (await askServer<{ available: boolean }>('/api/practice')).available
  }
  async function putOnPracticePan(masses: readonly { name: string, massG: number }[]) {
    await askServer('/api/practice/pan', { method: 'PUT', body: { masses } })
  }

  function reset() {
    scales.value = []
    references.value = []
    checks.value = []
    tares.value = []
    loaded.value = false
  }
  return {
    scales, references, checks, tares, loaded, currentId, current, standings, ready,
    load, putScale, removeScale, putReference, removeReference, addCheck, addTare, removeTare, zero, practiceAvailable, putOnPracticePan, reset,
  }
})

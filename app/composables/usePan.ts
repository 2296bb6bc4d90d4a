import type { TareUsed, Taking } from '#core/weigh'
import { isNotRead, readGrams } from '#core/units'

/** Steps a reading must move after something was taken before the next is accepted: the part has left the pan. */
const leavingSteps = 3

/** The pan of the bench scale as something to take readings from: what it shows, typed or live, and why it cannot be taken yet. */
export function usePan() {
  const scales = useScalesStore()
  const bench = useBenchScale()
  const typed = ref('')
  const tare = shallowRef<TareUsed>({ id: newId(), name: 'zero key', displayG: 0 })
  const leftOnPanG = ref<number | null>(null)

  const typedG = computed(() => {
    if (typed.value.trim() === '') return null
    const read = readGrams(typed.value)
    return isNotRead(read) ? read : read.massG
  })
  /** The display that would be taken, or why there is none. */
  const display = computed<{ massG: number, reason: string } | { massG: null, reason: string }>(() => {
    const hand = typedG.value
    if (hand !== null) return typeof hand === 'number' ? { massG: hand, reason: '' } : { massG: null, reason: hand.problem }
    if (!bench.live.value) return { massG: null, reason: bench.state.value.sentence || 'No scale is connected: type what it shows.' }
    const { steady, displayG, reason } = bench.rest.value
    if (displayG === null) return { massG: null, reason }
    if (steady && leftOnPanG.value !== null) return { massG: displayG, reason: 'That one is taken. Lift it off and put the next one on.' }
    return { massG: displayG, reason: steady ? '' : reason }
  })
  watch(bench.readings, (readings) => {
    const last = readings.at(-1)
    const step = scales.current?.resolutionG ?? 0.01
    if (leftOnPanG.value !== null && last && (last.massG === null || Math.abs(last.massG - leftOnPanG.value) > leavingSteps * step)) leftOnPanG.value = null
  })

  function taking(id: string): Taking | null {
    return scales.ready ? { ready: scales.ready, tare: tare.value, takenAt: new Date().toISOString(), id } : null
  }
  /** What was taken still lies there: the same placing is not a second weighing. */
  function leave(displayG: number) {
    if (bench.live.value && typedG.value === null) leftOnPanG.value = displayG
  }

  return { bench, typed, typedG, tare, leftOnPanG, display, taking, leave, type: (text: string) => { typed.value = text } }
}
export type Pan = ReturnType<typeof usePan>

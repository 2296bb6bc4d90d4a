import type { ReadyScale, TareUsed, Taking } from '#core/deciding/weigh'
import { isNotRead, largestMassG, readGrams } from '#core/text/units'

/** Steps a reading must move after something was taken before the next is accepted: the part has left the pan. */
const leavingSteps = 3

/** The pan of the bench scale as something to take readings from: what it shows, typed or live, and why it cannot be taken yet. */
export function usePan() {
  const scales = useScalesStore()
  const bench = useBenchScale()
  const typed = ref('')
  const tare = shallowRef<TareUsed>({ id: newId(), name: 'zero key', displayG: 0 })
  const leftOnPanG = ref<number | null>(null)

  /** Display step of what was typed last, grams: where no scale is on the list, what is typed comes from one nobody has checked. */
  const typedStepG = ref<number | null>(null)
  const ready = computed<ReadyScale | null>(
    () => scales.ready ?? (typedStepG.value === null ? null : unlistedScale(typedStepG.value)),
  )

  const typedG = computed(() => {
    if (typed.value.trim() === '') return null
    const read = readGrams(typed.value)
    return isNotRead(read) ? read : read.massG
  })
  /** The display that would be taken, or why there is none. */
  const display = computed<{ massG: number; reason: string } | { massG: null; reason: string }>(() => {
    const hand = typedG.value
    if (hand !== null)
      return typeof hand === 'number' ? { massG: hand, reason: '' } : { massG: null, reason: hand.problem }
    if (!bench.live.value)
      return { massG: null, reason: bench.state.value.sentence || 'No scale is connected: type what it shows.' }
    const { steady, displayG, reason } = bench.rest.value
    if (displayG === null) return { massG: null, reason }
    if (steady && leftOnPanG.value !== null)
      return { massG: displayG, reason: 'That one is taken. Lift it off and put the next one on.' }
    return { massG: displayG, reason: steady ? '' : reason }
  })
  watch(bench.readings, readings => {
    const last = readings.at(-1)
    const step = scales.current?.resolutionG ?? 0.01
    if (
      leftOnPanG.value !== null &&
      last &&
      (last.massG === null || Math.abs(last.massG - leftOnPanG.value) > leavingSteps * step)
    )
      leftOnPanG.value = null
  })

  function taking(id: string): Taking | null {
    return ready.value ? { ready: ready.value, tare: tare.value, takenAt: new Date().toISOString(), id } : null
  }
  /** What was taken still lies there: the same placing is not a second weighing. */
  function leave(displayG: number) {
    if (bench.live.value && typedG.value === null) leftOnPanG.value = displayG
  }

  watch(
    typed,
    text => {
      const read = text.trim() === '' ? null : readGrams(text)
      if (read && !isNotRead(read)) typedStepG.value = read.stepG
    },
    { flush: 'sync' },
  )
  function type(text: string) {
    typed.value = text
  }

  return { bench, typed, typedG, tare, leftOnPanG, display, ready, taking, leave, type }
}

/** A scale nobody has put on the list: as unsure as one that was never checked, with the step of what it showed. */
function unlistedScale(resolutionG: number): ReadyScale {
  const name = 'a scale not on the list'
  return { scale: { id: 'unlisted', resolutionG, capacityG: largestMassG, repeatabilityG: null }, name, check: null }
}
export type Pan = ReturnType<typeof usePan>

import { differenceSpreadG } from '#core/deciding/weigh'
import { massAfter, takesTooMuch, type Shaving } from '#core/deciding/shave'

/** What was typed or read off a scale for a step that is done. */
export interface RealGrams {
  readonly grams: number
  readonly stepG: number
}
/** What nobody knows better of a scale: two of its last digits, at least so much, g. Our choice. */
const leastSpreadG = 0.03

/** Carrying out steps of a plan, with what came off in truth where it was weighed. */
export function useShavingDone(offOf: (shaving: Shaving) => number) {
  const store = useBuildStore()
  const scales = useScalesStore()
  onMounted(() => {
    if (!scales.loaded) scales.load().catch(() => undefined)
  })
  /** The step whose real grams are asked for; the forecast stands until it is weighed. */
  const doing = ref<string | null>(null)
  const doingProblem = ref('')
  function begin(shaving: Shaving) {
    doing.value = shaving.id
    doingProblem.value = ''
  }
  /** By the scale at hand where what was typed has its steps; else by its last digits, from a scale nobody knows. */
  function realSpreadG(shaving: Shaving, { grams, stepG }: RealGrams): number {
    const line = store.build!.lines.find(l => l.id === shaving.lineId)
    const { ready } = scales
    if (!ready || !line?.mass || Math.abs(stepG - ready.scale.resolutionG) > 1e-9)
      return Math.max(leastSpreadG, 2 * stepG)
    return Number(differenceSpreadG(ready, store.estimates.before(line).valueG, grams).toFixed(3))
  }
  function doIt(shaving: Shaving, real: RealGrams | null, leadMm: number | null) {
    const on = localDay()
    const build = store.build!
    const before = store.estimates.before.bind(store.estimates)
    const off =
      real === null
        ? { gramsG: shaving.gramsG, spreadG: shaving.spreadG, weighed: false, on }
        : { gramsG: real.grams, spreadG: realSpreadG(shaving, real), weighed: true, on }
    const over = real && takesTooMuch(build, shaving, before, real.grams, off.spreadG)
    doingProblem.value = over ? tooMuchWords(over, real.grams) : ''
    if (over) return
    const isDone = store.run({
      type: 'shaving.do',
      id: shaving.id,
      mass: massAfter(build, shaving, before, off, () => newId()),
      realG: real?.grams ?? null,
      on,
      gramsG: Number(offOf(shaving).toFixed(3)),
      ...(leadMm === null ? {} : { leadMm }),
    })
    if (isDone) doing.value = null
  }
  return { doing, doingProblem, begin, doIt }
}

import { sigmaG } from '#core/maths/estimate'
import { CoreInputError } from '#core/basics/errors'
import type { Basis, Line, Mass } from '#core/model/ledger'
import {
  expectedOnPan,
  isFarOff,
  placeOf,
  runLines,
  takeByDifference,
  takeInLifts,
  takeOneByOne,
  takeTogether,
  usualBasis,
  wouldChange,
  type RunOrder,
  type TareUsed,
} from '#core/deciding/weigh'
import { piecesFor, weighedEstimate } from '#core/mass/scale'
import { spreadFactor95 } from '#core/maths/numbers'
import { fixed } from '#core/text/display'

/** How the current line is put on the pan. */
export const panModes = ['one piece', 'all together', 'one after another', 'before and after', 'in lifts'] as const
export type PanMode = (typeof panModes)[number]

export interface TakenEntry {
  readonly lineId: string
  readonly title: string
  readonly mass: Mass
}

/** A run over the lines of a build with one current: what it reads, what taking it would change, and taking it. */
export function useWeighRun() {
  const store = useBuildStore()
  const scales = useScalesStore()
  const rules = useRulesStore()
  const pan = usePan()
  const { typed, tare, leftOnPanG, display, ready, taking, leave, bench } = pan

  const order = ref<RunOrder>('by spread')
  const ids = shallowRef<readonly string[]>([])
  const at = ref(0)
  const mode = ref<PanMode>('one piece')
  const collected = shallowRef<readonly number[]>([])
  const basis = ref<Basis>('as fitted')
  const taken = shallowRef<readonly TakenEntry[]>([])
  const message = ref('')
  const doubted = ref(false)
  const started = shallowRef<{
    build: NonNullable<typeof store.build>
    estimates: typeof store.estimates
    overview: NonNullable<typeof store.overview>
  } | null>(null)
  const finished = computed(() => ids.value.length > 0 && at.value >= ids.value.length)

  const line = computed<Line | null>(() => store.lineOf(ids.value[at.value] ?? '') ?? null)
  const several = computed(() => (line.value?.quantity ?? 1) > 1)
  const piecesOnPan = computed(() =>
    mode.value === 'all together' || mode.value === 'before and after' ? (line.value?.quantity ?? 1) : 1,
  )
  const expected = computed(() =>
    line.value && mode.value !== 'in lifts' ? expectedOnPan(line.value, piecesOnPan.value, store.estimates) : null,
  )

  /** For small pieces: how many together on the pan bring the spread of one under one per cent; null when one alone does. */
  const piecesWanted = computed(() => {
    const part = line.value
    if (!part?.mass || !scales.current || part.quantity < 2) return null
    const eachG = part.mass.valueG / part.mass.valueCount
    if (!(eachG > 0)) return null
    const wanted = piecesFor(scales.current, (0.01 * eachG) / spreadFactor95)
    return wanted > 1 ? wanted : null
  })

  /** The mass the collected displays make; null while some are missing. */
  function massFrom(displays: readonly number[], id: string): Mass | null {
    const by = taking(id)
    const part = line.value
    if (!by || !part || displays.length === 0) return null
    switch (mode.value) {
      case 'one piece':
        return takeTogether(by, part, displays.slice(-1), 1, basis.value)
      case 'all together':
        return takeTogether(by, part, displays.slice(-1), part.quantity, basis.value)
      case 'one after another':
        return displays.length === 1
          ? takeTogether(by, part, displays, 1, basis.value)
          : takeOneByOne(by, part, displays, basis.value)
      case 'before and after':
        return displays.length < 2 ? null : takeByDifference(by, part, displays[0]!, displays[1]!, store.honesty)
      case 'in lifts':
        return displays.length < 2 ? null : takeInLifts(by, part, displays, basis.value)
    }
  }
  const preview = computed(() => {
    const part = line.value
    if (!part || !store.build || !store.overview || display.value.massG === null) return null
    try {
      const mass = massFrom([...collected.value, display.value.massG], 'preview')
      return mass
        ? {
            mass,
            change: wouldChange(store.build, store.overview, part, mass, rules.cards, store.estimates, store.honesty),
          }
        : null
    } catch (error) {
      if (error instanceof CoreInputError) return null
      throw error
    }
  })
  /** How many displays the mode needs; null when the builder says when it is enough. */
  const needed = computed(() => {
    if (mode.value === 'one after another') return line.value?.quantity ?? 1
    if (mode.value === 'before and after') return 2
    return mode.value === 'in lifts' ? null : 1
  })
  const canFinish = computed(
    () =>
      (mode.value === 'one after another' && collected.value.length > 0) ||
      (mode.value === 'in lifts' && collected.value.length > 1),
  )

  function begin(wanted: RunOrder = order.value, from?: string) {
    if (!store.build || !store.overview) return
    order.value = wanted
    ids.value = runLines(store.build, store.choice, store.estimates, wanted).map(l => l.id)
    started.value = { build: store.build, estimates: store.estimates, overview: store.overview }
    taken.value = []
    const open = ids.value.findIndex(id => id === from || (!from && store.lineOf(id)?.mass?.evidence !== 'weighed'))
    goTo(Math.max(open, 0))
  }
  function goTo(index: number) {
    at.value = Math.min(Math.max(index, 0), ids.value.length)
    collected.value = []
    typed.value = ''
    message.value = ''
    doubted.value = false
    mode.value = several.value ? 'all together' : 'one piece'
    const part = line.value
    basis.value = part ? usualBasis(part) : 'as fitted'
    store.selectedId = part?.id ?? null
  }
  function chooseMode(next: PanMode) {
    mode.value = next
    collected.value = []
    message.value = ''
    if (next === 'before and after') basis.value = 'as fitted'
  }
  function cyclePieces() {
    if (!several.value) {
      message.value = 'This line has one piece.'
      return
    }
    const cycle = panModes.slice(0, 3)
    chooseMode(cycle[(cycle.indexOf(mode.value as (typeof cycle)[number]) + 1) % 3]!)
  }

  /** Takes the display: the next of several, or the line itself. Says why when it cannot. */
  function take() {
    const part = line.value
    if (!part) return
    if (!ready.value) {
      message.value = 'Say first which scale this is, under Scales.'
      return
    }
    if (display.value.reason !== '') {
      message.value = display.value.reason
      return
    }
    const displayG = display.value.massG!
    if (displayG > ready.value.scale.capacityG) {
      message.value = `${fixed(displayG, 2)} g is more than ${ready.value.name} carries. Weigh it in two lifts.`
      return
    }
    if (isDoubtful(displayG) && !doubted.value) {
      doubted.value = true
      message.value = 'Is it the right part? It is far from what was expected. Take it again to keep it.'
      return
    }
    const displays = [...collected.value, displayG]
    leave(displayG)
    typed.value = ''
    message.value = ''
    if (needed.value !== null && displays.length >= needed.value) finish(displays)
    else collected.value = displays
  }
  function isDoubtful(displayG: number): boolean {
    if (!expected.value || !ready.value || collected.value.length > 0) return false
    const { result } = ready.value.check ?? {}
    const netG = (displayG - tare.value.displayG) / (result?.gain ?? 1)
    return isFarOff(
      expected.value,
      netG,
      sigmaG(weighedEstimate(ready.value, { id: 'doubt', displaysG: [displayG], tare: tare.value })),
    )
  }
  function finish(displays: readonly number[] = collected.value) {
    const part = line.value
    if (!part) return
    try {
      const mass = massFrom(displays, newId())
      if (!mass) return
      const shavedG = mode.value === 'before and after' ? displays[0]! - displays[1]! : 0
      const note = shavedG > 0 ? `shaved ${fixed(shavedG, 2)} g, weighed by difference` : ''
      if (
        !store.run(
          {
            type: 'line.weigh',
            id: part.id,
            mass,
            as: placeOf(mass, part, store.build!, store.estimates, store.honesty),
          },
          note,
        )
      ) {
        message.value = store.refusal
        return
      }
      taken.value = [{ lineId: part.id, title: lineTitle(part), mass }, ...taken.value]
      goTo(at.value + 1)
    } catch (error) {
      if (!(error instanceof CoreInputError)) throw error
      message.value = 'That comes out below nothing. Zero the scale with an empty pan and put the part on.'
      collected.value = []
    }
  }
  async function zero() {
    const pressed = await bench.zero()
    tare.value = { id: newId(), name: 'zero key', displayG: 0 }
    leftOnPanG.value = null
    message.value = pressed
      ? ''
      : 'No scale is connected: press its own zero key. What you type from now on counts from there.'
  }
  function again() {
    const last = taken.value[0]
    const index = last ? ids.value.indexOf(last.lineId) : at.value - 1
    if (index >= 0) goTo(index)
  }
  function useTray(tray: TareUsed | null) {
    tare.value = tray ?? { id: newId(), name: 'zero key', displayG: 0 }
  }

  watch(
    () => store.build?.id,
    () => {
      begin()
    },
    { immediate: true },
  )
  return {
    order,
    ids,
    at,
    line,
    mode,
    several,
    collected,
    basis,
    typed,
    tare,
    taken,
    message,
    finished,
    started,
    expected,
    display,
    preview,
    needed,
    canFinish,
    piecesOnPan,
    piecesWanted,
    begin,
    goTo,
    leave,
    chooseMode,
    cyclePieces,
    take,
    finish,
    zero,
    again,
    useTray,
    taking,
    type: pan.type,
    skip: () => goTo(at.value + 1),
    back: () => goTo(at.value - 1),
  }
}
export type WeighRun = ReturnType<typeof useWeighRun>

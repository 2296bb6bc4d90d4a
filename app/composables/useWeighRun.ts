import { CoreInputError } from '#core/basics/errors'
import {
  canFinish,
  displaysNeeded,
  expectedOnPan,
  isFinished,
  massOfDisplays,
  massOfDisplaysOrNull,
  nextRun,
  noRun,
  objection,
  piecesForOnePercent,
  piecesOnPan,
  placeOf,
  runLines,
  runMessages,
  wouldChange,
  type PanMode,
  type RunEvent,
  type RunOrder,
  type RunState,
  type TareUsed,
} from '#core/deciding/weigh'
import type { Basis, Line, Mass } from '#core/model/ledger'
import { fixed } from '#core/text/display'

export interface TakenEntry {
  readonly lineId: string
  readonly title: string
  readonly mass: Mass
}

/** A run over the lines of a build with one current: what it reads, what taking it would change, and taking it. */
export function useWeighRun(asked?: string) {
  const store = useBuildStore()
  const scales = useScalesStore()
  const rules = useRulesStore()
  const pan = usePan()
  const { typed, tare, leftOnPanG, display, ready, taking, leave, bench } = pan

  const order = ref<RunOrder>('by spread')
  const state = shallowRef<RunState>(noRun)
  const taken = shallowRef<readonly TakenEntry[]>([])
  const started = shallowRef<{
    build: NonNullable<typeof store.build>
    estimates: typeof store.estimates
    overview: NonNullable<typeof store.overview>
  } | null>(null)
  const happens = (event: RunEvent) => {
    state.value = nextRun(state.value, event)
  }
  const say = (message: string) => happens({ type: 'said', message })

  const lineAt = (at: number): Line | null => store.lineOf(state.value.ids[at] ?? '') ?? null
  const line = computed(() => lineAt(state.value.at))
  const several = computed(() => (line.value?.quantity ?? 1) > 1)
  const expected = computed(() => {
    const { mode } = state.value
    return line.value && mode !== 'in lifts'
      ? expectedOnPan(line.value, piecesOnPan(mode, line.value), store.estimates)
      : null
  })
  /** For small pieces: how many together on the pan bring the spread of one under one per cent; null when one alone does. */
  const piecesWanted = computed(() =>
    line.value && scales.current ? piecesForOnePercent(line.value, scales.current) : null,
  )
  const preview = computed(() => {
    const part = line.value
    const by = taking('preview')
    const { massG } = display.value
    if (!part || !by || !store.build || !store.overview || massG === null) return null
    const mass = massOfDisplaysOrNull(state.value, by, part, [...state.value.collectedG, massG], store.honesty)
    if (!mass) return null
    const { build, overview, estimates, honesty } = store
    return { mass, change: wouldChange(build, overview, part, mass, rules.cards, estimates, honesty) }
  })

  function begin(wanted: RunOrder = order.value, from?: string) {
    if (!store.build || !store.overview) return
    order.value = wanted
    happens({ type: 'begun', ids: runLines(store.build, store.choice, store.estimates, wanted).map(l => l.id) })
    started.value = { build: store.build, estimates: store.estimates, overview: store.overview }
    taken.value = []
    const isNext = (id: string) => id === from || (!from && store.lineOf(id)?.mass?.evidence !== 'weighed')
    goTo(Math.max(state.value.ids.findIndex(isNext), 0))
  }
  function goTo(index: number) {
    const at = Math.min(Math.max(index, 0), state.value.ids.length)
    happens({ type: 'gone to', at, line: lineAt(at) })
    typed.value = ''
    store.selectedId = line.value?.id ?? null
  }

  /** Takes the display: the next of several, or the line itself. Says why when it cannot. */
  function take() {
    const part = line.value
    if (!part) return
    const against = objection(state.value, {
      display: display.value,
      ready: ready.value,
      tare: tare.value,
      expected: expected.value,
    })
    if (against === 'doubt') happens({ type: 'doubted' })
    else if (against !== null) say(against)
    if (against !== null) return
    const displayG = display.value.massG!
    leave(displayG)
    typed.value = ''
    const needed = displaysNeeded(state.value.mode, part)
    const displays = [...state.value.collectedG, displayG]
    if (needed !== null && displays.length >= needed) finish(displays)
    else happens({ type: 'read', displayG })
  }
  function finish(displays: readonly number[] = state.value.collectedG) {
    const part = line.value
    const by = taking(newId())
    if (!part || !by || displays.length === 0) return
    try {
      const mass = massOfDisplays(state.value, by, part, displays, store.honesty)
      if (mass) keep(part, mass, displays)
    } catch (error) {
      if (!(error instanceof CoreInputError)) throw error
      happens({ type: 'begun again', message: runMessages.belowNothing })
    }
  }
  function keep(part: Line, mass: Mass, displays: readonly number[]) {
    const shavedG = state.value.mode === 'before and after' ? displays[0]! - displays[1]! : 0
    const note = shavedG > 0 ? `shaved ${fixed(shavedG, 2)} g, weighed by difference` : ''
    const as = placeOf(mass, part, store.build!, store.estimates, store.honesty)
    if (!store.run({ type: 'line.weigh', id: part.id, mass, as }, note)) {
      say(store.refusal)
      return
    }
    taken.value = [{ lineId: part.id, title: lineTitle(part), mass }, ...taken.value]
    goTo(state.value.at + 1)
  }
  async function zero() {
    const pressed = await bench.zero()
    useTray(null)
    leftOnPanG.value = null
    say(pressed ? '' : runMessages.noKey)
  }
  function again() {
    const last = taken.value[0]
    const index = last ? state.value.ids.indexOf(last.lineId) : state.value.at - 1
    if (index >= 0) goTo(index)
  }
  function useTray(tray: TareUsed | null) {
    tare.value = tray ?? { id: newId(), name: 'zero key', displayG: 0 }
  }

  watch(
    () => store.build?.id,
    () => {
      begin(order.value, asked)
    },
    { immediate: true },
  )
  const of = <K extends keyof RunState>(key: K) => computed(() => state.value[key])
  return {
    order,
    ids: of('ids'),
    at: of('at'),
    mode: of('mode'),
    collected: of('collectedG'),
    message: of('message'),
    basis: computed({
      get: () => state.value.basis,
      set: (basis: Basis) => happens({ type: 'basis chosen', basis }),
    }),
    line,
    several,
    typed,
    tare,
    taken,
    finished: computed(() => isFinished(state.value)),
    started,
    expected,
    display,
    preview,
    needed: computed(() => (line.value ? displaysNeeded(state.value.mode, line.value) : 1)),
    canFinish: computed(() => canFinish(state.value)),
    piecesOnPan: computed(() => (line.value ? piecesOnPan(state.value.mode, line.value) : 1)),
    piecesWanted,
    begin,
    goTo,
    leave,
    chooseMode: (mode: PanMode) => happens({ type: 'mode chosen', mode }),
    cyclePieces: () => line.value && happens({ type: 'pieces cycled', line: line.value }),
    take,
    finish,
    zero,
    again,
    useTray,
    taking,
    type: pan.type,
    skip: () => goTo(state.value.at + 1),
    back: () => goTo(state.value.at - 1),
  }
}
export type WeighRun = ReturnType<typeof useWeighRun>

import { flightPlanOf, sheetCells, triedPacks, type LoadoutCell, type SheetFlight } from '#core/aircraft/flight'
import { chosenCards } from '#core/mass/report'
import type { TaughtPlan } from '#core/aircraft/flown'
import { blankFlightPlan } from '#core/aircraft/power'
import type { LoadoutFlights, FlightsRequest } from '~/workers/loadouts.worker'

/**
 * Every way the open build could be flown. Weight and verdict are worked out at once; minutes come from a worker a moment
 * later, so that typing never waits for them.
 */
export const useLoadouts = createSharedComposable(() => {
  const store = useBuildStore()
  const rules = useRulesStore()
  const drawer = useDrawerStore()
  const { settings } = storeToRefs(useSettingsStore())
  /** Packs looked at besides those on the build and its list. */
  const withDrawer = ref(false)
  const withTypical = ref(false)

  const flown = useFlightsStore()
  const plan = computed<TaughtPlan>(() =>
    store.build ? flightPlanOf(store.build, lessonsFor(flown, store.build.id)) : blankFlightPlan,
  )
  const cards = computed(() => {
    if (!store.build) return []
    const own = chosenCards(store.build, rules.cards)
    return [...own, ...rules.cards.filter(card => plan.value.alsoCardIds.includes(card.id) && !own.includes(card))]
  })
  const tried = computed(() => {
    if (!store.build || store.build.reference) return []
    return triedPacks(store.build, withDrawer.value ? drawer.parts : []).filter(
      ({ source }) => source !== 'typical' || withTypical.value,
    )
  })
  const cells = computed<readonly LoadoutCell[]>(() =>
    store.build && !store.build.reference ? sheetCells(store.build, tried.value, cards.value, store.estimates) : [],
  )
  const ownCells = computed(() => cells.value.filter(cell => cell.source === 'on the build'))

  const flights = shallowRef<ReadonlyMap<string, SheetFlight>>(new Map())
  /** How far the minutes are counted; null when they are, or nobody wants them. */
  const progress = shallowRef<{ done: number; of: number } | null>(null)
  /** Somebody has stopped the counting: it begins again with the next change, or when it is asked for. */
  const isStopped = ref(false)
  /** Minutes are asked for only while somebody looks at them. */
  const watched = ref(false)
  let worker: Worker | null = null
  let number = 0
  let arrived = new Map<string, SheetFlight>()
  function ask() {
    if (!watched.value) return
    if (!store.build || store.build.reference) {
      flights.value = new Map()
      return
    }
    if (!worker) {
      worker = new Worker(new URL('../workers/loadouts.worker.ts', import.meta.url), { type: 'module' })
      worker.addEventListener('message', take)
    }
    number++
    arrived = new Map()
    isStopped.value = false
    progress.value = cells.value.length > 0 ? { done: 0, of: cells.value.length } : null
    const wanted = cells.value.map(({ key, choice, massG, pack, source }) => ({ key, choice, massG, pack, source }))
    worker.postMessage(
      toPlain({
        number,
        build: store.build,
        plan: plan.value,
        gear: settings.value.gear,
        cells: wanted,
      } satisfies FlightsRequest),
    )
  }
  function take({ data }: MessageEvent<LoadoutFlights>) {
    if (data.number !== number) return
    for (const flight of data.flights) arrived.set(flight.key, flight)
    if (data.done < data.of) {
      progress.value = { done: data.done, of: data.of }
      return
    }
    flights.value = arrived
    progress.value = null
  }
  /** Counts no further; what has been counted is shown. */
  function stop() {
    worker?.terminate()
    worker = null
    flights.value = arrived
    progress.value = null
    isStopped.value = true
  }
  watch(
    () => store.build?.id,
    () => {
      flights.value = new Map()
    },
  )
  watchDebounced([cells, plan, () => settings.value.gear], ask, { debounce: 40, immediate: true })
  watch(watched, ask)
  tryOnScopeDispose(() => worker?.terminate())

  return { watched, plan, cards, cells, ownCells, flights, progress, isStopped, ask, stop, withDrawer, withTypical }
})

/** Without the wrappers of the interface, which a worker cannot take. */
function toPlain(request: FlightsRequest): FlightsRequest {
  return {
    ...toRaw(request),
    build: toRaw(request.build),
    plan: toRaw(request.plan),
    gear: request.gear && { ...toRaw(request.gear) },
  }
}

import type { MinutesBand, RestsOn } from '#core/aircraft/flown'
import { flightPlanOf, goalChance, goalWays, sheetFlight } from '#core/aircraft/flight'
import type { Style } from '#core/aircraft/power'
import { loadoutMasses } from '#core/mass/loadout'
import type { LoadoutChoice } from '#core/model/ledger'

/** The next flight of one loadout in one style: its minutes, or why there are none. */
export interface NextMinutes {
  readonly style: Style
  readonly band: Pick<MinutesBand, 'low' | 'middle' | 'high'> | null
  readonly why: string
  readonly restsOn: RestsOn | null
  readonly packFlights: number
}

/** The loadout on view as it would be flown next. */
export function useNextFlight() {
  const store = useBuildStore()
  const flights = useFlightsStore()
  const plan = computed(() => flightPlanOf(store.build!, lessonsFor(flights, store.build!.id)))
  const massOf = (choice: LoadoutChoice) => loadoutMasses(store.build!, [choice], store.estimates)[0]!.massG

  function flightIn(choice: LoadoutChoice, style: Style): NextMinutes {
    const asked = { ...plan.value, style }
    const { forecast, missing } = sheetFlight(store.build!, choice, massOf(choice), asked)
    const why = missing?.missing ?? forecast?.why ?? ''
    return {
      style,
      band:
        forecast && why === ''
          ? { low: forecast.hardMinutes, middle: forecast.minutes, high: forecast.gentleMinutes }
          : null,
      why,
      restsOn: forecast?.restsOn ?? null,
      packFlights: forecast?.packFlights ?? 0,
    }
  }
  /** The style of the last flight, or the one of Packs. */
  const style = computed<Style>(() => flights.flights.at(-1)?.style ?? plan.value.style)
  const next = computed(() => (store.build ? flightIn(store.choice, style.value) : null))
  const goal = computed(() => store.build?.aim.goalMinutes ?? null)
  const chanceIn = (choice: LoadoutChoice, of: Style) =>
    goal.value === null
      ? null
      : goalChance(store.build!, choice, store.estimates, { ...plan.value, style: of }, goal.value)
  const chance = computed(() => (store.build ? chanceIn(store.choice, style.value) : null))
  const ways = computed(() =>
    store.build && goal.value !== null
      ? goalWays(store.build, store.choice, store.estimates, { ...plan.value, style: style.value }, goal.value)
      : null,
  )
  return { style, next, goal, chance, chanceIn, ways, flightIn }
}

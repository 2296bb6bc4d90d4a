import { makeFlight, mostMinutes, snapshotOf, type Flight, type FlightSnapshot } from '#core/aircraft/flown'
import { flightPlanOf } from '#core/aircraft/flight'
import type { Style } from '#core/aircraft/power'
import { loadoutMasses, packLines } from '#core/mass/loadout'
import { packLabel, type LoadoutChoice } from '#core/model/ledger'
import { isNotRead, readFlightTime } from '#core/text/units'
import { flightSchema } from '#shared/schemas/flights'

/** What the page of flights does: notes them, changes them, with what was wrong about a figure as a sentence. */
export function useFlying() {
  const store = useBuildStore()
  const flights = useFlightsStore()

  /** The craft as it would be flown now. */
  function snapshot(choice: LoadoutChoice): FlightSnapshot {
    const build = store.build!
    const { massG, sigmaG } = loadoutMasses(build, [choice], store.estimates)[0]!
    return snapshotOf(build, store.revision, choice, { massG, sigmaG }, flightPlanOf(build))
  }

  /** Keeps a flight if it can be; otherwise the sentence that says why not, and the field it is about. */
  async function put(flight: Flight): Promise<{ readonly problem: string; readonly field: string }> {
    const checked = flightSchema.safeParse(flight)
    if (checked.success) return { problem: await flights.putFlight(flight), field: '' }
    const issue = checked.error.issues[0]!
    return { problem: issue.message, field: String(issue.path[0] ?? '') }
  }

  async function note(choice: LoadoutChoice, style: Style, minutes: string, more: Partial<Flight> = {}) {
    const time = readFlightTime(minutes, mostMinutes)
    if (isNotRead(time)) return { problem: time.problem, field: 'durationS', id: null }
    const flight = makeFlight({
      ...{ id: newId(), buildId: store.build!.id, flownAt: localMoment(), style },
      ...{ durationS: time.seconds, stepS: time.stepS, snapshot: snapshot(choice), ...more },
    })
    const kept = await put(flight)
    return { ...kept, id: kept.problem === '' ? flight.id : null }
  }

  const packs = computed(() =>
    store.build ? packLines(store.build).map(line => ({ value: line.id, label: packLabel(line) })) : [],
  )
  const plan = computed(() => flightPlanOf(store.build!, lessonsFor(flights, store.build!.id)))
  return {
    snapshot,
    put,
    note,
    packs,
    plan,
  }
}

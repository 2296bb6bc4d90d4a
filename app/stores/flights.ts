import { defineStore } from 'pinia'
import {
  byTimeFlown,
  type FlightFinding,
  type Flight,
  type Lessons,
  type Renewal,
  type SettingsRecord,
  type WorkedFlight,
} from '#core/aircraft/flown'
import type { KeptChange } from '#shared/schemas/kept'
import type { FlightsReply } from '#shared/schemas/flights'
import type { QueuedEdit } from '../queue'
import { keptChangeBetween, overlaid, removalOf } from '../queue/overlay'

const nothing: Pick<FlightsReply, 'flights' | 'findings'> = { flights: [], findings: [] }

/** Flights and findings of the open build; what waits to be written comes on top of what the server has. */
export const useFlightsStore = defineStore('flights', () => {
  const edits = useEditsStore()
  const buildId = ref('')
  const flights = shallowRef<readonly Flight[]>([])
  const findings = shallowRef<readonly FlightFinding[]>([])
  const worked = shallowRef<ReadonlyMap<string, WorkedFlight>>(new Map())
  const renewals = shallowRef<readonly Renewal[]>([])
  const unreadable = ref(0)
  const powers = shallowRef<FlightsReply['powers']>([])
  const settings = shallowRef<readonly SettingsRecord[]>([])
  const lives = shallowRef<FlightsReply['lives']>([])
  const offered = shallowRef<FlightsReply['offered']>([])
  const lessons = shallowRef<Lessons | null>(null)
  const loaded = ref(false)
  /** Forecasts as they were before any flight, to compare. */
  const isWithout = ref(false)

  let written = nothing
  const ofBuild = <T extends { readonly buildId: string }>(things: readonly T[]) =>
    things.filter(thing => thing.buildId === buildId.value)
  const carriedOut = (on: typeof nothing, sent: readonly QueuedEdit[]): typeof nothing => ({
    flights: ofBuild(overlaid(on.flights, 'flight', sent)) as FlightsReply['flights'],
    findings: ofBuild(overlaid(on.findings, 'finding', sent)) as FlightsReply['findings'],
  })
  function show() {
    if (!loaded.value) return
    const now = carriedOut(written, edits.queue.pending('flights'))
    flights.value = [...now.flights].sort(byTimeFlown)
    findings.value = now.findings
  }
  edits.listen({
    accepted(document, sent) {
      if (document === 'flights') written = carriedOut(written, sent)
    },
    changed(document) {
      if (document === 'flights') show()
    },
  })

  /** A late answer never takes the place of a newer one. */
  let asked = 0
  async function load(id: string) {
    if (buildId.value !== id) reset()
    buildId.value = id
    const mine = ++asked
    const reply = await askServer<FlightsReply>(`/api/builds/${encodeURIComponent(id)}/flights`)
    if (mine !== asked || buildId.value !== id) return
    written = reply
    worked.value = new Map(reply.worked.map(one => [one.id, one]))
    offered.value = reply.offered
    lives.value = reply.lives
    unreadable.value = reply.unreadable
    powers.value = reply.powers
    settings.value = reply.settings
    renewals.value = reply.renewals
    lessons.value = reply.lessons
    loaded.value = true
    show()
  }

  /** Returns '' when it is written or waits to be, else the sentence that says why not. */
  const keep = (changes: readonly (KeptChange | null)[], words: string) =>
    edits.keep('flights', 'Flights', changes, words)
  const flightOf = (id: string) => flights.value.find(flight => flight.id === id) ?? null
  const findingOf = (id: string) => findings.value.find(finding => finding.id === id) ?? null
  const putFlight = (flight: Flight) => keep([keptChangeBetween('flight', flightOf(flight.id), flight)], 'Flight')
  async function removeFlight(id: string) {
    const flight = flightOf(id)
    return flight ? keep([removalOf('flight', flight)], 'Flight deleted') : ''
  }
  const putFlights = (some: readonly Flight[]) =>
    keep(
      some.map(flight => keptChangeBetween('flight', flightOf(flight.id), flight)),
      some.length === 1 ? 'Flight' : `${some.length} flights`,
    )
  const putFinding = (finding: FlightFinding) =>
    keep([keptChangeBetween('finding', findingOf(finding.id), finding)], 'Finding')
  /** A new part in the place of an old one, from now on. */
  const renew = (key: string, at: string) =>
    keep([{ kind: 'renewal', id: newId(), seen: null, set: { buildId: buildId.value, key, at } }], 'New part fitted')
  /** The text of a configuration is asked for when it is looked at. */
  const textOfSettings = async (id: string) =>
    (await askServer<SettingsRecord>(`/api/settings-records/${encodeURIComponent(id)}`)).text
  function addSettings({ id, ...set }: SettingsRecord) {
    return keep([{ kind: 'settingsRecord', id, seen: null, set: { ...set } }], `Settings ${set.name}`)
  }
  const nameSettings = (id: string, name: string) => {
    const before = settings.value.find(record => record.id === id)
    return keep(
      [before ? { kind: 'settingsRecord', id, seen: { name: before.name }, set: { name } } : null],
      `Settings ${name}`,
    )
  }
  const removeSettings = (id: string) => keep([{ kind: 'settingsRecord', id, set: null }], 'Settings deleted')
  async function removeFinding(id: string) {
    const finding = findingOf(id)
    return finding ? keep([removalOf('finding', finding)], 'Finding deleted') : ''
  }

  /** What forecasts are made with: nothing where one wants to see them without. */
  const teaching = computed(() => (isWithout.value || lessons.value?.said.length === 0 ? null : lessons.value))

  function reset() {
    asked++
    written = nothing
    buildId.value = ''
    loaded.value = false
    flights.value = []
    findings.value = []
    worked.value = new Map()
    offered.value = []
    lives.value = []
    powers.value = []
    settings.value = []
    renewals.value = []
    lessons.value = null
  }
  return {
    buildId,
    flights,
    findings,
    worked,
    offered,
    lives,
    unreadable,
    powers,
    settings,
    renewals,
    lessons,
    loaded,
    isWithout,
    teaching,
    load,
    flightOf,
    findingOf,
    putFlight,
    putFlights,
    removeFlight,
    putFinding,
    removeFinding,
    renew,
    textOfSettings,
    addSettings,
    nameSettings,
    removeSettings,
    reset,
  }
})

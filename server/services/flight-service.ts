import { counted } from '../../core/text/display'
import {
  byTimeFlown,
  FlightSums,
  partLives,
  workedFlights,
  type FlightFinding,
  type Flight,
  type FlightsWorkedOut,
  type Lessons,
  type Renewal,
  type SettingsRecord,
} from '../../core/aircraft/flown'
import { quantile } from '../../core/maths/numbers'
import { mostFlights, mostSettings, type FlightsReply } from '../../shared/schemas/flights'
import type { FlightsRepository, MomentsTable } from '../db/flights-repository'
import { DomainProblem } from '../problems'
import { Followers } from './builds/followers'

interface Dependencies {
  readonly flights: FlightsRepository
  /** The name of a build; null where there is none. */
  readonly nameOf: (id: string) => string | null
}

/** What a build file holds of flights. */
interface Flown {
  readonly flights: readonly Flight[]
  readonly findings: readonly FlightFinding[]
  readonly renewals: readonly Renewal[]
  readonly settings: readonly SettingsRecord[]
}

/** Flights and findings: kept, followed, and worked out together. */
export function flightService({ flights: rows, nameOf }: Dependencies) {
  const isBuild = (id: string) => nameOf(id) !== null
  const followers = new Followers()
  const sums = new FlightSums()
  /** All flights by id, read once; the same objects as long as nothing of them changes. */
  let held: Map<string, Flight> | null = null
  let byBuild = new Map<string, Map<string, Flight>>()
  let unreadable: ReadonlyMap<string, number> = new Map()
  let workedOut: FlightsWorkedOut | null = null

  function all(): Map<string, Flight> {
    if (held) return held
    held = new Map()
    byBuild = new Map()
    const read = rows.flights.all()
    unreadable = read.unreadable
    for (const flight of read.things) hold(flight)
    return held
  }
  const ofBuild = (buildId: string): ReadonlyMap<string, Flight> => {
    all()
    return byBuild.get(buildId) ?? new Map<string, Flight>()
  }
  function hold(flight: Flight): void {
    const before = held!.get(flight.id)
    if (before && before.buildId !== flight.buildId) byBuild.get(before.buildId)?.delete(flight.id)
    held!.set(flight.id, flight)
    const own = byBuild.get(flight.buildId)
    if (own) own.set(flight.id, flight)
    else byBuild.set(flight.buildId, new Map([[flight.id, flight]]))
  }
  const out = () => (workedOut ??= sums.workOut([...all().values()]))
  function requireBuild(id: string): void {
    if (!isBuild(id)) throw new DomainProblem('refused', 'The build is no longer there: it was deleted meanwhile.')
  }
  function requireRoom({ id, buildId }: Flight): void {
    if (all().has(id) || ofBuild(buildId).size < mostFlights) return
    const most = counted(mostFlights)
    throw new DomainProblem('refused', `A build keeps at most ${most} flights. Nothing was written.`)
  }
  /** Builds whose flights or findings this write has changed: told once it is on disk. */
  const changed = new Set<string>()
  let version = 0
  function change(buildId: string): void {
    workedOut = null
    changed.add(buildId)
  }
  function forget(): void {
    held = null
    workedOut = null
    changed.clear()
  }
  /** How what belongs to flights is kept, one thing at a time; `check` refuses what there is no room for. */
  function kept<T extends { readonly id: string; readonly buildId: string }>(
    table: MomentsTable<T>,
    check: (thing: T) => void = () => undefined,
  ) {
    return {
      one: (id: string): T | null => table.one(id),
      put(thing: T): void {
        requireBuild(thing.buildId)
        check(thing)
        table.put(thing)
        changed.add(thing.buildId)
      },
      remove(id: string): void {
        const thing = table.one(id)
        table.remove(id)
        if (thing) changed.add(thing.buildId)
      },
    }
  }
  function lessonsOf(buildId: string): Lessons {
    const { calibration, packs } = out()
    const own = [...ofBuild(buildId).values()].flatMap(({ snapshot }) => (snapshot.pack ? [snapshot.pack.key] : []))
    // A pack of the drawer may have been flown on other craft only: what they say of it holds here too.
    const shared = [...packs.keys()].filter(key => !key.includes('/'))
    const keys = new Set([...own, ...shared])
    return {
      buildId,
      said: calibration.said,
      packs: Object.fromEntries([...keys].flatMap(key => (packs.has(key) ? [[key, packs.get(key)!] as const] : []))),
    }
  }
  /** Mean power of the flights of every build that are not held: the middle, and where half of them lie. */
  function powersOf() {
    const { figures, calibration } = out()
    const held = new Set(calibration.held.map(({ id }) => id))
    return [...byBuild].flatMap(([buildId, flights]) => {
      const watts = [...flights.keys()]
        .flatMap(id => (held.has(id) ? [] : (figures.get(id)?.powerW ?? [])))
        .sort((a, b) => a - b)
      if (watts.length === 0) return []
      const at = (share: number) => quantile(watts, share)
      const [medianW, lowW, highW] = [at(0.5), at(0.25), at(0.75)]
      return [{ buildId, name: nameOf(buildId) ?? buildId, medianW, lowW, highW, flights: watts.length }]
    })
  }
  /** What the parts that have flown on a build have flown, on whichever craft. */
  function livesOf(own: readonly Flight[]) {
    const keys = new Set(own.flatMap(({ snapshot }) => snapshot.parts.map(({ key }) => key)))
    const of = [...all().values()].filter(({ snapshot }) => snapshot.parts.some(({ key }) => keys.has(key)))
    return partLives(of, rows.renewals.all().things).filter(({ key }) => keys.has(key))
  }
  return {
    ofBuild(buildId: string): FlightsReply {
      if (!isBuild(buildId)) throw new DomainProblem('not-found', 'There is no such build.')
      const own = [...ofBuild(buildId).values()]
      const ids = new Set(own.map(({ id }) => id))
      return {
        flights: own,
        unreadable: unreadable.get(buildId) ?? 0,
        findings: rows.findings.of(buildId),
        renewals: rows.renewals.of(buildId),
        settings: rows.settings.of(buildId).map(record => ({ ...record, text: '' })),
        lives: livesOf(own),
        worked: workedFlights(own, out()),
        offered: out().calibration.offered.filter(offer => offer.every(id => ids.has(id))),
        powers: powersOf(),
        lessons: lessonsOf(buildId),
      } as FlightsReply
    },
    lessonsOf,
    /** Flights and what belongs to them, of a build, as they are kept. */
    keptOf: (buildId: string) => ({
      flights: [...ofBuild(buildId).values()].sort(byTimeFlown),
      findings: rows.findings.of(buildId),
      renewals: rows.renewals.of(buildId),
      settings: rows.settings.of(buildId),
    }),
    /** Logs that the flights of a build name. */
    logsOf: (buildId: string) => [...ofBuild(buildId).values()].flatMap(({ logId }) => logId ?? []),
    /** Takes in what was flown with a build that comes in; ids that are there already become new ones. */
    bringIn(buildId: string, from: Flown, newId: () => string) {
      const ids = new Map(from.flights.map(({ id }) => [id, all().has(id) ? newId() : id]))
      for (const flight of from.flights) {
        const one = { ...flight, id: ids.get(flight.id)!, buildId, snapshot: snapshotIn(flight, buildId) }
        rows.flights.put(one)
        hold(one)
        change(buildId)
      }
      for (const finding of from.findings) {
        const id = rows.findings.one(finding.id) ? newId() : finding.id
        const flightId = finding.flightId === null ? null : (ids.get(finding.flightId) ?? null)
        rows.findings.put({ ...finding, id, buildId, flightId })
        changed.add(buildId)
      }
      for (const renewal of from.renewals) {
        const id = rows.renewals.one(renewal.id) ? newId() : renewal.id
        rows.renewals.put({ ...renewal, id, buildId, key: keyIn(renewal.key, renewal.buildId, buildId) })
      }
      for (const record of from.settings)
        rows.settings.put({ ...record, id: rows.settings.one(record.id) ? newId() : record.id, buildId })
    },
    flight: (id: string): Flight | null => all().get(id) ?? null,
    putFlight(flight: Flight) {
      requireBuild(flight.buildId)
      requireRoom(flight)
      rows.flights.put(flight)
      hold(flight)
      change(flight.buildId)
    },
    removeFlight(id: string) {
      const flight = all().get(id)
      rows.flights.remove(id)
      held!.delete(id)
      if (flight) byBuild.get(flight.buildId)?.delete(id)
      if (flight) change(flight.buildId)
    },
    findings: kept(rows.findings),
    renewals: kept(rows.renewals),
    settings: kept(rows.settings, ({ id, buildId }) => {
      if (!rows.settings.one(id) && rows.settings.count(buildId) >= mostSettings)
        throw new DomainProblem(
          'refused',
          `A build keeps at most ${mostSettings} records of settings. Delete one first. Nothing was written.`,
        )
    }),
    follow: followers.follow.bind(followers),
    /** A build went for good, and its flights with it. */
    dropBuild(buildId: string) {
      for (const id of ofBuild(buildId).keys()) held!.delete(id)
      byBuild.delete(buildId)
      workedOut = null
    },
    /** What the last write changed is on disk. */
    written() {
      const told = [...changed]
      changed.clear()
      for (const buildId of told) followers.tell(buildId, ++version)
    },
    /** A write that threw, or a commit that was lost, takes what was held with it. */
    forget,
    forgetChanged() {
      if (changed.size > 0) forget()
    },
  }
}
/** A part that is known by its build alone belongs to the build it comes in as. */
function snapshotIn({ buildId, snapshot }: Flight, to: string): Flight['snapshot'] {
  const { pack, parts } = snapshot
  return {
    ...snapshot,
    parts: parts.map(part => ({ ...part, key: keyIn(part.key, buildId, to) })),
    pack: pack && { ...pack, key: keyIn(pack.key, buildId, to) },
  }
}
const keyIn = (key: string, from: string, to: string): string =>
  key.startsWith(`${from}/`) ? `${to}/${key.slice(from.length + 1)}` : key
export type FlightService = ReturnType<typeof flightService>

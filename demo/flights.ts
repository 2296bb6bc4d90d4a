import { makeFinding, type FlightFinding, type Flight, type SettingsRecord } from '../core/aircraft/flown'
import { dayBefore, type SeasonFlight, type SeasonTruth } from '../simulators/flights/season'

/** One season of three craft: days counted back from the day the demo is looked at. */
export interface DemoSeason {
  readonly truth: SeasonTruth
  readonly flights: readonly SeasonFlight[]
}

const shed = { place: 'tram shed' }
const wall = { place: 'harbour wall' }
const sherbet = (packLineId: string) => ({ setupId: 'as-built', packLineId })
const praline = (packLineId: string, setupId = 'guards') => ({ setupId, packLineId })
const nougat = (setupId = 'nests') => ({ setupId, packLineId: 'n1' })
const race = 'race' as const
const freestyle = 'freestyle' as const
const cruise = 'cruise' as const

/** From this day those of the season are counted back. */
export const lastDemoDay = '2026-11-29'

export const demoSeasons: Readonly<Record<string, DemoSeason>> = {
  sherbet: {
    truth: { seed: 11, power: 0.93, packHolds: { s1: 1, s2: 0.95 } },
    flights: [
      { choice: sherbet('s1'), style: race, daysAgo: 40, at: '19:05', landedAt: 0.18, knownBy: [], ...shed },
      {
        choice: sherbet('s2'),
        style: race,
        daysAgo: 40,
        at: '19:21',
        landedAt: 0.16,
        knownBy: ['fresh volts'],
        ...shed,
      },
      { choice: sherbet('s1'), style: race, daysAgo: 33, at: '19:10', landedAt: 0.15, knownBy: ['volts'], ...shed },
      { choice: sherbet('s2'), style: race, daysAgo: 33, at: '19:30', landedAt: 0.2, knownBy: ['put back'], ...shed },
      { choice: sherbet('s1'), style: race, daysAgo: 26, at: '19:04', landedAt: 0.13, knownBy: ['put back'], ...shed },
      {
        choice: sherbet('s1'),
        style: race,
        daysAgo: 19,
        at: '19:16',
        landedAt: 0.2,
        knownBy: ['put back', 'volts'],
        ...shed,
      },
      { choice: sherbet('s2'), style: race, daysAgo: 12, at: '19:08', landedAt: 0.14, knownBy: ['put back'], ...shed },
      { choice: sherbet('s1'), style: race, daysAgo: 5, at: '19:12', landedAt: 0.17, knownBy: ['put back'], ...shed },
    ],
  },
  praline: {
    truth: { seed: 6, power: 1.08, packHolds: { q1: 0.97, q2: 0.96 } },
    flights: [
      { choice: praline('q2'), style: freestyle, daysAgo: 35, at: '14:10', landedAt: 0.16, knownBy: [], ...wall },
      {
        choice: praline('q1'),
        style: freestyle,
        daysAgo: 35,
        at: '14:32',
        landedAt: 0.18,
        knownBy: ['fresh volts'],
        ...wall,
      },
      {
        choice: praline('q2'),
        style: freestyle,
        daysAgo: 29,
        at: '11:04',
        landedAt: 0.19,
        knownBy: ['put back'],
        ...wall,
      },
      {
        choice: praline('q1'),
        style: freestyle,
        daysAgo: 29,
        at: '11:25',
        landedAt: 0.15,
        knownBy: ['put back'],
        ...wall,
      },
      {
        choice: praline('q2'),
        style: freestyle,
        daysAgo: 28,
        at: '15:01',
        landedAt: 0.16,
        knownBy: ['put back', 'volts'],
        ...wall,
      },
      {
        choice: praline('q1'),
        style: freestyle,
        daysAgo: 22,
        at: '10:48',
        landedAt: 0.17,
        knownBy: ['put back'],
        ...wall,
      },
      {
        ...{
          choice: praline('q1'),
          style: freestyle,
          daysAgo: 22,
          at: '11:15',
          landedAt: 0.1,
          knownBy: ['put back'] as const,
        },
        ...{ harder: 1.9, windMps: 9, note: 'Howling on every punch: a blade was nicked.', ...wall },
      },
      {
        choice: praline('q2'),
        style: freestyle,
        daysAgo: 21,
        at: '13:40',
        landedAt: 0.18,
        knownBy: ['put back'],
        ...wall,
      },
      {
        choice: praline('q1'),
        style: freestyle,
        daysAgo: 15,
        at: '14:20',
        landedAt: 0.16,
        knownBy: ['put back'],
        ...wall,
      },
      {
        choice: praline('q2'),
        style: freestyle,
        daysAgo: 15,
        at: '14:45',
        landedAt: 0.17,
        knownBy: ['put back', 'volts'],
        ...wall,
      },
      { choice: praline('q1'), style: cruise, daysAgo: 14, at: '09:58', landedAt: 0.2, knownBy: ['put back'], ...wall },
      {
        choice: praline('q2'),
        style: freestyle,
        daysAgo: 8,
        at: '15:12',
        landedAt: 0.18,
        knownBy: ['put back'],
        ...wall,
      },
      {
        ...{ choice: praline('q2'), style: freestyle, daysAgo: 7, at: '15:42', landedAt: 0.16 },
        ...{
          knownBy: ['put back', 'volts'] as const,
          windMps: 3,
          note: 'Two laps round the crane. Steadier on the way down with the new blades.',
          ...wall,
        },
      },
    ],
  },
  nougat: {
    truth: { seed: 23, power: 0.97, packHolds: { n1: 0.93 } },
    flights: [
      {
        choice: nougat('as-built'),
        style: cruise,
        daysAgo: 50,
        at: '08:30',
        landedAt: 0.22,
        knownBy: [],
        place: 'sea wall',
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 43,
        at: '08:41',
        landedAt: 0.25,
        knownBy: ['volts'],
        place: 'sea wall',
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 43,
        at: '09:20',
        landedAt: 0.2,
        knownBy: ['put back'],
        place: 'sea wall',
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 36,
        at: '08:12',
        landedAt: 0.24,
        knownBy: ['put back', 'volts'],
        place: 'sea wall',
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 30,
        at: '08:25',
        landedAt: 0.21,
        knownBy: ['put back'],
        place: 'sea wall',
      },
      {
        choice: nougat('as-built'),
        style: cruise,
        daysAgo: 23,
        at: '16:02',
        landedAt: 0.23,
        knownBy: ['put back'],
        place: 'ridge walk',
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 16,
        at: '08:15',
        landedAt: 0.22,
        knownBy: ['put back', 'volts'],
        place: 'sea wall',
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 9,
        at: '08:31',
        landedAt: 0.2,
        knownBy: ['put back'],
        place: 'sea wall',
        windMps: 6,
      },
      {
        choice: nougat(),
        style: cruise,
        daysAgo: 9,
        at: '09:14',
        landedAt: 0.24,
        knownBy: ['put back'],
        place: 'sea wall',
      },
    ],
  },
}

/** A finding of the season, with what was tried for it and since when it is gone, in days before the last one. */
interface FoundOn {
  readonly finding: Pick<FlightFinding, 'id' | 'buildId' | 'kind' | 'severity'> & Partial<FlightFinding>
  readonly tried: readonly { readonly daysAgo: number; readonly what: string }[]
  readonly goneDaysAgo: number | null
}

const seasonFindings: readonly FoundOn[] = [
  {
    finding: {
      id: 'praline-vibration',
      ...{ buildId: 'praline', flightId: 'praline-07', kind: 'vibration in the picture', severity: 3 },
      ...{ suspectLineId: 'props', suspect: 'Three-blade 2.5 in, pressed on', note: 'One blade nicked at the root.' },
    },
    tried: [{ daysAgo: 22, what: 'New set of blades' }],
    goneDaysAgo: 21,
  },
  {
    finding: {
      id: 'praline-washout',
      ...{ buildId: 'praline', flightId: 'praline-10', kind: 'wash-out', severity: 2 },
      ...{ suspectLineId: 'props', suspect: 'Three-blade 2.5 in, pressed on' },
    },
    tried: [{ daysAgo: 13, what: 'Another set of blades, a degree less pitch' }],
    goneDaysAgo: null,
  },
  {
    finding: {
      id: 'praline-picture',
      ...{ buildId: 'praline', flightId: 'praline-12', kind: 'picture breaks up', severity: 1, distanceM: 90 },
      ...{ note: 'The wire dipole touches the canopy.' },
    },
    tried: [],
    goneDaysAgo: null,
  },
  {
    finding: {
      id: 'nougat-crash',
      ...{ buildId: 'nougat', flightId: 'nougat-06', kind: 'crash', severity: 3 },
      ...{ damagedLineIds: ['props'], suspectLineId: 'camera', suspect: 'Digital nano camera, 19 mm' },
      ...{ note: 'Clipped the rail turning back into the sun.', lesson: 'Turn away from the sun on the sea wall.' },
    },
    tried: [{ daysAgo: 22, what: 'New props, camera mount straightened' }],
    goneDaysAgo: 16,
  },
  {
    finding: {
      id: 'sherbet-heat',
      ...{ buildId: 'sherbet', flightId: 'sherbet-08', kind: 'motor heat', severity: 1 },
      ...{ suspectLineId: 'motors', suspect: 'Ostler 0802, leads 40 mm', note: 'Rear left only, after three laps.' },
    },
    tried: [],
    goneDaysAgo: null,
  },
]

const plain = [
  'name Praline',
  'motor_idle = 5.5',
  'filter_low = 250',
  'filter_high = 500',
  'notch_count = 1',
  'notch_width = 300',
  'roll_p = 45',
  'roll_i = 80',
  'roll_d = 40',
  'pitch_p = 47',
  'pitch_i = 84',
  'pitch_d = 46',
  'yaw_p = 45',
  'volts_warning = 3.55',
  'volts_land = 3.40',
]
const filtered = plain.map(
  line =>
    ({ 'filter_low = 250': 'filter_low = 210', 'notch_count = 1': 'notch_count = 3', 'roll_d = 40': 'roll_d = 34' })[
      line
    ] ?? line,
)
/** The configuration of Praline before and after its filters were changed. */
export const demoSettings = (revision: number): SettingsRecord[] =>
  [
    { id: 'praline-before', name: 'before filters', daysAgo: 36, lines: plain },
    { id: 'praline-filters', name: 'new filters', daysAgo: 13, lines: filtered },
  ].map(({ id, name, daysAgo, lines }) => ({
    ...{ id, buildId: 'praline', name, at: `${dayBefore(lastDemoDay, daysAgo)}T20:10`, revision },
    firmware: [
      { device: 'flight controller', version: '12.3.0' },
      { device: 'radio receiver', version: '3.1' },
    ],
    text: `${lines.join('\n')}\n`,
  }))

/** Findings of the season, each found when its flight was flown. */
export function demoFindings(flights: readonly Flight[]): FlightFinding[] {
  const flownAt = new Map(flights.map(flight => [flight.id, flight.flownAt]))
  return seasonFindings
    .filter(({ finding }) => flownAt.has(finding.flightId!))
    .map(({ finding, tried, goneDaysAgo }) =>
      makeFinding({
        ...finding,
        foundAt: flownAt.get(finding.flightId!)!,
        tried: tried.map(({ daysAgo, what }, i) => ({
          id: `${finding.id}-${i + 1}`,
          at: `${dayBefore(lastDemoDay, daysAgo)}T20:00`,
          what,
          revision: null,
        })),
        goneAt: goneDaysAgo === null ? null : `${dayBefore(lastDemoDay, goneDaysAgo)}T20:30`,
      }),
    )
}

import { counted } from '../../core/text/display'
import Papa from 'papaparse'
import { makeFlight, mostMinutes, type Flight, type FlightSnapshot, type WorkedFlight } from '../../core/aircraft/flown'
import { styles, type Style } from '../../core/model/data'
import { flightTimeWords, isNotRead, readFlightTime, readNumber } from '../../core/text/units'
import { flightSchema } from '../schemas/flights'
import { csvFile, unguarded } from './csv'

/** Heads of a list of flights; those that are worked out are left alone when a list comes in. */
export const flightHeads = [
  'Flown at',
  'Pack',
  'Set-up',
  'Style',
  'Flown',
  'First warning',
  'Landed, V',
  'Landed volts of',
  'Under load, A',
  'In the first minute',
  'Put back, mAh',
  'Counted on board, mAh',
  'Wind, m/s',
  'Air, °C',
  'Place',
  'Note',
] as const
const workedHeads = ['All-up weight, g', 'Charge used, mAh', 'Mean power, W', 'Minutes, reserve kept', 'Held'] as const
type Head = (typeof flightHeads)[number]

/** So many flights are brought in at once. */
export const mostFlightRows = 2000

const text = (value: number | null | undefined, digits: number): string =>
  value === null || value === undefined ? '' : String(Number(value.toFixed(digits)))

/** Flights as a list for a spreadsheet, with what was worked out of each. */
export function flightsCsv(flights: readonly Flight[], worked: ReadonlyMap<string, WorkedFlight>): string {
  const rows = flights.map(flight => {
    const { landing, snapshot } = flight
    const out = worked.get(flight.id)
    return [
      flight.flownAt.replace('T', ' '),
      snapshot.pack?.label ?? '',
      snapshot.setup,
      flight.style,
      flightTimeWords(flight.durationS),
      flight.firstWarningS === null ? '' : flightTimeWords(flight.firstWarningS),
      text(landing?.volts, 3),
      landing?.of ?? '',
      text(landing?.loadA, 2),
      landing?.isFresh ? 'yes' : '',
      text(flight.putBackMah, 1),
      text(flight.loggedMah, 1),
      text(flight.windMps, 1),
      text(flight.airC, 1),
      flight.place,
      flight.note,
      text(snapshot.auwG, 2),
      text(out?.used?.mah, 1),
      text(out?.powerW, 1),
      text(out?.toReserve, 2),
      out?.held ?? '',
    ]
  })
  return csvFile([[...flightHeads, ...workedHeads], ...rows])
}

/** Of what the flights of a list are: the build's packs and set-ups by their names, and the craft as it would fly with them. */
export interface FlightListOf {
  readonly buildId: string
  readonly packs: readonly { readonly id: string; readonly label: string }[]
  readonly setups: readonly { readonly id: string; readonly name: string }[]
  readonly usualSetupId: string
  readonly usualStyle: Style
  readonly snapshot: (choice: { setupId: string; packLineId: string | null }) => FlightSnapshot
  readonly newId: () => string
}
export interface FlightRows {
  readonly flights: readonly Flight[]
  /** Rows that cannot be flights, each with its number and a sentence. */
  readonly refused: readonly { readonly row: number; readonly sentence: string }[]
}

/** A day and time as lists write them: `2026-11-22 15:42`, with or without seconds or a time. */
function flownAtOf(said: string): string | null {
  const found = /^(\d{4}-\d\d-\d\d)(?:[ T](\d\d?):(\d\d)(:\d\d)?)?$/.exec(said)
  if (!found) return null
  const [, day, hours = '12', minutes = '00', seconds = ''] = found
  return `${day}T${hours.padStart(2, '0')}:${minutes}${seconds}`
}

class Row {
  constructor(
    private readonly cells: readonly string[],
    private readonly at: ReadonlyMap<string, number>,
  ) {}
  of(head: Head): string {
    const index = this.at.get(head.toLowerCase())
    return index === undefined ? '' : unguarded(this.cells[index]?.trim() ?? '')
  }
  number(head: Head): number | null {
    const said = this.of(head)
    if (said === '') return null
    const read = readNumber(said)
    if (isNotRead(read)) throw new RangeError(`${head}: ${read.problem}`)
    return read.value
  }
  seconds(head: Head): { readonly seconds: number; readonly stepS: number } {
    const read = readFlightTime(this.of(head), mostMinutes)
    if (isNotRead(read)) throw new RangeError(`${head}: ${read.problem}`)
    return read
  }
}

function oneOf<T extends object>(all: readonly T[], nameOf: (one: T) => string, said: string, what: string): T | null {
  if (said === '') return null
  const found = all.find(one => nameOf(one).toLowerCase() === said.toLowerCase())
  if (found) return found
  throw new RangeError(`${what} “${said}” is not on this build.`)
}

/** One flight of a list; throws a RangeError with a sentence where it can be none. */
function flightOf(row: Row, list: FlightListOf): Flight {
  const flownAt = flownAtOf(row.of('Flown at'))
  if (flownAt === null) throw new RangeError('Flown at: write the day as 2026-11-22, with the time as 15:42 behind it.')
  const pack = oneOf(list.packs, ({ label }) => label, row.of('Pack'), 'The pack')
  const setup = oneOf(list.setups, ({ name }) => name, row.of('Set-up'), 'The set-up')
  const said = row.of('Style').toLowerCase()
  const style = said === '' ? list.usualStyle : styles.find(one => one === said)
  if (!style) throw new RangeError(`The style “${said}” is none of: ${styles.join(', ')}.`)
  const time = row.seconds('Flown')
  const volts = row.number('Landed, V')
  const flight = makeFlight({
    id: list.newId(),
    buildId: list.buildId,
    flownAt,
    style,
    durationS: time.seconds,
    stepS: time.stepS,
    firstWarningS: row.of('First warning') === '' ? null : row.seconds('First warning').seconds,
    landing:
      volts === null
        ? null
        : {
            volts,
            of: row.of('Landed volts of').toLowerCase() === 'cell' ? 'cell' : 'pack',
            loadA: row.number('Under load, A'),
            isFresh: row.of('In the first minute').toLowerCase() === 'yes',
          },
    putBackMah: row.number('Put back, mAh'),
    loggedMah: row.number('Counted on board, mAh'),
    windMps: row.number('Wind, m/s'),
    airC: row.number('Air, °C'),
    place: row.of('Place'),
    note: row.of('Note'),
    snapshot: list.snapshot({ setupId: setup?.id ?? list.usualSetupId, packLineId: pack?.id ?? null }),
  })
  const checked = flightSchema.safeParse(flight)
  if (checked.success) return flight
  throw new RangeError(checked.error.issues[0]!.message)
}

/**
 * Reads a list of flights: heads as in {@link flightHeads}, of which only the day and the time in the air must be there. Rows
 * that cannot be flights are told one by one; a list that is none is a sentence.
 */
export function readFlightsCsv(textOfFile: string, list: FlightListOf): FlightRows | { readonly problem: string } {
  const parsed = Papa.parse<string[]>(textOfFile.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [';', '\t', ',', '|'],
  })
  const [heads, ...rows] = parsed.data
  if (!heads || rows.length === 0) return { problem: 'The file has no rows under its heads.' }
  if (rows.length > mostFlightRows)
    return {
      problem: `The file has ${counted(rows.length)} rows; at most ${counted(mostFlightRows)} at once.`,
    }
  const at = new Map(heads.map((head, i) => [unguarded(head.trim()).toLowerCase(), i]))
  for (const head of ['Flown at', 'Flown'] as const)
    if (!at.has(head.toLowerCase()))
      return { problem: `No column is called “${head}”: a flight has at least a day and a time in the air.` }
  const flights: Flight[] = []
  const refused: { row: number; sentence: string }[] = []
  rows.forEach((cells, i) => {
    try {
      flights.push(flightOf(new Row(cells, at), list))
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      refused.push({ row: i + 2, sentence: error.message })
    }
  })
  return { flights, refused }
}

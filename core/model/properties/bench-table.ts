import { isNotRead, readNumber, withoutUnit, type NotRead } from '../../text/units'
import type { BenchRow } from '../data'

const columns = ['throttle', 'volts', 'amps', 'grams'] as const
/** Heads a column may have in a file of somebody's measurements. */
const heads: readonly RegExp[] = [/throttle|^%$/i, /volt|^v$/i, /amp|current|^a$/i, /gram|thrust|^g$/i]
const least = [0, 0.5, 0, 0] as const
const most = [100, 80, 200, 20_000] as const

/** The figure a cell begins with, without the unit after it. */
function figureOf(cell: string): string {
  return /^[^%a-z]{0,40}/i.exec(cell)![0]
}

/**
 * Reads a bench table: one row a throttle position, `throttle %, volts, amps, grams`, with or without a head. Throttle
 * must rise from row to row, thrust must not fall, and volts must not fall faster than throttle rises; the refusal names
 * row and column. With a head that names all four, the columns may stand in any order among others.
 */
export function readBenchTable(text: string): { value: readonly BenchRow[] } | NotRead {
  const lines = text
    .split(/\r?\n/)
    .map(line => line.trim())
    .filter(line => line !== '')
  const hasHeads =
    /[a-z]{3}/i.test(lines[0] ?? '') || isNotRead(readNumber(withoutUnit((lines[0] ?? '').split(/[;\t,]/)[0]!, '%')))
  const body = hasHeads ? lines.slice(1) : lines
  if (body.length < 2)
    return { problem: 'A bench table needs at least two rows: throttle in %, volts in V, amps in A, thrust in g.' }
  if (body.length > 60) return { problem: 'A bench table has at most 60 rows.' }
  const cut = (line: string) =>
    line.split(line.includes(';') || line.includes('\t') ? /[;\t]/ : ',').map(cell => cell.trim())
  const named = hasHeads ? heads.map(head => cut(lines[0]!).findIndex(cell => head.test(cell))) : []
  const places =
    named.length > 0 && named.every(place => place >= 0) && new Set(named).size === named.length ? named : [0, 1, 2, 3]
  const rows: BenchRow[] = []
  for (const [i, line] of body.entries()) {
    const cells = cut(line)
    const numbers: number[] = []
    for (const [k, column] of columns.entries()) {
      const read = readNumber(figureOf(cells[places[k]!] ?? ''))
      if (isNotRead(read) || read.value < least[k]! || read.value > most[k]!)
        return {
          problem:
            `Row ${i + 1}, ${column}: ` +
            `${cells[places[k]!] ? `“${cells[places[k]!]!.slice(0, 20)}” is not a number from ${least[k]} to ${most[k]}` : 'missing'}.`,
        }
      numbers.push(read.value)
    }
    const row: BenchRow = { throttlePercent: numbers[0]!, volts: numbers[1]!, amps: numbers[2]!, thrustG: numbers[3]! }
    const before = rows.at(-1)
    if (before && row.throttlePercent <= before.throttlePercent)
      return {
        problem: `Row ${i + 1}, throttle: ${row.throttlePercent} % does not rise above the ${before.throttlePercent} % of the row before.`,
      }
    if (before && row.thrustG < before.thrustG)
      return { problem: `Row ${i + 1}, grams: the thrust falls from ${before.thrustG} g to ${row.thrustG} g.` }
    if (before && row.throttlePercent * row.volts <= before.throttlePercent * before.volts)
      return {
        problem:
          `Row ${i + 1}, volts: ${row.volts} V falls so far below the ${before.volts} V of the row before ` +
          `that more throttle passes on less.`,
      }
    rows.push(row)
  }
  return { value: rows }
}

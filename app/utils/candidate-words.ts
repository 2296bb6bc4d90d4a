import { counted, figure, fixed, minutesFigure, signed } from '#core/text/display'
import type { CandidateRow } from '#core/deciding/choosing'

/** What a column of the candidates is sorted by; null where that is not known of one. */
export function candidateValue(row: CandidateRow, key: string): number | string | null {
  switch (key) {
    case 'name':
      return row.line.name.toLowerCase()
    case 'set':
      return row.setG
    case 'delta':
      return row.deltaG
    case 'auw':
      return row.auwG
    case 'minutes':
      return row.minutes?.minutes ?? null
    case 'price':
      return row.setPriceCents
    case 'fit':
      return fitsWords(row) === 'not known' ? null : row.findings.length
    default:
      return row.figures.find(one => one.key === key)?.value ?? null
  }
}

/** Whether it fits: what is wrong, without the name that stands in the row already. */
export function fitsWords({ findings, line }: CandidateRow): string {
  const [first] = findings
  if (!first) return line.properties ? 'yes' : 'not known'
  const said = first.title.replace(`${line.name} `, '')
  return said.charAt(0).toUpperCase() + said.slice(1)
}

/** Minutes of the fitted part, and the difference of the others. */
export function candidateMinutes({ minutes, source }: CandidateRow): string {
  if (!minutes) return 'not known'
  if (source === 'fitted') return minutesFigure(minutes.minutes)
  return `${signed(minutes.deltaMin, 2)} ± ${fixed(minutes.spreadMin, 2)}`
}

/** From here on figures are counted in groups of three. */
const inGroupsFrom = 10_000

/** One figure of a candidate, or its words. */
export function candidateFigure(value: number | string | null, digits: number): string {
  if (value === null) return '–'
  if (typeof value === 'string') return value
  return value >= inGroupsFrom ? counted(Math.round(value)) : figure(value, digits)
}

/** The figures of a candidate that have no column, with their names: "Shaft: 1.5 mm · Mount: press fit". */
export function candidateWords({ figures }: CandidateRow, columns: readonly string[]): string {
  return figures
    .filter(({ key, value }) => value !== null && !columns.includes(key))
    .map(({ label, unit, value, digits }) => {
      const said = `${label}: ${candidateFigure(value, digits)}`
      return typeof value === 'number' && unit ? `${said} ${unit}` : said
    })
    .join(' · ')
}

/** Figures of which at least one candidate has a number: those that can be drawn. */
export function drawableFigures(rows: readonly CandidateRow[]): { readonly key: string; readonly label: string }[] {
  const hasNumber = (key: string) =>
    rows.some(row => typeof row.figures.find(one => one.key === key)?.value === 'number')
  return candidateFigures(rows)
    .filter(({ key }) => hasNumber(key))
    .map(({ key, label, unit }) => ({ key, label: unit ? `${label}, ${unit}` : label }))
}

/** The figures candidates of this kind have. */
export const candidateFigures = (rows: readonly CandidateRow[]): CandidateRow['figures'] =>
  rows.find(row => row.figures.length > 0)?.figures ?? []

import Papa from 'papaparse'

/** What a spreadsheet may take for the start of a formula, line breaks, tabs, blanks and full-width signs before or in it included. */
const formulaStart = /^[\t\r\n\v\f\u00A0 ]{0,100}[=+\-@＝＋－＠]|^[\t\r\n]/

/** A cell that a spreadsheet would run as a formula is written with an apostrophe before it. */
export function guarded(text: string): string {
  return formulaStart.test(text) ? `'${text}` : text
}

/** A cell as it was before it was guarded. */
export function unguarded(text: string): string {
  return text.startsWith(`'`) && formulaStart.test(text.slice(1)) ? text.slice(1) : text
}

/** Rows as CSV (RFC 4180, UTF-8, formula-safe); the first row is the heads. Numbers stay numbers, below nothing too. */
export function csvFile(rows: readonly (readonly (string | number)[])[]): string {
  return (
    Papa.unparse(
      rows.map(row => row.map(cell => (typeof cell === 'number' ? cell : guarded(cell)))),
      { newline: '\r\n' },
    ) + '\r\n'
  )
}

import Papa from 'papaparse'

/** A cell that a spreadsheet would run as a formula is written with an apostrophe before it. */
export function guarded(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
}

/** A cell as it was before it was guarded. */
export function unguarded(text: string): string {
  return /^'[=+\-@]/.test(text) ? text.slice(1) : text
}

/** Rows as CSV (RFC 4180, UTF-8, formula-safe); the first row is the heads. */
export function csvFile(rows: readonly (readonly string[])[]): string {
  return Papa.unparse(rows.map(row => row.map(guarded)), { newline: '\r\n' }) + '\r\n'
}

import { lineGrams } from '../../mass/evidence'
import { packLabel, type Build } from '../../model/ledger'
import type { Patch, PatchedLine } from './patch'

/** What the journal says of a change: a title and, where one line's grams changed, grams before and after. */
export interface Description {
  readonly title: string
  readonly gramsBeforeG: number | null
  readonly gramsAfterG: number | null
}

/** The most letters a title of the journal has. */
const mostLetters = 300
const cut = (title: string) => (title.length > mostLetters ? `${title.slice(0, mostLetters - 1)}…` : title)

/** A change of which no grams are told. */
export const told = (title: string): Description => ({ title: cut(title), gramsBeforeG: null, gramsAfterG: null })

/** Grams of a line as booked, without listing correction; null while it has none. */
export function bookedG(line: PatchedLine | null | undefined): number | null {
  return line?.mass ? lineGrams(line.mass, line.quantity) : null
}

export function lineName(line: PatchedLine): string {
  const label = line.slot === 'pack' ? packLabel(line) : line.name
  return label === line.name ? line.name : `${label} (${line.name})`
}

export function nameOf(build: Build, id: string): string {
  const line = build.lines.find(l => l.id === id)
  return line ? lineName(line) : 'a line'
}

/** A line that flew before and does not any more: others in the same change only hang on it. */
export const isReplaced = ({ before, after }: Patch['lines'][number]) =>
  before?.state === 'fitted' && after?.state !== 'fitted'

/** Of an object only the fields that another one has. */
export const picked = <T extends object>(from: T, fields: Partial<T>): Partial<T> =>
  Object.fromEntries(Object.keys(fields).map(key => [key, from[key as keyof T]])) as Partial<T>

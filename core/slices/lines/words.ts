import { lineGrams } from '../../mass/evidence'
import { slotFacts, type Build, type Line } from '../../model/ledger'
import { centsFigure, fixed } from '../../text/display'
import {
  bookedG,
  changesOf,
  isReplaced,
  joined,
  lineName,
  nameOf,
  propertyChanges,
  told,
  type Description,
  type LineChange,
  type Patch,
  type PatchedLine,
} from '../contract'

/** The one line a patch changed; null where it changed several, or none. */
const onlyLine = (patch: Patch): LineChange | null => (patch.lines.length === 1 ? patch.lines[0]! : null)

/** A change of one line with its grams before and after, where they changed. */
function toldOfLine(title: string, { before, after }: LineChange): Description {
  const [gramsBeforeG, gramsAfterG] = [bookedG(before), bookedG(after)]
  return gramsBeforeG === gramsAfterG ? told(title) : { ...told(title), gramsBeforeG, gramsAfterG }
}

export function addedWords(count: number, patch: Patch): Description {
  const only = onlyLine(patch)
  return only?.after ? toldOfLine(`Added ${lineName(only.after)}`, only) : told(`Added ${count} lines`)
}

export function takenOutWords(line: Line, whole: string): string {
  const many = line.quantity > 1 ? ` × ${line.quantity}` : ''
  const grams = line.mass ? `, ${weighedGrams(line.mass, line.quantity)},` : ''
  return `Took ${lineName(line)}${many}${grams} out of ${whole}`
}

export function deletedWords(count: number, patch: Patch): Description {
  const only = onlyLine(patch)
  return only?.before ? toldOfLine(`Deleted ${lineName(only.before)}`, only) : told(`Deleted ${count} lines`)
}

export function fittedWords(id: string, patch: Patch): Description {
  const fitted = patch.lines.find(c => c.after?.id === id)
  const replaced = patch.lines.find(isReplaced)
  const instead = replaced?.before ? ` instead of ${lineName(replaced.before)}` : ''
  return {
    ...told(`Fitted ${fitted?.after ? lineName(fitted.after) : 'a part'}${instead}`),
    gramsBeforeG: bookedG(replaced?.before),
    gramsAfterG: bookedG(fitted?.after),
  }
}

export function changedWords(patch: Patch, build: Build): Description {
  const only = onlyLine(patch)
  return only?.before && only.after
    ? toldOfLine(lineChangeWords(only.before, only.after, build), only)
    : toldOfSeveral(severalWords(patch, build), patch)
}

export function weighedWords(further: string | null, id: string, patch: Patch, build: Build): Description {
  const only = onlyLine(patch)
  if (!only?.before || !only.after) return told(`${nameOf(build, id)}: weighed`)
  const isFurther = further !== null && only.before.mass
  return toldOfLine(
    isFurther ? `${lineName(only.after)}: weighed again, ${further}` : lineChangeWords(only.before, only.after, build),
    only,
  )
}

/** Grams of a weighing as they are for a line. */
export const weighedGrams = (mass: Parameters<typeof lineGrams>[0], quantity: number) =>
  `${fixed(lineGrams(mass, quantity), 2)} g`

/** Several lines that all changed their grams, with what they weigh together before and after. */
function toldOfSeveral(title: string, { lines }: Patch): Description {
  const sides = lines.map(({ before, after }) => [bookedG(before), bookedG(after)] as const)
  if (sides.some(([before, after]) => before === null || after === null || before === after)) return told(title)
  const sum = (side: 0 | 1) => sides.reduce((total, both) => total + both[side]!, 0)
  return { ...told(title), gramsBeforeG: sum(0), gramsAfterG: sum(1) }
}

/** So many are named; the rest are counted. */
const mostNamed = 3
const someOf = (words: readonly string[]) => {
  const more = words.length - mostNamed
  return more > 0 ? `${words.slice(0, mostNamed).join(', ')} and ${more} more` : words.join(', ')
}

/** What changed in several lines: said once where it is the same of all, else line by line. */
function severalWords(patch: Patch, build: Build): string {
  const both = patch.lines.flatMap(({ before, after }) => (before && after ? [{ before, after }] : []))
  const states = new Set(both.map(({ after }) => after.state))
  if (states.size === 1 && both.some(({ before, after }) => before.state !== after.state))
    return `${states.has('off') ? 'Took off' : 'Brought back'} ${both.map(({ after }) => lineName(after)).join(', ')}`
  const said = new Set(both.map(({ before, after }) => fieldChangeWords(before, after, build)))
  return said.size === 1 && !said.has(null)
    ? `${someOf(both.map(({ after }) => lineName(after)))}: ${[...said][0]}`
    : someOf(both.map(({ before, after }) => lineChangeWords(before, after, build)))
}

const stateWords: Readonly<Record<Line['state'], string>> = {
  off: 'Took off',
  fitted: 'Brought back',
  candidate: 'Set aside',
}
const priceWords = (cents: number | null) => (cents === null ? 'not said' : centsFigure(cents))
const listedWords = (listing: Line['listing']) => (listing ? `${listing.valueG} g` : 'not said')
const noteWords = (note: string) =>
  note === '' ? 'taken away' : `“${note.slice(0, 80)}${note.length > 80 ? '…' : ''}”`

function feedWords(feed: Line['feed'], build: Build): string {
  if (!feed) return 'not said'
  if (feed.from === 'pack') return 'the pack'
  if (feed.from === 'balance') return 'the balance lead'
  return `${feed.output === '' ? '' : `“${feed.output}” of `}${nameOf(build, feed.from)}`
}

function massWords({ mass: was }: PatchedLine, { mass }: PatchedLine): string {
  if (!mass) return 'grams cleared'
  if (was?.evidence === mass.evidence) return 'grams changed'
  return mass.evidence === 'typical' ? 'typical mass' : mass.evidence
}

/** What each field says when it changed, the first that changed being told. `was` and `is` differ in it. */
const fieldWords: readonly [keyof PatchedLine, (was: PatchedLine, is: PatchedLine, build: Build) => string | null][] = [
  ['mass', massWords],
  ['quantity', (was, is) => `× ${was.quantity} → × ${is.quantity}`],
  ['name', () => null],
  ['slot', (_was, is) => `now under ${slotFacts[is.slot].label.toLowerCase()}`],
  ['priceEachCents', (was, is) => `price ${priceWords(was.priceEachCents)} → ${priceWords(is.priceEachCents)}`],
  ['role', (_was, is) => `now ${is.role}`],
  ['removable', (_was, is) => (is.removable ? 'removable' : 'not removable')],
  ['tie', (_was, is) => (is.tie ? `tied with “${is.tie}”` : 'untied')],
  ['feed', (was, is, build) => `fed from ${feedWords(was.feed, build)} → ${feedWords(is.feed, build)}`],
  ['properties', (was, is) => joined(propertyChanges(was, is))],
  ['pack', (was, is) => (is.pack ? joined(changesOf(was.pack ?? was.packSoFar ?? {}, is.pack)) : 'details changed')],
  [
    'pictureIds',
    (was, is) => (is.pictureIds.length < was.pictureIds.length ? 'a picture taken out' : 'a picture added'),
  ],
  ['note', (_was, is) => `note ${noteWords(is.note)}`],
  ['listing', (was, is) => `listed ${listedWords(was.listing)} → ${listedWords(is.listing)}`],
]

/** What the first field that changed says; null where that is the name. */
function fieldChangeWords(before: PatchedLine, after: PatchedLine, build: Build): string | null {
  const found = fieldWords.find(([field]) => before[field] !== after[field])
  return found ? found[1](before, after, build) : 'details changed'
}

function lineChangeWords(before: PatchedLine, after: PatchedLine, build: Build): string {
  const name = lineName(after)
  if (before.state !== after.state) return `${stateWords[after.state]} ${name}`
  const words = fieldChangeWords(before, after, build)
  return words === null ? `Renamed ${before.name} to ${after.name}` : `${name}: ${words}`
}

import { clipped, fixed, wordsOfField } from '../../text/display'
import { lineGrams } from '../../mass/evidence'
import { slotFacts, type Build, type Line, type Mass } from '../../model/ledger'
import type { Meeting } from '../../basics/merge'
import { propertyNamed, propertyText } from '../../model/properties'

/** Two changes that met, in the builder's words: what it is about, what one side made of it and what the other. */
export interface MeetingWords {
  readonly what: string
  readonly mine: string
  readonly theirs: string
}

function massWords(mass: Mass, quantity: number): string {
  return `${fixed(lineGrams(mass, quantity), mass.resolutionG < 0.01 ? 3 : mass.resolutionG < 0.1 ? 2 : 1)} g ${mass.evidence}`
}

/** A value of a field as the builder would say it. `field` is its name, `line` the line it belongs to where there is one. */
export function valueWords(value: unknown, field: string, line?: Pick<Line, 'quantity'>): string {
  if (value === undefined) return 'not there'
  if (value === null || value === '') return 'nothing'
  if (field === 'mass') return massWords(value as Mass, line?.quantity ?? 1)
  if (field === 'listing') return `listed at ${(value as { valueG: number }).valueG} g`
  if (field === 'slot') return slotFacts[value as Line['slot']].label.toLowerCase()
  if (/Cents$|^cents$/.test(field)) return fixed(Number(value) / 100, 2)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number')
    return /G$/.test(field)
      ? `${value} g`
      : /Mm$/.test(field)
        ? `${value} mm`
        : /Minutes$|^minutes$/.test(field)
          ? `${value} min`
          : String(value)
  if (typeof value === 'string') return `“${clipped(value, 60)}”`
  if (Array.isArray(value))
    return value.length === 0
      ? 'none'
      : value.every(item => typeof item !== 'object')
        ? value.join(', ').slice(0, 80)
        : `${value.length} of them`
  const named = value as { name?: unknown; what?: unknown; title?: unknown }
  const name = [named.name, named.what, named.title].find(text => typeof text === 'string')
  return typeof name === 'string' ? `“${name}” kept` : 'changed'
}

/** Says of changes of a build that met what each side made of them. `now` is the build as it is, `seen` as it was seen before. */
export function meetingWords(meetings: readonly Meeting[], seen: Build, now: Build): MeetingWords[] {
  return meetings.map(({ path, mine, theirs }) => {
    const [part, id] = path
    const line = part === 'lines' ? (now.lines.find(l => l.id === id) ?? seen.lines.find(l => l.id === id)) : undefined
    const field = path.at(-1)!
    if (line) {
      const [, , inLine, key] = path
      if (inLine === undefined) return { what: line.name, mine: wholeLine(mine), theirs: wholeLine(theirs) }
      const property = inLine === 'properties' && key ? propertyNamed(line.slot, key) : undefined
      if (property)
        return {
          what: `${line.name}: ${property.label}`,
          mine: propertyWords(mine, property.unit),
          theirs: propertyWords(theirs, property.unit),
        }
      return {
        what: `${line.name}: ${wordsOfField(key ?? inLine)}`,
        mine: valueWords(mine, field, line),
        theirs: valueWords(theirs, field, line),
      }
    }
    return {
      what: path
        .map(name => nameOf(now, seen, name))
        .filter((word, i, all) => word !== all[i - 1])
        .join(', '),
      mine: valueWords(mine, field),
      theirs: valueWords(theirs, field),
    }
  })
}

function wholeLine(value: unknown): string {
  if (value === undefined) return 'deleted'
  const line = value as Line
  return `× ${line.quantity}${line.mass ? `, ${massWords(line.mass, line.quantity)}` : ', no grams'}, ${line.state}`
}

const propertyWords = (value: unknown, unit: string) =>
  value === undefined ? 'not known' : `${propertyText(value as never)}${unit ? ` ${unit}` : ''}`

/** A step of a path as a word: ids become the names of what they stand for. */
function nameOf(now: Build, seen: Build, name: string): string {
  for (const build of [now, seen]) {
    const found =
      build.setups.find(s => s.id === name)?.name ??
      build.lines.find(l => l.id === name)?.name ??
      build.shave?.shavings.find(s => s.id === name)?.what ??
      build.observations.find(o => o.id === name)?.title ??
      build.fit?.joints.find(j => j.id === name)?.name ??
      build.fit?.wires.find(w => w.id === name)?.name ??
      build.fit?.stack?.layers.find(l => l.id === name)?.name
    if (found) return `“${found}”`
  }
  return wordsOfField(name)
}

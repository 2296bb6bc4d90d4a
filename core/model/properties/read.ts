import { withMark } from '../../text/display'
import { slotFacts, slots, type Slot } from '../ledger'
import { ownEntry } from '../../basics/own'
import { mmPerInch, isNotRead, readNumber, singleSpaced, type NotRead } from '../../text/units'
import { parsePattern } from './patterns'
import { readBenchTable } from './bench-table'
import type { Measure, Property, PropertyValue, PowerOutput, BenchRow } from '../data'

/** Other units a measure may be typed in, by how many of its own unit they are. */
const alsoTyped: Record<string, Record<string, number>> = {
  mm: { mm: 1, cm: 10, in: mmPerInch, '"': mmPerInch, '″': mmPerInch },
  V: { v: 1, mv: 0.001 },
  A: { a: 1, ma: 0.001 },
  W: { w: 1, mw: 0.001 },
  mW: { mw: 1, w: 1000 },
  mΩ: { mω: 1, ω: 1000, mohm: 1, ohm: 1000 },
  µF: { µf: 1, μf: 1, uf: 1 },
  MHz: { mhz: 1, ghz: 1000 },
  kV: { kv: 1 },
  AWG: { awg: 1 },
  mAh: { mah: 1, ah: 1000 },
  C: { c: 1 },
  '': { s: 1, '°': 1 },
}

/** "Free height between plates", with its unit: "mm, from 1 to 200". */
export function rangeWords(property: Measure): string {
  const unit = property.unit === '' ? '' : `in ${property.unit}, `
  return `${property.whole ? 'a whole number ' : 'a number '}${unit}from ${property.least} to ${property.most}`
}

/** Reads what was typed for a property; the refusal names the unit. Lengths may be in inches, currents in milliamps, and so on. */
export function readProperty(property: Property, text: string): { value: PropertyValue } | NotRead {
  const trimmed = text.trim()
  switch (property.kind) {
    case 'measure':
      return readMeasure(property, trimmed)
    case 'choice': {
      const found = property.choices.find(c => c.toLowerCase() === trimmed.toLowerCase())
      return found ? { value: found } : { problem: `${property.label} is one of: ${property.choices.join(', ')}.` }
    }
    case 'yes': {
      if (/^(yes|y|true|1)$/i.test(trimmed)) return { value: true }
      return /^(no|n|false|0)$/i.test(trimmed) ? { value: false } : { problem: `${property.label}: yes or no.` }
    }
    case 'day':
      return isDay(trimmed)
        ? { value: trimmed }
        : { problem: `${property.label} is a day, written as year-month-day, such as 2026-03-01.` }
    case 'text':
      return trimmed.length <= 80 ? { value: trimmed } : { problem: `${property.label} has at most 80 characters.` }
    case 'patterns':
      return readPatterns(property, trimmed)
    case 'outputs':
      return readOutputs(property, trimmed)
    case 'bench':
      return readBenchTable(trimmed)
    case 'provides':
      return readProvides(property, trimmed)
  }
}

/** A calendar day that exists, as YYYY-MM-DD. */
export function isDay(text: string): boolean {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text)
  if (!match) return false
  const [year, month, day] = match.slice(1).map(Number) as [number, number, number]
  const days = [
    31,
    year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28,
    31,
    30,
    31,
    30,
    31,
    31,
    30,
    31,
    30,
    31,
  ]
  return year >= 1990 && month >= 1 && month <= 12 && day >= 1 && day <= days[month - 1]!
}

const plainFigure = /^\d{1,9}(?:\.\d{1,6})?$/

function readMeasure(property: Measure, text: string): { value: number } | NotRead {
  if (plainFigure.test(text)) {
    const value = Number(text)
    if (value >= property.least && value <= property.most && (!property.whole || Number.isInteger(value)))
      return { value }
  }
  const figure = /^[+\-\u2212]?[\d.,]{0,40}/.exec(text)![0]
  const typedUnit = text.slice(figure.length).trim().toLowerCase()
  const factor = typedUnit === '' ? 1 : ownEntry(alsoTyped[property.unit] ?? {}, typedUnit)
  const number = readNumber(figure)
  const value = isNotRead(number) || factor === undefined ? NaN : Number((number.value * factor).toPrecision(12))
  const fits = value >= property.least && value <= property.most && (!property.whole || Number.isInteger(value))
  return fits ? { value } : { problem: `${property.label} is ${rangeWords(property)}.` }
}

function readPatterns(property: Property, text: string): { value: readonly string[] } | NotRead {
  const texts = text
    .split(/[;\n]/)
    .map(t => t.trim())
    .filter(t => t !== '')
  const wrong = texts.find(t => !parsePattern(t))
  if (wrong !== undefined || texts.length === 0 || texts.length > 12)
    return {
      problem:
        `${property.label} in mm, such as 12×12 M2 or 4 on 9 M2, several with a ` +
        `semicolon${wrong === undefined ? '' : `; “${wrong.slice(0, 30)}” is neither`}.`,
    }
  return { value: texts }
}

/** What an output ends with: its amps or milliamps, and before that its volts. */
const ampsAtEnd = /[,/ V] ?(\d{1,5}(?:\.\d{1,4})?) ?(m?A)$/i
const voltsAtEnd = /(?:^|[,:= ])(\d{1,3}(?:\.\d{1,4})?) ?V$/i
const longestOutput = 80

/** One output as typed: “camera 9 V 1.5 A”, “5V, 800 mA”. Null where it does not end with volts and perhaps amps. */
function readOutput(text: string): { name: string; volts: number; amps: number | null } | null {
  const part = singleSpaced(text)
  if (part.length > longestOutput) return null
  const drawn = ampsAtEnd.exec(part)
  const rest = (drawn ? part.slice(0, drawn.index + (part[drawn.index]!.toLowerCase() === 'v' ? 1 : 0)) : part).trim()
  const named = voltsAtEnd.exec(rest.replace(/[,/]$/, '').trimEnd())
  if (!named) return null
  const volts = Number(named[1])
  const name = rest
    .slice(0, named.index)
    .trim()
    .replace(/[,:=]$/, '')
    .trimEnd()
  return {
    name: name || `${volts} V`,
    volts,
    amps: drawn ? Number(drawn[1]) * (drawn[2]!.toLowerCase() === 'ma' ? 0.001 : 1) : null,
  }
}

function readOutputs(property: Property, text: string): { value: readonly PowerOutput[] } | NotRead {
  const read: PowerOutput[] = []
  for (const part of text
    .split(/[;\n]/)
    .map(t => t.trim())
    .filter(t => t !== '')) {
    const output = readOutput(part)
    const fits =
      output &&
      output.name.length <= 40 &&
      output.volts >= 0.5 &&
      output.volts <= 80 &&
      (output.amps === null || (output.amps >= 0.001 && output.amps <= 50)) &&
      !read.some(o => o.name === output.name)
    if (!fits)
      return {
        problem:
          `${property.label} in V and A, such as “5 V 2 A; camera 9 V 1.5 A”, each with a name of its own; ` +
          `“${part.slice(0, 30)}” is not.`,
      }
    read.push(output)
  }
  return read.length > 0 && read.length <= 12
    ? { value: read }
    : { problem: `${property.label} in V and A, such as “5 V 2 A; 9 V 1.5 A”.` }
}

function readProvides(property: Property, text: string): { value: readonly Slot[] } | NotRead {
  const wanted = text
    .split(/[;,\n]/)
    .map(t => t.trim().toLowerCase())
    .filter(t => t !== '')
  const found = wanted.map(name => slots.find(slot => slot === name || slotFacts[slot].label.toLowerCase() === name))
  const wrong = wanted.find((_, i) => !found[i])
  if (wrong !== undefined)
    return { problem: `${property.label}: a slot such as receiver or sounder; “${wrong.slice(0, 30)}” is none.` }
  return { value: found as Slot[] }
}

const amps = (value: number | null) => (value === null ? '' : ` ${value} A`)

/** A property's value as it would be typed. */
export function propertyText(value: PropertyValue | undefined): string {
  if (value === undefined) return ''
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number') return withMark(String(value))
  if (typeof value !== 'object') return value
  const rows = value as readonly (string | PowerOutput | BenchRow)[]
  return rows
    .map(row => {
      if (typeof row === 'string') return row
      if ('throttlePercent' in row) return `${row.throttlePercent}, ${row.volts}, ${row.amps}, ${row.thrustG}`
      return row.name === `${row.volts} V`
        ? `${row.name}${amps(row.amps)}`
        : `${row.name} ${row.volts} V${amps(row.amps)}`
    })
    .join(rows.some(row => typeof row === 'object' && 'throttlePercent' in row) ? '\n' : '; ')
}

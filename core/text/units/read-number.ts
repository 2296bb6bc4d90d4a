import { splitEnding } from './endings'
import { massUnits, toGrams, type MassUnit } from './mass-units'

/** A number as somebody typed it: its value and the step of its last digit, in the unit typed. */
export interface TypedNumber {
  value: number
  step: number
}

/** Why a typed text is not the number wanted, as a sentence for the builder. */
export interface NotRead {
  problem: string
}

const plainNumber = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/

function isNotRead<T extends object>(result: T | NotRead): result is NotRead {
  return 'problem' in result
}
export { isNotRead }

/**
 * Reads a plain decimal number with a point or a comma. Spaces around it are ignored, a typographic minus is
 * understood; exponents, thousands separators and words are refused, since a builder never means them.
 */
export function readNumber(text: string): TypedNumber | NotRead {
  const trimmed = text.trim().replace('\u2212', '-')
  if (trimmed === '') return { problem: 'Nothing typed yet.' }
  if (!plainNumber.test(trimmed))
    return { problem: `“${clip(text)}” is not a number. Type digits, with a point or a comma.` }
  const normal = trimmed.replace(',', '.')
  const decimals = normal.includes('.') ? normal.length - normal.indexOf('.') - 1 : 0
  return { value: Number(normal), step: Number(`1e-${decimals}`) }
}

/** The largest mass of one piece the ledger takes, in grams. Far above any micro aircraft; stops slips of the finger. */
export const largestMassG = 10_000

/**
 * Reads a mass such as `12.40`, `12,4 g` or `0.5 oz` into grams and the step of the last digit in grams.
 * Zero is allowed, negative and over {@link largestMassG} are not. The unit defaults to grams.
 */
export function readGrams(text: string): { massG: number; stepG: number } | NotRead {
  const { body, ending } = splitEnding(text, ['g', 'gr', 'gram', 'grams', 'oz', 'lb'])
  const unitText = ending ?? 'g'
  const unit: MassUnit = (massUnits as readonly string[]).includes(unitText) ? (unitText as MassUnit) : 'g'
  const number = readNumber(body)
  if (isNotRead(number)) return number
  const massG = toGrams(number.value, unit)
  if (massG < 0) return { problem: 'A mass cannot be negative.' }
  if (massG > largestMassG)
    return {
      problem: `${clip(text)} is more than ${largestMassG.toLocaleString('en')} g. Check the unit and the digits.`,
    }
  return { massG, stepG: toGrams(number.step, unit) }
}

/** Reads a count of pieces: a whole number from 1 to 999. A leading × is ignored. */
export function readQuantity(text: string): { quantity: number } | NotRead {
  const number = readNumber(text.trimStart().replace(/^[×x]/i, ''))
  if (isNotRead(number)) return number
  if (!Number.isInteger(number.value) || number.value < 1 || number.value > 999) {
    return { problem: 'How many must be a whole number from 1 to 999. To leave a part out, take the line off.' }
  }
  return { quantity: number.value }
}

/** Reads money into whole cents (or other hundredths), exactly: at most two decimals, zero or more. Empty means no price. */
export function readCents(text: string): { cents: number | null } | NotRead {
  const bare = figureWithin(text)
  if (text.trim() === '') return { cents: null }
  const number = readNumber(bare)
  if (isNotRead(number)) return { problem: `“${clip(text)}” is not a price. Type an amount such as 12.50.` }
  if (number.value < 0) return { problem: 'A price cannot be negative.' }
  if (number.step < 0.01) return { problem: 'A price has at most two decimals.' }
  if (number.value > 100_000) return { problem: 'That price is over 100,000. Check the digits.' }
  return { cents: Math.round(number.value * 100) }
}

/** A price without the currency before or after it. */
function figureWithin(text: string): string {
  const at = text.search(/[\d.,+-]/)
  if (at < 0) return text.trim()
  let end = text.length
  while (end > at && !/[\d.,]/.test(text[end - 1]!)) end--
  return text.slice(at, end)
}

function clip(text: string): string {
  return text.length > 24 ? `${text.slice(0, 24)}…` : text
}

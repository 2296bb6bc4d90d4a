import { largestMassG, massUnits, singleSpaced, toGrams, type MassUnit } from '../../text/units'

/** One line a scale sent. */
export interface Reading {
  /** Grams displayed; null on overload. */
  readonly massG: number | null
  /** Step of the last digit, grams; 0 on overload. */
  readonly stepG: number
  /** What the scale says of itself; null when its dialect does not say. */
  readonly marked: 'stable' | 'unstable' | null
  readonly overload: boolean
}

/** The longest line a scale sends; anything longer is no reading. */
export const longestLine = 80

const number = String.raw`([+-]?) ?(\d{1,6}(?:[.,]\d{1,5})?)`
const unit = String.raw`(g|oz|lb)`
const lettered = new RegExp(String.raw`^S ([SDIM]) ${number} ?${unit}$`, 'i')
const letteredOver = /^S [+-]$/
const commas = new RegExp(String.raw`^(ST|US) ?, ?(?:GS|NT|TR) ?, ?${number} ?${unit}$`, 'i')
const commasOver = /^OL ?(,|$)/i
const plain = new RegExp(String.raw`^${number} ?${unit}$`, 'i')
const overWords = /^(OL|OVER(LOAD)?|[-=]{4,8}|E{1,3}RR?)$/i

const overload: Reading = { massG: null, stepG: 0, marked: null, overload: true }

/**
 * Reads one line of a bench scale: the dialect with a leading letter (`S S 17.02 g`, `S D` unsteady, `S +` overload), the
 * one with commas (`ST,GS,+ 17.02g`, `US` unsteady, `OL` overload), or plain number and unit. Grams, ounces and pounds.
 * Null for anything else.
 */
export function parseReading(line: string): Reading | null {
  if (line.length > longestLine) return null
  const text = singleSpaced(line)
  if (letteredOver.test(text) || commasOver.test(text) || overWords.test(text)) return overload
  const withLetter = lettered.exec(text)
  if (withLetter)
    return reading(
      withLetter[2]!,
      withLetter[3]!,
      withLetter[4]!,
      withLetter[1]!.toUpperCase() === 'S' ? 'stable' : 'unstable',
    )
  const withCommas = commas.exec(text)
  if (withCommas)
    return reading(
      withCommas[2]!,
      withCommas[3]!,
      withCommas[4]!,
      withCommas[1]!.toUpperCase() === 'ST' ? 'stable' : 'unstable',
    )
  const bare = plain.exec(text)
  return bare ? reading(bare[1]!, bare[2]!, bare[3]!, null) : null
}

function reading(sign: string, digits: string, unitText: string, marked: Reading['marked']): Reading | null {
  const lower = unitText.toLowerCase()
  const massUnit: MassUnit = (massUnits as readonly string[]).includes(lower) ? (lower as MassUnit) : 'g'
  const normal = digits.replace(',', '.')
  const decimals = normal.includes('.') ? normal.length - normal.indexOf('.') - 1 : 0
  const massG = toGrams(Number(sign === '-' ? `-${normal}` : normal), massUnit)
  if (Math.abs(massG) > largestMassG) return null
  return { massG, stepG: toGrams(Number(`1e-${decimals}`), massUnit), marked, overload: false }
}

import { gramsPerOunce } from '../units'
import { figure, withMark } from './style'

const minus = '\u2212'

/** Decimals that show two significant digits of a spread, at most 2 (a good bench scale), none from 10 g up. */
export function decimalsFor(spreadG: number): number {
  if (!(spreadG > 0)) return 2
  return Math.min(2, Math.max(0, 1 - Math.floor(Math.log10(spreadG))))
}

/** How many decimals figures with this step have. */
export function decimalsOfStep(stepG: number): number {
  return Math.max(0, Math.ceil(-Math.log10(stepG) - 1e-9))
}

/** Fixed decimals with a typographic minus and the decimal mark that was chosen; never "−0.0". */
export function fixed(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals)
  return withMark(value < 0 && Number(text) !== 0 ? `${minus}${text}` : text)
}

/** With its sign always shown: `+0.61`, `−5.8`, `±0.0` for nothing. */
export function signed(value: number, decimals: number): string {
  const text = fixed(value, decimals)
  if (Number(Math.abs(value).toFixed(decimals)) === 0) return text
  return value > 0 ? `+${text}` : text
}

/** A spread with its own two significant digits, without sign or unit. */
export function spreadFigure(spreadG: number): string {
  return fixed(spreadG, decimalsFor(spreadG))
}

/** `248.7 g ± 1.5`; without spread just `248.70 g`. */
export function gramsWithSpread(valueG: number, spreadG: number, limitG: number | null = null): string {
  const figure = `${gramsFigure(valueG, spreadG, limitG)} g`
  return spreadG > 0 ? `${figure} ± ${spreadFigure(spreadG)}` : figure
}

/** Ounces with two decimals. */
export function ouncesFigure(valueG: number): string {
  return fixed(valueG / gramsPerOunce, 2)
}

/** Whole hundredths as an amount with two decimals, exact. */
export function centsFigure(cents: number): string {
  const whole = Math.trunc(Math.abs(cents) / 100)
  const rest = String(Math.abs(cents) % 100).padStart(2, '0')
  return withMark(`${cents < 0 ? minus : ''}${whole}.${rest}`)
}

/** What was said of a price: as far as it is known, where some of it is not. */
export function priceWords(cents: number, unpriced: number, currency: string): string {
  if (unpriced === 0) return `${centsFigure(cents)} ${currency}`
  return cents === 0 ? 'not said' : `at least ${centsFigure(cents)} ${currency}`
}

/** The most decimals a figure is given so that it stands on its own side of a limit. */
const mostDecimals = 4

/**
 * Grams to the digit the spread justifies, without the unit: `238.6`, beside a spread of 0.9 `238.60`. Held against a limit
 * they get as many more digits as it takes to stand on the side of it where the mass is: 249.477 is never shown as the 249.48 it is over.
 */
export function gramsFigure(valueG: number, spreadG: number, limitG: number | null = null): string {
  let decimals = decimalsFor(spreadG)
  if (limitG !== null && valueG !== limitG) {
    const side = Math.sign(valueG - limitG)
    const stands = () =>
      Math.sign(Number(valueG.toFixed(decimals)) - limitG) === side &&
      Math.abs(Number(valueG.toFixed(decimals)) - Number(limitG.toFixed(decimals))) > 0
    const apart = Math.abs(valueG - limitG)
    while (decimals < mostDecimals && apart > 10 ** -mostDecimals / 2 && apart < 1 && !stands()) decimals++
  }
  return fixed(valueG, decimals)
}

/**
 * How sure the word of a verdict is, in words: of Clear that the limit is kept, of Over that it is not. Never rounded across the
 * confidence asked for.
 */
export function sureWords(
  { word, probability }: { readonly word: string; readonly probability: number },
  confidence: number,
): string {
  if (word === 'Over') return `${percentBeside(1 - probability, confidence)} sure`
  return word === 'Clear'
    ? `${percentBeside(probability, confidence)} sure`
    : `${percentBeside(probability, confidence)} likely to pass`
}

/** A probability in per cent that is not rounded across `confidence`. */
export function percentBeside(probability: number, confidence: number): string {
  if (probability > 0.999 || probability < 0.001) return percentSure(probability)
  for (let decimals = 1; decimals < mostDecimals; decimals++) {
    const shown = Number((probability * 100).toFixed(decimals)) / 100
    if (shown >= confidence - 1e-12 === probability >= confidence) return `${fixed(probability * 100, decimals)} %`
  }
  return `${fixed(probability * 100, mostDecimals)} %`
}

/** "1.2 g into your reserve", or '' where all of it is free or nothing is Clear. */
export function reserveWords(intoG: number | null): string {
  return intoG === null || intoG === 0 ? '' : `${fixed(intoG, intoG < 0.1 ? 2 : 1)} g into your reserve`
}

/** A probability in per cent, never rounded to certainty: `97.6 %`, `over 99.9 %`, `under 0.1 %`. */
export function percentSure(probability: number): string {
  if (probability > 0.999) return `over ${withMark('99.9')} %`
  if (probability < 0.001) return `under ${withMark('0.1')} %`
  return `${fixed(probability * 100, 1)} %`
}

/** "2.1 g headroom" or "6.8 g over", to the digit the spread justifies. */
export function headroomWords(headroomG: number, spreadG: number): string {
  let decimals = Math.max(1, decimalsFor(spreadG))
  while (headroomG !== 0 && decimals < mostDecimals && Number(Math.abs(headroomG).toFixed(decimals)) === 0) decimals++
  return headroomG < 0 ? `${fixed(-headroomG, decimals)} g over` : `${fixed(headroomG, decimals)} g headroom`
}

/** Minutes with one decimal under 20, whole above. */
export function minutesFigure(minutes: number): string {
  return fixed(minutes, minutes < 20 ? 1 : 0)
}

/** A band of minutes from hard to gentle flying: `4.8–9.9 min`. */
export function minutesBand(hardMinutes: number, gentleMinutes: number): string {
  return `${minutesFigure(hardMinutes)}–${minutesFigure(gentleMinutes)} min`
}

/** A fraction as a figure of per cent, without needless digits: 0.003 is `0.3`. */
export const percentFigure = (fraction: number): string => figure(100 * fraction, 3)

import { explaining, namedBy, type Comparison } from '#core/comparing/lines'
import { coverageFactor95 } from '#core/maths/numbers'
import { slotFacts } from '#core/model/ledger'
import { decimalsFor, fixed, spreadFigure } from '#core/text/display'

/**
 * Why one craft weighs more or less than another, in sentences: the difference with its ±, the lines that explain it until
 * what is left lies inside the ±, and what gives back. Empty where the two weigh the same.
 */
export function differenceWords(comparison: Comparison, column: number, names: readonly string[]): string {
  const { valueG, sigmaG } = comparison.differences[column]!
  const spread = coverageFactor95 * sigmaG
  const [base, other] = [names[0]!, names[column]!]
  if (Math.abs(valueG) < 0.005 && spread < 0.005) return `${other} weighs what ${base} does.`
  const inside = Math.abs(valueG) <= spread
  const { rows, restG } = explaining(comparison, column)
  const parts = rows.slice(0, 4).map(row => {
    const grams = row.differences[column]!.valueG
    const slot = slotFacts[namedBy(row).slot].label.toLowerCase()
    return `${fixed(Math.abs(grams), 2)} g ${Math.sign(grams) === Math.sign(valueG) ? `by its ${slot}` : `given back by its ${slot}`}`
  })
  const apart = `${fixed(Math.abs(valueG), decimalsFor(spread))} ± ${spreadFigure(spread)} g`
  const head = `${other} is ${apart} ${valueG < 0 ? 'lighter' : 'heavier'} than ${base}`
  if (inside) return `${head}: that lies inside the ±.`
  const rest =
    Math.abs(restG) < 0.005 || rows.length > 4
      ? ''
      : ` What is left, ${fixed(Math.abs(restG), 2)} g, lies inside the ±.`
  return parts.length === 0 ? `${head}.` : `${head}: ${parts.join(', ')}.${rest}`
}

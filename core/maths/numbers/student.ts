import { CoreInputError } from '../../basics/errors'
import { normalQuantile } from './normal'

/** Quantiles of Student’s distribution at 0.975 for 1 to 8 degrees of freedom, where the expansion below is too rough. */
const exact = [12.706205, 4.302653, 3.182446, 2.776445, 2.570582, 2.446912, 2.364624, 2.306004]

/**
 * The 0.975 quantile of Student’s t with `freedom` degrees of freedom (a whole number, 1 or more; throws on others), to
 * 1e-4. Source: Abramowitz and Stegun, 26.7.5 (expansion in 1/ν).
 */
export function studentQuantile975(freedom: number): number {
  if (!(Number.isInteger(freedom) && freedom >= 1))
    throw new CoreInputError('studentQuantile975', 'freedom', freedom, { is: 'in range', least: 1, whole: true })
  const known = exact[freedom - 1]
  if (known !== undefined) return known
  const z = normalQuantile(0.975)
  const terms = [
    (z ** 3 + z) / 4,
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96,
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384,
  ]
  return z + terms.reduce((sum, term, i) => sum + term / freedom ** (i + 1), 0)
}

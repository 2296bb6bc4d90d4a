/**
 * Sum with Neumaier's compensation: the error does not grow with the number of terms.
 * Empty input sums to 0. Unit: that of the terms. Source: A. Neumaier, ZAMM 54 (1974).
 *
 * @example sumCompensated([0.1, 0.2, 0.3]) // 0.6
 */
export function sumCompensated(values: Iterable<number>): number {
  let sum = 0
  let lost = 0
  for (const value of values) {
    const next = sum + value
    lost += Math.abs(sum) >= Math.abs(value) ? sum - next + value : value - next + sum
    sum = next
  }
  return sum + lost
}

/**
 * Sum with Neumaier's compensation: the error does not grow with the number of terms.
 * Empty input sums to 0. Unit: that of the terms. Source: A. Neumaier, ZAMM 54 (1974).
 *
 * @example sumCompensated([0.1, 0.2, 0.3]) // 0.6
 */
export function sumCompensated(values: Iterable<number>): number {
  const sum = new RunningSum()
  for (const value of values) sum.add(value)
  return sum.value + sum.lost
}

/** Such a sum term by term: it comes to `value + lost`. */
export class RunningSum {
  value = 0
  lost = 0

  add(term: number): void {
    const next = this.value + term
    this.lost += Math.abs(this.value) >= Math.abs(term) ? this.value - next + term : term - next + this.value
    this.value = next
  }
}

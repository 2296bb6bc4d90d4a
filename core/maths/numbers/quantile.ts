/**
 * The figure at a share of the way through sorted ones, 0 the first and 1 the last, between two of them in proportion; NaN
 * where there are none.
 *
 * @example quantile([1, 2, 4], 0.25) // 1.5
 */
export function quantile(sorted: ArrayLike<number>, share: number): number {
  const place = share * (sorted.length - 1)
  const below = Math.max(0, Math.floor(place))
  const above = Math.min(below + 1, sorted.length - 1)
  return sorted.length === 0 ? NaN : sorted[below]! + (place - below) * (sorted[above]! - sorted[below]!)
}

/** An automatic copy by the name of its file and when it was made. */
export interface Copy {
  readonly name: string
  readonly madeAt: string
}

const [days, weeks, months] = [7, 4, 12]
const dayMs = 86_400_000

/** Monday of the week a day is in, in whole days. */
const weekOf = (time: number) => Math.floor((Math.floor(time / dayMs) + 3) / 7)
const monthOf = (time: number) => new Date(time).toISOString().slice(0, 7)

/**
 * Which copies go: the last of each of 7 days, of 4 weeks and of 12 months stay, counted from the newest copy on, so that a
 * machine that was off for long loses nothing.
 */
export function copiesToDrop(copies: readonly Copy[]): Copy[] {
  const newestFirst = [...copies].sort((a, b) => b.madeAt.localeCompare(a.madeAt))
  const stay = new Set<Copy>()
  const keep = (most: number, keyOf: (time: number) => string | number) => {
    const seen = new Set<string | number>()
    for (const copy of newestFirst) {
      const key = keyOf(new Date(copy.madeAt).getTime())
      if (seen.has(key)) continue
      if (seen.size >= most) return
      seen.add(key)
      stay.add(copy)
    }
  }
  keep(days, time => Math.floor(time / dayMs))
  keep(weeks, weekOf)
  keep(months, monthOf)
  return newestFirst.filter(copy => !stay.has(copy))
}

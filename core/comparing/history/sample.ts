/** A moment of a journal: the number of its entry, and when it was written. */
export interface JournalMoment {
  readonly seq: number
  readonly at: string
}

/**
 * The moments a long journal is drawn at, oldest first: all of them where there are at most `most`, else as many by days
 * (the last of a day) and as many evenly over the entries, the first and the last always among them.
 */
export function momentsToDraw(moments: readonly JournalMoment[], most: number): JournalMoment[] {
  if (moments.length <= most) return [...moments]
  const dayOf = ({ at }: JournalMoment) => at.slice(0, 10)
  const dayEnds = moments.filter((moment, i) => i === moments.length - 1 || dayOf(moments[i + 1]!) !== dayOf(moment))
  const half = Math.floor(most / 2)
  const chosen = new Set([...evenly(dayEnds, half), ...evenly(moments, most - half)])
  return moments.filter(moment => chosen.has(moment))
}

/** So many of a list, evenly, its first and its last among them. */
function evenly<T>(all: readonly T[], most: number): T[] {
  if (all.length <= most) return [...all]
  return Array.from({ length: most }, (_, i) => all[Math.round((i * (all.length - 1)) / (most - 1))]!)
}

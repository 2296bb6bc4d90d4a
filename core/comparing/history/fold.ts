/** What of a journal's entry decides whether it is folded with its neighbours. */
export interface Foldable {
  readonly title: string
  readonly topic: string
  readonly note: string
  readonly mark: string
  readonly undone: string
  readonly kind: string
  readonly gramsBeforeG: number | null
  readonly gramsAfterG: number | null
}

/** Fewer stand as they are. Our choice. */
const fewest = 3

/** What an entry is of: what stands before its colon, or its words without their figures. */
function subjectOf({ title, topic }: Foldable): string {
  const colon = title.indexOf(': ')
  return `${topic} ${colon > 0 ? title.slice(0, colon) : title.replace(/[\d.,+−-]+/g, '#')}`
}

/** Small, in force, and nobody has said anything of it: grams, weighings and what was taken back always stand alone. */
const isSmall = ({ topic, note, mark, undone, kind, gramsBeforeG, gramsAfterG }: Foldable) =>
  topic !== 'weighings' &&
  note === '' &&
  mark === '' &&
  kind === 'do' &&
  undone === 'in force' &&
  gramsBeforeG === null &&
  gramsAfterG === null

/**
 * Entries in their order, in runs: small entries of one kind and one thing that follow each other are one run, everything
 * else stands by itself. Runs put together again are the entries.
 */
export function foldRuns<E extends Foldable>(entries: readonly E[]): E[][] {
  const runs: E[][] = []
  for (const entry of entries) {
    const last = runs.at(-1)
    if (last && isSmall(entry) && isSmall(last[0]!) && subjectOf(last[0]!) === subjectOf(entry)) last.push(entry)
    else runs.push([entry])
  }
  return runs.flatMap(run => (run.length < fewest ? run.map(one => [one]) : [run]))
}

import { isSharedCause } from '#core/mass/evidence'
import type { ListingDoubt } from '#core/mass/listings'
import type { Estimate } from '#core/maths/estimate'
import type { Build, Line } from '#core/model/ledger'
import { fixed } from '#core/text/display'
import { lineTitle } from './words'

/** A cause a line's spread comes from, in words. */
export interface ToldCause {
  readonly key: string
  readonly words: string
  /** Whether other lines have it too. */
  readonly isShared: boolean
  readonly grams: number
}

const ownCauses: Readonly<Record<string, string>> = {
  product: 'the part itself',
  digit: 'last digit of the listing',
  weighing: 'a reading',
  reading: 'the reading',
  zero: 'its tare',
  tared: 'the tare',
  level: 'the scale’s zero',
  linearity: 'the scale is not straight',
  pieces: 'between pieces',
  twin: 'a piece that was never on a scale',
  listing: 'how this kind is listed',
}
function causeWords(key: string): string {
  if (key.startsWith('gain:reference:')) return 'the reference mass'
  if (key.startsWith('gain:')) return key.endsWith('unchecked') ? 'the unchecked scale' : 'the check of the scale'
  return ownCauses[key.split(':')[0]!] ?? key
}

/** Half of the last digit told, grams: what is less cannot be seen. */
const leastG = 0.0005

/** What a spread comes from, the largest first, as far as it can be seen in the last digit told. */
export const toldCauses = ({ contributions }: Pick<Estimate, 'contributions'>): ToldCause[] =>
  Object.entries(contributions)
    .filter(([, g]) => Math.abs(g) >= leastG)
    .map(([key, grams]) => ({ key, words: causeWords(key), isShared: isSharedCause(key), grams }))
    .sort((a, b) => Math.abs(b.grams) - Math.abs(a.grams))

/** Less than this a weighing of something else does not move a line, grams: half of the last digit told. */
const leastShiftG = 0.005

/**
 * The weighings that move a line, by name, with how far; through which cause they do, where it was not on the pan
 * itself.
 */
export function movedWords(
  line: Line,
  { lines, observations }: Pick<Build, 'lines' | 'observations'>,
  moved: readonly { readonly id: string; readonly shiftG: number }[],
  causes: readonly ToldCause[],
): { readonly id: string; readonly words: string; readonly shiftG: number }[] {
  const through = causes.find(({ isShared }) => isShared)?.words ?? 'a cause they share'
  return moved
    .filter(({ shiftG }) => Math.abs(shiftG) >= leastShiftG)
    .map(({ id, shiftG }) => {
      const again = lines.find(one => one.further.some(({ mass }) => mass.versionId === id))
      const together = observations.find(one => one.id === id)
      const own = again?.id === line.id || together?.subjects.some(subject => subject.id === line.id)
      const name = together
        ? `“${together.title}”`
        : own
          ? 'weighing it again'
          : `weighing ${again ? lineTitle(again) : 'another line'} again`
      return { id, words: own ? `Moved by ${name}` : `Moved by ${name}, through ${through}`, shiftG }
    })
}

/** A listing and a weighing that cannot both be right, or hardly. */
export function doubtWords({ why, weighedG, listedG }: ListingDoubt): string {
  const said = `${fixed(weighedG, 2)} g weighed, ${fixed(listedG, 2)} g listed`
  return why === 'slip'
    ? `${said}: is that a slip of a digit? Until one of the two is mended it teaches nothing about how parts of its kind are listed.`
    : `${said}: far from how others of its kind turned out. Weigh it once more, or look its listing up again.`
}

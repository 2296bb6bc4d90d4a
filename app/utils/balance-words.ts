import type { Build } from '#core/model/ledger'
import type { Balance, Hover, Slide } from '#core/aircraft/balance'
import { fixed } from '#core/text/display'

/** A craft whose bob is no farther out than this hangs true, mm. Our choice: what a hand feels on two fingers. */
const trueMm = 0.5

const way = (mm: number) => (mm > 0 ? 'forward' : 'back')
/** How the bob hangs fore and aft, in a word and a line. */
export function bobWords({ centre }: Pick<Balance, 'centre'>): {
  readonly word: string
  readonly line: string
  readonly tone: 'clear' | 'close'
} {
  const [x] = centre!.atMm
  const mm = `${fixed(Math.abs(x), 1)} mm`
  if (Math.abs(x) <= trueMm)
    return { word: 'Hangs true', line: `hangs true, within ${fixed(trueMm, 1)} mm`, tone: 'clear' }
  return x < 0
    ? { word: 'Tail-heavy', line: `${mm} tail-heavy`, tone: 'close' }
    : { word: 'Nose-heavy', line: `${mm} nose-heavy`, tone: 'close' }
}

/** What a change of grams does to the bob, by where it hung and by how much it moves, mm. */
export function bobMovesWords(xMm: number, movesMm: number): string {
  if (Math.abs(movesMm) < 0.05) return 'The bob stays where it is.'
  const to = xMm + movesMm
  const end =
    Math.abs(to) < 0.05
      ? 'to the middle of the motors'
      : `to ${fixed(Math.abs(to), 1)} mm ${to < 0 ? 'tail-heavy' : 'nose-heavy'}`
  return `The bob goes ${fixed(Math.abs(movesMm), 1)} mm ${way(movesMm)}, ${end}.`
}

const problemSentences: Readonly<Record<Extract<Hover, { problem: string }>['problem'], string>> = {
  'few rotors': 'With fewer than four rotors what each carries is not told.',
  'in one line': 'All rotors stand in one line: no share of the load would hold it level.',
  spins: 'The turns of the rotors do not add up: it could not keep its heading.',
  'pulls down': 'It hangs outside its rotors: one of them would have to pull down.',
}
export const hoverProblemWords = (hover: Hover): string => ('problem' in hover ? problemSentences[hover.problem] : '')

/** By how much the motors of one end work harder than those of the other, %. */
function harderPercent({ layout, hover }: Balance): number | null {
  if (!hover || 'problem' in hover) return null
  const mean = (front: boolean) => {
    const loads = hover.loadsG.filter((_, i) => layout.rotors[i]!.xMm > 0 === front)
    return loads.length === 0 ? null : loads.reduce((sum, load) => sum + load, 0) / loads.length
  }
  const [front, rear] = [mean(true), mean(false)]
  return front === null || rear === null ? null : 100 * (Math.max(front, rear) / Math.min(front, rear) - 1)
}

/** What to do where nothing can be hung. */
export const nothingHangsSentence = ({ reference }: Pick<Build, 'reference'>): string =>
  reference
    ? 'This craft is known only as a whole: add parts with their grams, and they are hung by themselves.'
    : 'Nothing here weighs anything yet: add parts with their grams, and the craft is hung by itself.'

/** What is to be seen, in a plain sentence; what to do about it is {@link slideSentence}. */
export function hangsSentence(balance: Balance): string {
  if (!balance.centre) return nothingHangsSentence({ reference: null })
  const [x] = balance.centre.atMm
  if (Math.abs(x) <= trueMm) return 'The bob hangs in the middle of the motors: front and rear work alike.'
  const harder = harderPercent(balance)
  const [where, motors] = x < 0 ? ['behind', 'rear'] : ['ahead of', 'front']
  return `The bob hangs ${where} the middle${harder === null ? '.' : `, so the ${motors} motors work ${fixed(harder, 0)} % harder.`}`
}

/** Whether there is a slide to speak of: a craft that hangs true is left alone. */
export function isWorthSliding({ centre, slide }: Pick<Balance, 'centre' | 'slide'>): boolean {
  return slide !== null && Math.abs(centre!.atMm[0]) > trueMm && Math.abs(slide.byMm) >= 0.05
}

/** What the pack is to do. */
export function slideSentence(balance: Balance): string {
  const { pack, slide, centre } = balance
  if (!pack || !slide) return 'No pack flies in this loadout: there is nothing to slide.'
  if (Math.abs(centre!.atMm[0]) <= trueMm) return `${pack.name} lies where it belongs.`
  const rest = `${fixed(Math.abs(slide.remainsMm), 1)} mm ${slide.remainsMm < 0 ? 'tail-heavy' : 'nose-heavy'}`
  if (!isWorthSliding(balance)) return `${pack.name} lies at the end of the tray already: ${rest} is left.`
  const by = `${fixed(Math.abs(slide.byMm), 1)} mm ${way(slide.byMm)}`
  return slide.missesMm < 0.05
    ? `Slide ${pack.name} ${by}: it hangs true.`
    : `Slide ${pack.name} ${by}, to the end of the tray: ${rest} is left.`
}

/** Where the pack’s front belongs, as short as a cell of a table. */
export function slideCellWords(slide: Slide | null): string {
  if (!slide) return 'no pack'
  if (slide.missesMm >= 0.05) return `misses by ${fixed(slide.missesMm, 1)} mm`
  if (slide.frontAtMm !== null) return `${fixed(slide.frontAtMm, 1)} mm`
  return Math.abs(slide.byMm) < 0.05 ? 'stays' : `${fixed(Math.abs(slide.byMm), 1)} mm ${way(slide.byMm)}`
}

export const sideWords = (yMm: number): string =>
  Math.abs(yMm) <= trueMm ? 'in the middle' : yMm > 0 ? 'to the left' : 'to the right'

/** What is left of full throttle while it flies level; `thrustToWeight` is of all motors at their end, as Packs has it. */
export function levelWords(
  { levelShare }: Exclude<Hover, { problem: string }>,
  thrustToWeight: { readonly ratio: number; readonly atLeast: boolean } | null,
): string {
  return thrustToWeight !== null
    ? `level ${thrustToWeight.atLeast ? 'at least ' : ''}${fixed(thrustToWeight.ratio * levelShare, 2)} : 1 instead of ` +
        fixed(thrustToWeight.ratio, 2)
    : `${fixed(100 * levelShare, 1)} % of full throttle is left, level`
}

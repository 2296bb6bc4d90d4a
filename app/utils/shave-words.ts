import { centsFigure, fixed, headroomWords, signed } from '#core/text/display'
import type { Line } from '#core/model/ledger'
import type { CostMeasure, PlanStep, Shaving, ShavingGoal, ShownPlan } from '#core/deciding/shave'
import { coverageFactor95 } from '#core/maths/numbers'
import { lineTitle } from './words'

/** What may be spared, as the station names it. */
export const measureNames: Record<CostMeasure, string> = {
  cents: 'money',
  minutes: 'minutes',
  loss: 'what is given up',
  changes: 'the number of changes',
  forGood: 'what cannot be undone',
}

const numberWords = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']
export const stepsWords = (count: number): string => `${numberWords[count] ?? count} ${count === 1 ? 'step' : 'steps'}`

const pricesWords = (count: number) => `${count === 1 ? 'one price' : `${count} prices`} not said`

/** What a plan costs; at least so much while prices are unknown. */
export function costWords(of: Pick<ShownPlan, 'cents' | 'unpriced' | 'minutes'>, currency: string): string {
  const open = of.unpriced > 0
  const money = `${open ? 'at least ' : ''}${centsFigure(of.cents)} ${currency}`
  return `${money}${open ? ` (${pricesWords(of.unpriced)})` : ''} and ${fixed(of.minutes, 0)} minutes`
}

/** What a gram costs of what has a price and takes something off; nothing of anything else. */
export function gramPriceWords(
  of: { readonly cents: number; readonly priced: boolean; readonly offG: number },
  currency: string,
): string {
  return of.priced && of.cents > 0 && of.offG > 0.005
    ? `${centsFigure(Math.round(of.cents / of.offG))} ${currency} a gram`
    : ''
}

/** What a shaving brings, gives up, and whether it can be undone. */
export function shavingWords(shaving: Shaving): string {
  return [
    shaving.kind === 'put on' ? `brings ${shaving.gain} of 5` : '',
    shaving.loss > 0 ? `gives up: ${shaving.lossWord}` : '',
    shaving.forGood ? 'cannot be undone' : '',
  ]
    .filter(Boolean)
    .join(' · ')
}

/** What is being aimed at, for the head of the station; `doneG`: grams that are off already. */
export function goalWords(goal: ShavingGoal, confidence: number, doneG: number | null): string {
  switch (goal.kind) {
    case 'put on':
      return 'what is worth putting on while it stays clear'
    case 'clear':
      return `to Clear at ${fixed(confidence * 100, 0)} %`
    case 'dry':
      return `to ${fixed(goal.gramsG, 1)} g dry`
    case 'grams':
      return `${fixed(goal.gramsG, 1)} g off${doneG === null ? '' : `, ${fixed(doneG, 2)} of them done`}`
  }
}

/** Where the best there is leaves the craft, while no plan gets there. */
function bestWords(last: PlanStep | undefined): string {
  const binding = last?.binding
  return binding
    ? `It comes to ${fixed(last.massG, 2)} g: ` +
        `${headroomWords(binding.headroomG, coverageFactor95 * last.sigmaG)}, where ` +
        `${fixed(binding.guardG, 2)} g are wanted to be sure.`
    : ''
}

/** What a plan is told by. */
export interface PlanTold {
  readonly plan: ShownPlan
  /** Its steps that are not done yet. */
  readonly steps: readonly PlanStep[]
  readonly goal: ShavingGoal
  readonly spare: CostMeasure
  readonly currency: string
  /** Whether there is a limit that what flies can be held against; null where nothing flies yet. */
  readonly limit: 'there' | 'nothing flies' | 'none chosen'
}

const contradictionWords = {
  caps: 'What is planned or locked in goes beyond the caps: loosen a cap, or let one go.',
  locks: 'What is planned or locked in, needed and excluded contradicts itself: let one of them go.',
}

function nothingToDoWords({ goal, limit }: PlanTold): string {
  if (goal.kind === 'clear' && limit === 'nothing flies')
    return 'Nothing that flies yet: put the parts in, or say how many grams.'
  if (goal.kind === 'clear' && limit === 'none chosen')
    return 'No limit is chosen: choose one in Aim, or say how many grams.'
  return goal.kind === 'put on' ? 'Nothing on the list could be put on and stay clear.' : 'Nothing has to come off.'
}

/** The plan in a sentence, or why there is none. */
export function planSentence(told: PlanTold): string {
  const { plan, steps, goal, spare, currency } = told
  const { status, shortfallG, dearerBy, openLines = [] } = plan
  const words = `The plan: ${stepsWords(steps.length)}, ${costWords(plan, currency)}.`
  switch (status) {
    case 'given up':
      return 'No plan was found in the time given.'
    case 'contradiction':
      return contradictionWords[plan.between ?? 'locks']
    case 'open lines':
      return (
        `No plan is clear while nobody has said what ${openLines.join(', ')} ` +
        `${openLines.length === 1 ? 'weighs' : 'weigh'}. Type it in Parts.`
      )
    case 'nothing to do':
      return nothingToDoWords(told)
    case 'none':
      return goal.kind === 'put on'
        ? `It misses being clear by ${fixed(shortfallG, 2)} g as it is: nothing can be put on.`
        : `Everything on the list still misses by ${fixed(shortfallG, 2)} g. This comes nearest. ${bestWords(steps.at(-1))}`.trim()
    case 'unproven':
      return `${words} At most ${fixed(spare === 'cents' ? dearerBy / 100 : dearerBy, 2)} dearer than the best possible.`
    default:
      return words
  }
}

/** What a plan with one shaving turned would be, against the plan there is. */
export function turnedSentence(then: ShownPlan, now: ShownPlan, currency: string): string {
  if (then.status === 'none') return `No plan then: it would miss by ${fixed(then.shortfallG, 2)} g.`
  if (then.status === 'contradiction') return 'No plan then: it contradicts what is planned, locked, needed or capped.'
  if (then.status === 'given up') return 'No plan was found in the time given.'
  const against = [
    [`${signed((then.cents - now.cents) / 100, 2)} ${currency}`, then.cents - now.cents],
    [`${signed(then.minutes - now.minutes, 0)} minutes`, then.minutes - now.minutes],
    [`${signed(then.loss - now.loss, 0)} given up`, then.loss - now.loss],
  ] as const
  const differs = against.filter(([, by]) => by !== 0).map(([words]) => words)
  return (
    `${stepsWords(then.steps.length)}: ${then.steps.map(step => step.shaving.what).join(', ')}. ` +
    `${differs.length > 0 ? `${differs.join(', ')} against the plan.` : 'It costs the same.'}`
  )
}

/** Why so many grams cannot come off a line. */
export const tooMuchWords = (
  { line, lineG }: { readonly line: Line; readonly lineG: number },
  gramsG: number,
): string => `${fixed(gramsG, 2)} g cannot come off ${lineTitle(line)}: it weighs ${fixed(lineG, 2)} g.`

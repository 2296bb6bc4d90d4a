import type { Build, LoadoutChoice } from '../ledger'
import { allowedLoadouts, loadoutMasses, loadoutMassesWithoutRemovable, type LineEstimates, type LoadoutMass } from '../loadout'
import { limitG, type RuleCard } from '../rules'
import { judge } from '../verdict'
import { bindingJudgement, type CardJudgement } from './judged'

export type LoadoutJudgement = Pick<CardJudgement, 'card' | 'limitG' | 'massG' | 'sigmaG' | 'verdict'>

/** One loadout with its verdict under each card; `binding` is the worst of them. */
export interface LoadoutVerdicts extends LoadoutMass {
  readonly judgements: readonly LoadoutJudgement[]
  readonly binding: LoadoutJudgement | null
}

/**
 * Many loadouts under many cards at once, by sums that are shared between them: the same verdicts as judging each loadout
 * by itself, in a fraction of the time.
 */
export function loadoutVerdicts(build: Build, choices: readonly LoadoutChoice[], cards: readonly RuleCard[], estimates: LineEstimates): LoadoutVerdicts[] {
  const masses = loadoutMasses(build, choices, estimates)
  const lasting = cards.some(card => card.counts === 'airframe-and-pack') ? loadoutMassesWithoutRemovable(build, choices, estimates) : masses
  const heaviest = cards.some(card => card.counts === 'maximum-take-off') ? heaviestOf(loadoutMasses(build, allowedLoadouts(build), estimates)) : null
  const limits = cards.map(limitG)
  return masses.map((mass, i) => {
    const judgements: LoadoutJudgement[] = []
    for (let c = 0; c < cards.length; c++) {
      const card = cards[c]!
      const counted = card.counts === 'airframe-and-pack' ? lasting[i]! : card.counts === 'maximum-take-off' ? heaviest ?? mass : mass
      judgements.push(judgeMass(counted, card, limits[c]!, build.aim.confidence))
    }
    // Written out: copies of objects are what takes the time where there are hundreds.
    return { choice: mass.choice, massG: mass.massG, sigmaG: mass.sigmaG, openLines: mass.openLines, judgements, binding: bindingJudgement(judgements) }
  })
}

function judgeMass({ massG, sigmaG, openLines }: LoadoutMass, card: RuleCard, limit: number | null, confidence: number): LoadoutJudgement {
  if (limit === null || card.comparator === 'none') return { card, limitG: limit, massG, sigmaG, verdict: null }
  const verdict = judge({ massG, sigmaG, limitG: limit, comparator: card.comparator, confidence })
  return { card, limitG: limit, massG, sigmaG, verdict: openLines > 0 && verdict.word === 'Clear' ? { ...verdict, word: 'Too close to call' } : verdict }
}

function heaviestOf(masses: readonly LoadoutMass[]): LoadoutMass | null {
  return masses.reduce<LoadoutMass | null>((heaviest, mass) => heaviest && heaviest.massG >= mass.massG ? heaviest : mass, null)
}

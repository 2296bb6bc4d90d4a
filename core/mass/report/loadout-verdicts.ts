import type { Build, LoadoutChoice } from '../../model/ledger'
import {
  allowedLoadouts,
  loadoutMasses,
  loadoutMassesWithoutRemovable,
  type LineEstimates,
  type LoadoutMass,
} from '../loadout'
import { limitG, type RuleCard } from '../../limits/rules'
import { intoReserveG } from '../../limits/verdict'
import { bindingJudgement, decidingLoadout, judgeMass, type CardJudgement } from './judged'

export type LoadoutJudgement = Pick<CardJudgement, 'card' | 'limitG' | 'massG' | 'sigmaG' | 'verdict' | 'heaviest'>

/** One loadout with its verdict under each card; `binding` is the worst of them. */
export interface LoadoutVerdicts extends LoadoutMass {
  readonly judgements: readonly LoadoutJudgement[]
  readonly binding: LoadoutJudgement | null
  /**
   * How far it reaches into the reserve that is kept, grams: 0 where it is Clear with the reserve under every card,
   * null where it is not Clear or has no limit.
   */
  readonly intoReserveG: number | null
}

/** The most any card's verdict reaches into the reserve; null where one is not Clear, or none has a limit. */
export function reserveTaken(
  judgements: readonly Pick<LoadoutJudgement, 'verdict'>[],
  reserveG: number,
): number | null {
  let most: number | null = null
  for (const { verdict } of judgements) {
    if (!verdict) continue
    const intoG = intoReserveG(verdict, reserveG)
    if (intoG === null) return null
    most = Math.max(most ?? 0, intoG)
  }
  return most
}

/**
 * Many loadouts under many cards at once, by sums that are shared between them: the same verdicts as judging each loadout
 * by itself, in a fraction of the time.
 */
export function loadoutVerdicts(
  build: Build,
  choices: readonly LoadoutChoice[],
  cards: readonly RuleCard[],
  estimates: LineEstimates,
): LoadoutVerdicts[] {
  const masses = loadoutMasses(build, choices, estimates)
  const lasting = cards.some(card => card.counts === 'airframe-and-pack')
    ? loadoutMassesWithoutRemovable(build, choices, estimates)
    : masses
  const allowed = cards.some(card => card.counts === 'maximum-take-off')
    ? loadoutMasses(build, allowedLoadouts(build), estimates)
    : []
  const { confidence } = build.aim
  const deciding = cards.map(card =>
    card.counts === 'maximum-take-off' ? decidingLoadout(allowed, card, confidence) : null,
  )
  const limits = cards.map(limitG)
  return masses.map((mass, i) => {
    const judgements: LoadoutJudgement[] = []
    for (let c = 0; c < cards.length; c++) {
      const card = cards[c]!
      const counted = card.counts === 'airframe-and-pack' ? lasting[i]! : (deciding[c] ?? mass)
      judgements.push({
        card,
        limitG: limits[c]!,
        massG: counted.massG,
        sigmaG: counted.sigmaG,
        verdict: judgeMass(counted, card, limits[c]!, confidence),
        heaviest: deciding[c]?.choice ?? null,
      })
    }
    // Written out: copies of objects are what takes the time where there are hundreds.
    return {
      choice: mass.choice,
      massG: mass.massG,
      sigmaG: mass.sigmaG,
      openLines: mass.openLines,
      isCraft: mass.isCraft,
      judgements,
      binding: bindingJudgement(judgements),
      intoReserveG: reserveTaken(judgements, build.aim.reserveG),
    }
  })
}

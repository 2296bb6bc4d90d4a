import type { Build, LoadoutChoice } from '../../model/ledger'
import {
  allowedLoadouts,
  countedLines,
  loadoutMasses,
  loadoutMassesWithoutRemovable,
  type LineEstimates,
  type LoadoutMass,
} from '../loadout'
import { limitG, mayCount, type RuleCard } from '../../limits/rules'
import { judge, type Verdict, type VerdictWord } from '../../limits/verdict'

/** One loadout under one card. `verdict` is null for a card without a limit, and while there is nothing that flies. */
export interface CardJudgement {
  readonly card: RuleCard
  readonly limitG: number | null
  /** The mass this card looks at, grams; differs from the all-up weight when the card counts otherwise. */
  readonly massG: number
  readonly sigmaG: number
  readonly verdict: Verdict | null
  /** Names of counted lines left out as removable. */
  readonly leftOut: readonly string[]
  /** The loadout looked at, when it is not the one asked about (the one that decides among those allowed). */
  readonly heaviest: LoadoutChoice | null
  readonly openLines: number
}

/**
 * A loadout's mass under one card. While counted lines have no grams, Clear becomes too close to call: grams nobody has
 * named cannot take mass away. What is no craft yet is never called Clear: null then.
 */
export function judgeMass(
  { massG, sigmaG, openLines, isCraft }: Pick<LoadoutMass, 'massG' | 'sigmaG' | 'openLines' | 'isCraft'>,
  card: RuleCard,
  limit: number | null,
  confidence: number,
): Verdict | null {
  if (limit === null || card.comparator === 'none') return null
  const verdict = judge({ massG, sigmaG, limitG: limit, comparator: card.comparator, confidence })
  if (verdict.word === 'Clear' && !isCraft) return null
  return openLines > 0 && verdict.word === 'Clear' ? { ...verdict, word: 'Too close to call' } : verdict
}

/**
 * Which of the loadouts a builder allows decides under a card that looks at the declared maximum: one that is Over, even
 * while grams of others are unknown; else one with grams nobody has said; else the least probable. Null when none is allowed
 * or the card has no limit.
 */
export function decidingLoadout(
  allowed: readonly LoadoutMass[],
  card: RuleCard,
  confidence: number,
): LoadoutMass | null {
  const limit = limitG(card)
  let deciding: { mass: LoadoutMass; verdict: Verdict; rank: number } | null = null
  for (const mass of allowed) {
    const verdict = judgeMass(mass, card, limit, confidence)
    if (!verdict) continue
    const rank = verdict.word === 'Over' ? 2 : mass.openLines > 0 ? 1 : 0
    if (!deciding || rank > deciding.rank || (rank === deciding.rank && isTighter(verdict, deciding.verdict)))
      deciding = { mass, verdict, rank }
  }
  return deciding?.mass ?? null
}

/** Judges one loadout under one card, counting what the card counts. The masses are those of the loadout sheet. */
export function judgeUnderCard(
  build: Build,
  choice: LoadoutChoice,
  card: RuleCard,
  estimates: LineEstimates,
): CardJudgement {
  const { confidence } = build.aim
  const deciding =
    card.counts === 'maximum-take-off'
      ? decidingLoadout(loadoutMasses(build, allowedLoadouts(build), estimates), card, confidence)
      : null
  const withoutRemovable = card.counts === 'airframe-and-pack'
  const looked =
    deciding ?? (withoutRemovable ? loadoutMassesWithoutRemovable : loadoutMasses)(build, [choice], estimates)[0]!
  const limit = limitG(card)
  return {
    card,
    limitG: limit,
    massG: looked.massG,
    sigmaG: looked.sigmaG,
    verdict: judgeMass(looked, card, limit, confidence),
    openLines: looked.openLines,
    leftOut: withoutRemovable
      ? countedLines(build, choice)
          .filter(line => line.removable)
          .map(line => line.name)
      : [],
    heaviest: deciding?.choice ?? null,
  }
}

/** What a card says in a word: its verdict, or why there is none. */
export function judgementWord({ verdict, limitG }: Pick<CardJudgement, 'verdict' | 'limitG'>): string {
  return verdict?.word ?? (limitG === null ? 'No limit by weight' : 'Nothing that flies yet')
}

const severity: Record<VerdictWord, number> = { Over: 2, 'Too close to call': 1, Clear: 0 }

/**
 * The binding judgement: the worst word; among equals the least probability of passing, then the least headroom.
 * Where none has a verdict because there is no craft yet, the first with a limit. Null when no chosen card has one.
 */
export function bindingJudgement<J extends Pick<CardJudgement, 'verdict' | 'limitG'>>(
  judgements: readonly J[],
): J | null {
  let binding: J | null = null
  for (const judgement of judgements) {
    if (judgement.verdict && (!binding?.verdict || isTighter(judgement.verdict, binding.verdict))) binding = judgement
  }
  return binding ?? judgements.find(judgement => judgement.limitG !== null) ?? null
}

function isTighter(a: Verdict, b: Verdict): boolean {
  if (a.word !== b.word) return severity[a.word] > severity[b.word]
  if (Math.abs(a.probability - b.probability) > 1e-12) return a.probability < b.probability
  return a.headroomG < b.headroomG
}

/**
 * The cards a build has chosen, in its own order; those that are gone, and those that do not follow from its answers, are
 * passed over. None for a reference craft: what is said of its parts is not what it weighs.
 */
export function chosenCards(build: Build, cards: readonly RuleCard[]): RuleCard[] {
  if (build.reference) return []
  return build.aim.cardIds.flatMap(id => cards.filter(card => card.id === id && mayCount(card, build.aim)))
}

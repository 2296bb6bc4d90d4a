import { addEstimates, sigmaG } from '../estimate'
import type { Build, LoadoutChoice } from '../ledger'
import { allowedLoadouts, countedLines, loadoutMasses, type LineEstimates } from '../loadout'
import { limitG, type RuleCard } from '../rules'
import { judge, type Verdict, type VerdictWord } from '../verdict'

/** One loadout under one card. `verdict` is null for a card without a limit. */
export interface CardJudgement {
  readonly card: RuleCard
  readonly limitG: number | null
  /** The mass this card looks at, grams; differs from the all-up weight when the card counts otherwise. */
  readonly massG: number
  readonly sigmaG: number
  readonly verdict: Verdict | null
  /** Names of counted lines left out as removable. */
  readonly leftOut: readonly string[]
  /** The loadout looked at, when it is not the one asked about (the heaviest allowed). */
  readonly heaviest: LoadoutChoice | null
  readonly openLines: number
}

/** The heaviest loadout the builder allows, by mean; the one given when none is allowed. */
export function heaviestLoadout(build: Build, fallback: LoadoutChoice, estimates: LineEstimates): LoadoutChoice {
  let heaviest = fallback
  let massG = -1
  for (const loadout of loadoutMasses(build, allowedLoadouts(build), estimates)) {
    if (loadout.massG > massG) { massG = loadout.massG; heaviest = loadout.choice }
  }
  return heaviest
}

/**
 * Judges one loadout under one card, counting what the card counts. While counted lines have no grams, Clear
 * becomes too close to call: grams nobody has named cannot take mass away.
 */
export function judgeUnderCard(build: Build, choice: LoadoutChoice, card: RuleCard, estimates: LineEstimates): CardJudgement {
  const heaviest = card.counts === 'maximum-take-off' ? heaviestLoadout(build, choice, estimates) : null
  const onBoard = countedLines(build, heaviest ?? choice)
  const counted = card.counts === 'airframe-and-pack' ? onBoard.filter(line => !line.removable) : onBoard
  const total = addEstimates(counted.map(line => estimates.of(line)))
  const sigma = sigmaG(total)
  const limit = limitG(card)
  const openLines = counted.filter(line => !line.mass).length
  let verdict: Verdict | null = null
  if (limit !== null && card.comparator !== 'none') {
    verdict = judge({ massG: total.valueG, sigmaG: sigma, limitG: limit, comparator: card.comparator, confidence: build.aim.confidence })
    if (openLines > 0 && verdict.word === 'Clear') verdict = { ...verdict, word: 'Too close to call' }
  }
  return {
    card, limitG: limit, massG: total.valueG, sigmaG: sigma, verdict, openLines,
    leftOut: onBoard.filter(line => !counted.includes(line)).map(line => line.name),
    heaviest,
  }
}

const severity: Record<VerdictWord, number> = { 'Over': 2, 'Too close to call': 1, 'Clear': 0 }

/**
 * The binding judgement: the worst word; among equals the least probability of passing, then the least headroom.
 * Null when no chosen card has a limit.
 */
export function bindingJudgement<J extends Pick<CardJudgement, 'verdict'>>(judgements: readonly J[]): J | null {
  let binding: J | null = null
  for (const judgement of judgements) {
    if (judgement.verdict && (!binding?.verdict || isTighter(judgement.verdict, binding.verdict))) binding = judgement
  }
  return binding
}

function isTighter(a: Verdict, b: Verdict): boolean {
  if (a.word !== b.word) return severity[a.word] > severity[b.word]
  if (Math.abs(a.probability - b.probability) > 1e-12) return a.probability < b.probability
  return a.headroomG < b.headroomG
}

/** The cards a build has chosen, in its own order; ids of cards that are gone are passed over. */
export function chosenCards(build: Build, cards: readonly RuleCard[]): RuleCard[] {
  return build.aim.cardIds.flatMap(id => cards.filter(card => card.id === id))
}

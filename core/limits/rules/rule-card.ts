import { figure, fixed } from '../../text/display'
import { toGrams, type MassUnit } from '../../text/units'
import type { Comparator } from '../verdict'
import builtIn from './rule-cards.json'

/** What a card counts: everything attached at take-off; without removable accessories; or the heaviest loadout allowed. */
export const countings = ['take-off', 'airframe-and-pack', 'maximum-take-off'] as const
export type Counting = (typeof countings)[number]

export const countingSentences: Record<Counting, string> = {
  'take-off': 'everything on board or attached at take-off',
  'airframe-and-pack': 'airframe and pack, without removable accessories',
  'maximum-take-off': 'the heaviest loadout you allow, payload included',
}

export const cardStatuses = ['in force', 'proposed', 'due'] as const
export type CardStatus = (typeof cardStatuses)[number]

/** One threshold. The limit is kept in the unit and digits it was written in. */
export interface RuleCard {
  readonly id: string
  readonly place: string
  readonly purpose: string
  readonly purposeKind: 'recreation' | 'other' | 'any'
  /** `none`: the card asks the same whatever the craft weighs. */
  readonly comparator: Comparator | 'none'
  readonly limit: { readonly value: number; readonly unit: MassUnit } | null
  readonly counts: Counting
  readonly conditions: readonly string[]
  readonly within: readonly string[]
  readonly beyond: readonly string[]
  readonly always: readonly string[]
  readonly source: string
  readonly status: CardStatus
  /** ISO date (YYYY-MM-DD) from which it is, was or will be in force; null when not known. */
  readonly since: string | null
  /** ISO date on which the builder confirmed it with the authority; null until then. */
  readonly verifiedOn: string | null
  readonly own: boolean
}

/** The starting cards, from published texts as remembered; each must be confirmed by the builder. */
export const startingCards: readonly RuleCard[] = builtIn as readonly RuleCard[]

/** The limit in grams, or null for a card without one. */
export function limitG(card: RuleCard): number | null {
  return card.limit && card.comparator !== 'none' ? toGrams(card.limit.value, card.limit.unit) : null
}

/** The limit as written, with grams beside it when it was not written in grams: `at most 0.55 lb (249.48 g)`. */
export function limitInWords(card: RuleCard): string {
  const grams = limitG(card)
  if (grams === null || !card.limit) return 'whatever it weighs'
  const wording = card.comparator === '<' ? 'less than' : 'at most'
  const written = `${figure(card.limit.value, 4)} ${card.limit.unit}`
  return card.limit.unit === 'g' ? `${wording} ${written}` : `${wording} ${written} (${fixed(grams, 2)} g)`
}

/** `place, purpose` in a few words, for lists and labels. */
export function cardName(card: RuleCard): string {
  return card.purpose === 'any' || card.purpose === '' ? card.place : `${card.place}, ${card.purpose}`
}

const dayMs = 86_400_000
/** Days before its date from which a card that is not yet in force is announced. */
export const reminderDays = 120

/**
 * Where a card stands on `today` (ISO date, passed in): in force, proposed, or due with the days left.
 * A due card whose date has come counts as in force. `reminder` is set as the date comes near.
 */
export function cardStanding(card: RuleCard, today: string): { words: string; reminder: boolean } {
  if (card.status === 'proposed') return { words: 'proposed, not in force', reminder: false }
  if (card.status === 'due' && card.since) {
    const days = Math.round((Date.parse(card.since) - Date.parse(today)) / dayMs)
    if (days > 0)
      return {
        words: `due from ${card.since}, in ${days} ${days === 1 ? 'day' : 'days'}`,
        reminder: days <= reminderDays,
      }
  }
  return { words: card.since ? `in force since ${card.since}` : 'in force', reminder: false }
}

/** What a builder answers on the way to the cards that apply. */
export interface AimAnswers {
  readonly places: readonly string[]
  readonly purposeKind: 'recreation' | 'other'
}

/** Whether a card can count under the answers: of one of the places, where any was said, and for that purpose. */
export function mayCount(card: RuleCard, { places, purposeKind }: AimAnswers): boolean {
  return (
    (places.length === 0 || places.includes(card.place)) &&
    (card.purposeKind === 'any' || card.purposeKind === purposeKind)
  )
}

/** Cards that the answers lead to and that ask the same whatever the craft weighs: they apply, ticked or not. */
export function whateverItWeighs(cards: readonly RuleCard[], answers: AimAnswers): RuleCard[] {
  return applicableCards(cards, answers).filter(card => limitG(card) === null)
}

/** The cards that the answers lead to, own cards of those places included, in the order given. */
export function applicableCards(cards: readonly RuleCard[], { places, purposeKind }: AimAnswers): RuleCard[] {
  return cards.filter(
    card => places.includes(card.place) && (card.purposeKind === 'any' || card.purposeKind === purposeKind),
  )
}

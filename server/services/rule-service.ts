import { startingCards, type RuleCard } from '../../core/limits/rules'
import type { rulesRepository } from '../db/rules-repository'
import { DomainProblem } from '../problems'

/** The use cases of rule cards: the starting ones, own ones, and when each was verified. */
export function ruleService(repository: ReturnType<typeof rulesRepository>) {
  let cached: RuleCard[] | null = null

  function cards(): RuleCard[] {
    if (!cached) {
      const verified = repository.verifications()
      cached = [...startingCards, ...repository.ownCards()].map(card => ({
        ...card,
        verifiedOn: verified.get(card.id) ?? null,
      }))
    }
    return cached
  }
  function requireCard(id: string): RuleCard {
    const card = cards().find(c => c.id === id)
    if (!card) throw new DomainProblem('not-found', 'There is no such rule card.')
    return card
  }
  return {
    cards,
    forget() {
      cached = null
    },
    /** The fields of an own card; null for the starting ones and for none. */
    ownFields(id: string): Omit<RuleCard, 'id' | 'verifiedOn' | 'own'> | null {
      const card = cards().find(c => c.id === id)
      if (!card?.own) return null
      const { id: _id, verifiedOn: _verifiedOn, own: _own, ...fields } = card
      return fields
    },
    verifiedOn: (id: string) => requireCard(id).verifiedOn,
    add(id: string, fields: Omit<RuleCard, 'id' | 'verifiedOn' | 'own'>) {
      if (cards().some(c => c.id === id))
        throw new DomainProblem('refused', 'There is a card with this id already.', 'id')
      repository.put({ ...fields, id, verifiedOn: null, own: true })
      cached = null
    },
    change(id: string, fields: Omit<RuleCard, 'id' | 'verifiedOn' | 'own'>) {
      if (!requireCard(id).own)
        throw new DomainProblem('refused', 'The starting cards stay as they are. Make a copy and edit that.')
      repository.put({ ...fields, id, verifiedOn: null, own: true })
      cached = null
    },
    remove(id: string) {
      if (!requireCard(id).own)
        throw new DomainProblem('refused', 'The starting cards stay. Only your own cards can be deleted.')
      repository.remove(id)
      cached = null
    },
    verify(id: string, verifiedOn: string | null) {
      requireCard(id)
      repository.verify(id, verifiedOn)
      cached = null
    },
  }
}
export type RuleService = ReturnType<typeof ruleService>

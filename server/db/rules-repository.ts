import type { RuleCard } from '../../core/limits/rules'
import type { Db } from './open-database'

/** SQL of own rule cards and of the dates on which cards were verified. */
export function rulesRepository(db: Db) {
  const sql = {
    own: db.prepare('SELECT card FROM own_cards ORDER BY position').pluck(),
    put: db.prepare(`
      INSERT INTO own_cards (id, position, card)
      VALUES (:id, (SELECT coalesce(max(position), 0) + 1 FROM own_cards), :card)
      ON CONFLICT (id) DO UPDATE SET card = excluded.card`),
    remove: db.prepare('DELETE FROM own_cards WHERE id = :id'),
    verifications: db.prepare('SELECT card_id AS cardId, verified_on AS verifiedOn FROM card_verifications'),
    verify: db.prepare(`
      INSERT INTO card_verifications (card_id, verified_on) VALUES (:cardId, :verifiedOn)
      ON CONFLICT (card_id) DO UPDATE SET verified_on = excluded.verified_on`),
    unverify: db.prepare('DELETE FROM card_verifications WHERE card_id = :cardId'),
  }
  return {
    ownCards: () => (sql.own.all() as string[]).map(text => JSON.parse(text) as RuleCard),
    put: (card: RuleCard) => {
      sql.put.run({ id: card.id, card: JSON.stringify(card) })
    },
    remove: (id: string) => {
      sql.remove.run({ id })
      sql.unverify.run({ cardId: id })
    },
    verifications: () =>
      new Map((sql.verifications.all() as { cardId: string; verifiedOn: string }[]).map(v => [v.cardId, v.verifiedOn])),
    verify: (cardId: string, verifiedOn: string | null) => {
      if (verifiedOn === null) sql.unverify.run({ cardId })
      else sql.verify.run({ cardId, verifiedOn })
    },
  }
}

import { defineStore } from 'pinia'
import { cardName, type RuleCard } from '#core/limits/rules'
import { keptChangeBetween, overlaid, removalOf, type QueuedKeptChanges } from '../queue/overlay'

export type CardFields = Omit<RuleCard, 'id' | 'verifiedOn' | 'own'>

export const useRulesStore = defineStore('rules', () => {
  const written = shallowRef<readonly RuleCard[]>([])
  /** The cards with what waits to be written. */
  const cards = shallowRef<RuleCard[]>([])

  function show() {
    const waiting = listening ? useEditsStore().queue.pending('rules') : []
    const withOwn = overlaid(written.value, 'card', waiting, () => ({ verifiedOn: null, own: true }))
    cards.value = overlaid(withOwn, 'verified', waiting).filter(card => card.place !== undefined)
  }
  let listening = false
  function listen() {
    if (listening) return
    listening = true
    useEditsStore().listen({
      accepted(document, sent) {
        if (document !== 'rules') return
        written.value = overlaid(
          overlaid(written.value, 'card', sent, () => ({ verifiedOn: null, own: true })),
          'verified',
          sent,
        )
      },
      changed(document) {
        if (document === 'rules') show()
      },
    })
  }

  async function load() {
    written.value = (await askServer<{ cards: RuleCard[] }>('/api/cards')).cards
    show()
  }
  async function keep(changes: QueuedKeptChanges['changes'], words: string) {
    listen()
    const refused = await useEditsStore().keep('rules', 'Rules', changes, words)
    if (refused) throw new Error(refused)
  }
  async function add(fields: CardFields): Promise<string> {
    const id = newId()
    await keep([{ kind: 'card', id, seen: null, set: { ...fields } }], `Card ${fields.place}, ${fields.purpose} added`)
    return id
  }
  async function change(id: string, fields: CardFields) {
    const card = cards.value.find(c => c.id === id)
    if (!card) return
    const { verifiedOn: _verifiedOn, own: _own, ...was } = card
    const changed = keptChangeBetween('card', was, { id, ...fields })
    if (changed) await keep([changed], `Card ${cardName(card)} changed`)
  }
  async function remove(id: string) {
    const card = cards.value.find(c => c.id === id)
    if (!card) return
    const { verifiedOn: _verifiedOn, own: _own, ...was } = card
    await keep([removalOf('card', was)], `Card ${cardName(card)} deleted`)
  }
  async function verify(id: string, verifiedOn: string | null) {
    const card = cards.value.find(c => c.id === id)
    if (!card) return
    const changed = keptChangeBetween(
      'verified',
      { id, verifiedOn: card.verifiedOn } as { id: string },
      { id, verifiedOn } as { id: string },
    )
    if (changed) await keep([changed], `Card ${cardName(card)}: verified ${verifiedOn ?? 'no more'}`)
  }
  const reset = () => {
    written.value = cards.value = []
  }
  return { cards, load, add, change, remove, verify, reset }
})

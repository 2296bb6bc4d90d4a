import { defineStore } from 'pinia'
import type { RuleCard } from '#core/rules'

export type CardFields = Omit<RuleCard, 'id' | 'verifiedOn' | 'own'>

export const useRulesStore = defineStore('rules', () => {
  const cards = shallowRef<RuleCard[]>([])

  async function load() {
    cards.value = (await askServer<{ cards: RuleCard[] }>('/api/cards')).cards
  }
  async function add(fields: CardFields): Promise<string> {
    const { id } = await askServer<{ id: string }>('/api/cards', { method: 'POST', body: fields })
    await load()
    return id
  }
  async function change(id: string, fields: CardFields) {
    await askServer(`/api/cards/${id}`, { method: 'PUT', body: fields })
    await load()
  }
  async function remove(id: string) {
    await askServer(`/api/cards/${id}`, { method: 'DELETE' })
    await load()
  }
  async function verify(id: string, verifiedOn: string | null) {
    await askServer(`/api/cards/${id}/verified`, { method: 'PUT', body: { verifiedOn } })
    await load()
  }
  const reset = () => { cards.value = [] }
  return { cards, load, add, change, remove, verify, reset }
})

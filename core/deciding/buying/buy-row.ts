import type { Kit } from '../../parts/drawer'
import type { Slot } from '../../model/ledger'

/** Why something is on the list. */
export type BuyReason = 'not owned yet' | 'needed, no line' | 'tool or consumable' | 'crash spare'

export interface BuyRow {
  readonly reason: BuyReason
  readonly slot: Slot | null
  readonly name: string
  readonly wanted: number
  readonly inDrawer: number
  readonly toBuy: number
  readonly priceEachCents: number | null
  readonly priceCents: number | null
  readonly why: string
}

export interface BuyOptions {
  readonly tools: boolean
  readonly spares: boolean
}

/** What is known besides the build: the kits the drawer remembers, and the radio family of the hand controller. */
export interface BuySurroundings {
  readonly kits: readonly Kit[]
  readonly radioFamily: string
}

/** Sum of the prices that are known, and how many rows have none. */
export function buyTotal(rows: readonly BuyRow[]): { readonly cents: number; readonly unpriced: number } {
  return {
    cents: rows.reduce((sum, r) => sum + (r.priceCents ?? 0), 0),
    unpriced: rows.filter(r => r.priceCents === null).length,
  }
}

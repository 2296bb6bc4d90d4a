import { inDrawer, priceEachCents, type Part, type Placement } from '../drawer'
import { blankFit, fixingsSchedule, isSaidJoint } from '../fit'
import type { Build, Line, Slot } from '../ledger'
import { measureOf, providersOf, textOf } from '../properties'

/** Why something is on the list. */
export type BuyReason = 'not owned yet' | 'needed, no line' | 'tool or consumable' | 'crash spare'

export interface BuyRow { readonly reason: BuyReason, readonly slot: Slot | null, readonly name: string, readonly wanted: number, readonly inDrawer: number, readonly toBuy: number, readonly priceEachCents: number | null, readonly priceCents: number | null, readonly why: string }

export interface BuyOptions { readonly tools: boolean, readonly spares: boolean }

/** A line the builder has in the hand: linked to a part that is owned, or weighed. */
function isOwned(line: Line, parts: ReadonlyMap<string, Part>): boolean {
  const part = line.partId ? parts.get(line.partId) : undefined
  return part ? part.owned >= line.quantity : line.mass?.evidence === 'weighed'
}

const tools = [
  ['Solder, thin, with flux core', 'for every joint'], ['Heat-shrink, two widths', 'over every splice'], ['Current limiter or fused lead', 'for the first power-up'], ['Thread-lock, medium', 'metal into metal'],
  ['Hex drivers for the threads used', 'and gentle torque'], ['Isopropyl alcohol and a brush', 'flux off, before any coating'], ['Goggles for the eyes and a dust mask', 'for cutting and drilling carbon'],
] as const

/** How many of what breaks first a builder keeps for a season. */
const spares: readonly (readonly [Slot, number])[] = [['propeller', 8], ['motor', 1], ['strap', 1], ['aerial', 1]]

/**
 * What still has to be bought for a build: fitted lines that are not owned, what the build needs that has no line, and by
 * choice tools and crash spares; each minus what the drawer holds. A piece of the drawer is given out once.
 */
export function toBuy(build: Build, parts: readonly Part[], placements: readonly Placement[], options: BuyOptions): BuyRow[] {
  const byId = new Map(parts.map(part => [part.id, part]))
  const left = new Map(parts.map(part => [part.id, Math.max(0, inDrawer(part, placements))]))
  const fitted = build.lines.filter(line => line.state === 'fitted')

  function row(reason: BuyReason, slot: Slot | null, name: string, wanted: number, each: number | null, why: string, matches: (part: Part) => boolean): BuyRow {
    let held = 0
    let price = each
    for (const part of parts) {
      if (!matches(part)) continue
      price ??= priceEachCents(part)
      const given = Math.min(left.get(part.id)!, wanted - held)
      left.set(part.id, left.get(part.id)! - given)
      held += given
    }
    const toBuyNow = wanted - held
    return { reason, slot, name, wanted, inDrawer: held, toBuy: toBuyNow, priceEachCents: price, priceCents: price === null ? null : price * toBuyNow, why }
  }
  const alike = (line: Line) => (part: Part) => part.slot === line.slot && (part.id === line.partId || part.name.toLowerCase() === line.name.toLowerCase())
  const rows = fitted.filter(line => line.slot !== 'other' && !isOwned(line, byId)).map(line => row('not owned yet', line.slot, line.name, line.quantity, line.priceEachCents, '', alike(line)))

  const need = (slot: Slot, name: string, why: string, count = 1) => rows.push(row('needed, no line', slot, name, count, null, why, part => part.slot === slot))
  const has = (slot: Slot) => providersOf(fitted, slot).length > 0
  if (fitted.some(l => l.slot === 'motor') && !has('receiver')) need('receiver', 'Receiver', 'nothing on board hears the hand controller')
  if (fitted.some(l => l.slot === 'video transmitter') && !has('aerial')) need('aerial', 'Aerial for the transmitter', 'never powered without one')
  if (fitted.some(l => l.slot === 'pack' && (l.pack?.cells ?? 0) >= 2) && !has('strap')) need('strap', 'Strap', 'holds the pack')
  if (fitted.some(l => l.slot === 'motor') && !has('propeller')) need('propeller', 'Propellers', 'one a motor', 4)
  if (fitted.some(l => l.slot === 'pack' && (l.pack?.cells ?? 0) >= 3) && !has('capacitor')) need('capacitor', 'Capacitor', 'takes the spikes off a supply of three cells or more')
  for (const joint of (build.fit ?? blankFit).joints) {
    if (!isSaidJoint(joint)) continue
    const schedule = fixingsSchedule([joint]).rows[0]!
    const fits = (line: Line | Part) => line.slot === 'screw' && textOf(line, 'thread') === joint.thread && (measureOf(line, 'lengthMm') ?? -1) >= schedule.shortestMm - 1e-9 && (measureOf(line, 'lengthMm') ?? 1e9) <= schedule.longestMm + 1e-9
    if (joint.lineId && schedule.verdict === 'fits') continue
    if (fitted.some(fits)) continue
    if (schedule.soldMm === null) continue
    rows.push(row('needed, no line', 'screw', `${joint.thread} × ${schedule.soldMm} ${joint.head}, ${joint.material}`, joint.count, null, joint.name, fits))
  }
  if (options.spares) {
    for (const [slot, count] of spares) {
      const line = fitted.find(l => l.slot === slot)
      if (line) rows.push(row('crash spare', slot, line.name, count, line.priceEachCents, 'breaks first', alike(line)))
    }
  }
  if (options.tools) for (const [name, why] of tools) rows.push({ reason: 'tool or consumable', slot: null, name, wanted: 1, inDrawer: 0, toBuy: 1, priceEachCents: null, priceCents: null, why })
  return rows.filter(r => r.toBuy > 0)
}

/** Sum of the prices that are known, and how many rows have none. */
export function buyTotal(rows: readonly BuyRow[]): { readonly cents: number, readonly unpriced: number } {
  return { cents: rows.reduce((sum, r) => sum + (r.priceCents ?? 0), 0), unpriced: rows.filter(r => r.priceCents === null).length }
}

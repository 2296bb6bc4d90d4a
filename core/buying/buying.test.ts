import { describe, expect, it } from 'vitest'
import { makePart, type Placement } from '../drawer'
import { blankFit } from '../fit'
import { blankAim, makeLine, makeMass, type Build, type Line } from '../ledger'
import { buyTotal, toBuy } from './index'

const buildOf = (lines: Line[], more: Partial<Build> = {}): Build => ({
  id: 'b', name: 'B', craftClass: '', archived: false, reference: null, aim: blankAim(), lines, setups: [{ id: 's', name: 's', lineIds: [] }], flies: { setupId: 's', packLineId: null }, neverFlown: [], observations: [], fit: null, flying: null, shave: null, assembly: null, ...more,
})
const listed = (id: string, slot: Line['slot'], name: string, quantity: number, priceEachCents: number | null = null, more: Partial<Line> = {}) => makeLine({ id, slot, name, quantity, priceEachCents, mass: makeMass({ versionId: `v-${id}`, evidence: 'listed', valueG: 2 }), ...more })
const none: Placement[] = []
const plain = { tools: false, spares: false }

describe('what is to buy', () => {
  const receiver = listed('rx', 'receiver', 'receiver', 1, null, { mass: makeMass({ versionId: 'w', evidence: 'weighed', valueG: 0.6 }) })
  it('is what is fitted and not in the hand: weighed lines and owned parts are not on it', () => {
    const part = makePart({ id: 'p', slot: 'propeller', name: 'props', owned: 4 })
    const rows = toBuy(buildOf([receiver, listed('m', 'motor', 'motor', 4, 1590), listed('props', 'propeller', 'props', 4, 70, { partId: 'p' })]), [part], [{ partId: 'p', buildId: 'b', buildName: 'B', lineId: 'props', quantity: 4, state: 'fitted' }], plain)
    expect(rows.map(r => [r.name, r.toBuy, r.priceCents])).toEqual([['motor', 4, 6360]])
    expect(buyTotal(rows)).toEqual({ cents: 6360, unpriced: 0 })
  })
  it('takes what the drawer holds off, and gives each piece out once', () => {
    const part = makePart({ id: 'p', slot: 'motor', name: 'Motor', owned: 3, priceCents: 3000, soldIn: 2 })
    const rows = toBuy(buildOf([receiver, listed('props', 'propeller', 'p', 4), listed('m1', 'motor', 'motor', 2), listed('m2', 'motor', 'motor', 2)]), [part], none, plain)
    expect(rows.filter(r => r.slot === 'motor').map(r => [r.wanted, r.inDrawer, r.toBuy, r.priceCents])).toEqual([[2, 1, 1, 1500]])
  })
  it('names what the build needs and has no line for, unless something on board does its work', () => {
    const bare = [listed('m', 'motor', 'motor', 4), listed('v', 'video transmitter', 'unit', 1), listed('k', 'pack', 'pack', 1, null, { pack: { label: 'K', cells: 4, chemistry: 'LiPo', capacityMah: 650, cRating: null, plug: '' } })]
    expect(toBuy(buildOf(bare), [], none, plain).filter(r => r.reason === 'needed, no line').map(r => r.slot)).toEqual(['receiver', 'aerial', 'strap', 'propeller', 'capacitor'])
    const board = listed('b', 'board', 'board', 1, null, { properties: { provides: ['receiver', 'aerial'] } })
    expect(toBuy(buildOf([...bare, board]), [], none, plain).filter(r => r.reason === 'needed, no line').map(r => r.slot)).toEqual(['strap', 'propeller', 'capacitor'])
  })
  it('computes the length of screws that have no line, and is content with a line that fits', () => {
    const fit = { ...blankFit, joints: [{ id: 'j', name: 'motors', count: 16, thread: 'M2', head: 'button', material: 'alloy steel', clampedMm: 3, engagementMm: 2, freeDepthMm: 2.4, beyond: 'windings' as const, into: 'aluminium', lengthMm: null, lineId: null, said: true }] }
    expect(toBuy(buildOf([], { fit }), [], none, plain)).toMatchObject([{ name: 'M2 × 5 button, alloy steel', toBuy: 16, why: 'motors' }])
    const owned = makePart({ id: 's', slot: 'screw', name: 'M2 × 5', owned: 10, properties: { thread: 'M2', lengthMm: 5 } })
    expect(toBuy(buildOf([], { fit }), [owned], none, plain)).toMatchObject([{ inDrawer: 10, toBuy: 6 }])
    const line = listed('l', 'screw', 'screws', 16, null, { properties: { thread: 'M2', lengthMm: 5 }, mass: makeMass({ versionId: 'x', evidence: 'weighed', valueG: 0.2 }) })
    expect(toBuy(buildOf([line], { fit }), [], none, plain)).toEqual([])
  })
  it('adds spares and tools only when asked; their prices are known or said to be missing', () => {
    const lines = [receiver, { ...listed('props', 'propeller', 'props', 4, 70), mass: makeMass({ versionId: 'q', evidence: 'weighed', valueG: 1.5 }) }]
    expect(toBuy(buildOf(lines), [], none, plain)).toEqual([])
    const rows = toBuy(buildOf(lines), [], none, { tools: true, spares: true })
    expect(rows.find(r => r.reason === 'crash spare')).toMatchObject({ name: 'props', toBuy: 8, priceCents: 560 })
    expect(buyTotal(rows)).toEqual({ cents: 560, unpriced: rows.length - 1 })
  })
})

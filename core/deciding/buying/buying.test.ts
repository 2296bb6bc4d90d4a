import { describe, expect, it } from 'vitest'
import { makeBuild } from '../../changes/commands'
import { makePart, type Placement } from '../../parts/drawer'
import { blankFit } from '../../aircraft/fit'
import { makeLine, makeMass, type Build, type Line } from '../../model/ledger'
import { buyTotal, toBuy } from './index'

const buildOf = (lines: Line[], more: Partial<Build> = {}): Build =>
  makeBuild({
    id: 'b',
    name: 'B',
    lines,
    setups: [{ id: 's', name: 's', lineIds: [] }],
    flies: { setupId: 's', packLineId: null },
    ...more,
  })
const listed = (
  id: string,
  slot: Line['slot'],
  name: string,
  quantity: number,
  priceEachCents: number | null = null,
  more: Partial<Line> = {},
) =>
  makeLine({
    id,
    slot,
    name,
    quantity,
    priceEachCents,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'listed', valueG: 2 }),
    ...more,
  })
const none: Placement[] = []
const plain = { tools: false, spares: false }

describe('what is to buy', () => {
  const receiver = listed('rx', 'receiver', 'receiver', 1, null, {
    mass: makeMass({ versionId: 'w', evidence: 'weighed', valueG: 0.6 }),
  })
  it('is what is fitted and not in the hand: weighed lines and owned parts are not on it', () => {
    const part = makePart({ id: 'p', slot: 'propeller', name: 'props', owned: 4 })
    const rows = toBuy(
      buildOf([
        receiver,
        listed('m', 'motor', 'motor', 4, 1590),
        listed('props', 'propeller', 'props', 4, 70, { partId: 'p' }),
      ]),
      [part],
      [{ partId: 'p', buildId: 'b', buildName: 'B', lineId: 'props', quantity: 4, state: 'fitted' }],
      plain,
    ).filter(r => r.reason === 'not owned yet')
    expect(rows.map(r => [r.name, r.toBuy, r.priceCents])).toEqual([['motor', 4, 6360]])
    expect(buyTotal(rows)).toEqual({ cents: 6360, unpriced: 0 })
  })
  it('of a part that is short only what is short is bought, and what a kit’s bag had too few of', () => {
    const kit = { id: 'k', name: 'Wren kit', priceCents: 2450, link: '', note: '', leavesOut: '' }
    const placed = (quantity: number): Placement[] => [
      { partId: 's', buildId: 'b', buildName: 'B', lineId: 'sc', quantity, state: 'fitted' },
    ]
    const bought = (owned: number, missing: number, quantity: number) =>
      toBuy(
        buildOf([listed('sc', 'screw', 'M2 × 6', quantity, null, { partId: 's' })]),
        [makePart({ id: 's', slot: 'screw', name: 'M2 × 6', owned, missing, kitId: 'k', priceCents: 120, soldIn: 10 })],
        placed(quantity),
        plain,
        { kits: [kit], radioFamily: '' },
      ).map(r => [r.name, r.toBuy, r.priceCents, r.why])
    expect(bought(12, 0, 12)).toEqual([])
    expect(bought(10, 0, 12)).toEqual([['M2 × 6', 2, 24, '10 of 12 are there']])
    expect(bought(10, 2, 10)).toEqual([['M2 × 6', 2, 24, 'missing from the bag of Wren kit']])
    // More on a line than ever came, before its builds were counted anew.
    const raised = [listed('sc', 'screw', 'M2 × 6', 12, null, { partId: 's' })]
    const part = makePart({ id: 's', slot: 'screw', name: 'M2 × 6', owned: 10 })
    expect(toBuy(buildOf(raised), [part], placed(4), plain).map(r => r.why)).toEqual(['10 of 12 are there'])
    expect(bought(0, 0, 12)).toEqual([['Wren kit', 1, 2450, 'a kit, with M2 × 6']])
  })
  it('takes what the drawer holds off, and gives each piece out once', () => {
    const part = makePart({ id: 'p', slot: 'motor', name: 'Motor', owned: 3, priceCents: 3000, soldIn: 2 })
    const rows = toBuy(
      buildOf([
        receiver,
        listed('props', 'propeller', 'p', 4),
        listed('m1', 'motor', 'motor', 2),
        listed('m2', 'motor', 'motor', 2),
      ]),
      [part],
      none,
      plain,
    )
    expect(rows.filter(r => r.slot === 'motor').map(r => [r.wanted, r.inDrawer, r.toBuy, r.priceCents])).toEqual([
      [2, 1, 1, 1500],
    ])
  })
  it('names what the build needs and has no line for, unless something on board does its work', () => {
    const bare = [
      listed('m', 'motor', 'motor', 4),
      listed('v', 'video transmitter', 'unit', 1),
      listed('k', 'pack', 'pack', 1, null, {
        pack: { label: 'K', cells: 4, chemistry: 'LiPo', capacityMah: 650, cRating: null, plug: '' },
      }),
    ]
    expect(
      toBuy(buildOf(bare), [], none, plain)
        .filter(r => r.reason === 'needed, no line')
        .map(r => r.slot),
    ).toEqual(['receiver', 'aerial', 'strap', 'propeller', 'capacitor'])
    const board = listed('b', 'board', 'board', 1, null, { properties: { provides: ['receiver', 'aerial'] } })
    expect(
      toBuy(buildOf([...bare, board]), [], none, plain)
        .filter(r => r.reason === 'needed, no line')
        .map(r => r.slot),
    ).toEqual(['power lead', 'strap', 'propeller', 'capacitor'])
  })
  it('knows what flies, and what a craft of its class has besides; the receiver speaks the radio of the hand controller', () => {
    const bare = [
      listed('f', 'frame', 'frame', 1),
      listed('m', 'motor', 'motor', 4),
      listed('b', 'board', 'board', 1),
      listed('c', 'camera', 'camera', 1),
    ]
    const needed = (build: Build, radioFamily = '') =>
      toBuy(build, [], none, plain, { kits: [], radioFamily })
        .filter(r => r.reason === 'needed, no line')
        .map(r => r.name)
    expect(needed(buildOf(bare), '2.4 GHz, wide')).toEqual([
      'Receiver, 2.4 GHz, wide',
      'Video transmitter',
      'Power lead',
      'Propellers',
      'Pack',
      'Screws',
    ])
    expect(needed(buildOf(bare, { craftClass: '3.5-inch open' }))).toEqual([
      'Receiver',
      'Video transmitter',
      'Power lead',
      'Propellers',
      'Pack',
      'Screws',
      'Capacitor',
      'Aerial',
      'Standoff',
      'Strap',
      'Pad',
    ])
    // A whoop's board does the work of several.
    const whoop = listed('w', 'board', 'board', 1, null, {
      properties: { provides: ['receiver', 'video transmitter', 'speed controller'] },
    })
    expect(needed(buildOf([...bare.filter(line => line.slot !== 'board'), whoop]))).toEqual([
      'Power lead',
      'Propellers',
      'Pack',
      'Screws',
    ])
  })
  it('a craft weighed whole owns what was on it, until a piece becomes another one', () => {
    const lines = [listed('f', 'frame', 'frame', 1), listed('s', 'strap', 'strap', 1)]
    const whole = {
      id: 'o',
      title: 'whole',
      takenAt: '2026-11-01T10:00:00.000Z',
      scaleId: 's',
      scaleName: 'S',
      checkId: null,
      displaysG: [4],
      tareDisplayG: null,
      valueG: 4,
      contributions: {},
      state: 'taken in' as const,
      pictureIds: [],
      subjects: lines.map(({ id, slot, quantity, mass }) => ({ id, slot, quantity, mass, edition: 0 })),
    }
    const names = (build: Build) =>
      toBuy(build, [], none, plain)
        .filter(r => r.reason === 'not owned yet')
        .map(r => r.name)
    expect(names(buildOf(lines))).toEqual(['frame', 'strap'])
    expect(names(buildOf(lines, { observations: [whole] }))).toEqual([])
    expect(names(buildOf(lines, { observations: [{ ...whole, state: 'held' }] }))).toEqual(['frame', 'strap'])
    expect(names(buildOf([lines[0]!, { ...lines[1]!, edition: 1 }], { observations: [whole] }))).toEqual(['strap'])
    // Weighed before pieces were told apart: by the grams they stood on then.
    const early = { ...whole, subjects: whole.subjects.map(({ edition: _edition, ...subject }) => subject) }
    expect(
      names(
        buildOf([lines[0]!, { ...lines[1]!, mass: makeMass({ versionId: 'other', evidence: 'listed', valueG: 3 }) }], {
          observations: [early],
        }),
      ),
    ).toEqual(['strap'])
  })
  it('what a kit leaves out is on the list, once; pieces nobody owns yet are bought as their kit, at its price', () => {
    const kit = {
      id: 'k',
      name: 'Frame kit',
      priceCents: 3900,
      link: '',
      note: '',
      leavesOut: 'motor screws, straps; pad',
    }
    const parts = [
      makePart({ id: 'fp', slot: 'frame', name: 'plates', kitId: 'k' }),
      makePart({ id: 'cp', slot: 'canopy', name: 'canopy', kitId: 'k' }),
    ]
    const lines = [
      listed('f', 'frame', 'plates', 1, null, { partId: 'fp' }),
      listed('c', 'canopy', 'canopy', 1, null, { partId: 'cp' }),
      listed('p', 'pad', 'grip', 1, 150),
    ]
    const rows = toBuy(buildOf(lines), parts, none, plain, { kits: [kit], radioFamily: '' })
    expect(rows.map(r => [r.name, r.priceCents, r.why])).toEqual([
      ['grip', 150, ''],
      ['Frame kit', 3900, 'a kit, with plates, canopy'],
      ['motor screws', null, 'left out of Frame kit'],
      ['straps', null, 'left out of Frame kit'],
    ])
    const owned = parts.map(part => ({ ...part, owned: 1 }))
    expect(toBuy(buildOf(lines), owned, none, plain, { kits: [kit], radioFamily: '' }).map(r => r.name)).toEqual([
      'grip',
      'motor screws',
      'straps',
    ])
  })
  it('what a kit leaves out is read in a builder’s words; what has no kind of its own goes by its name', () => {
    const kit = {
      id: 'k',
      name: 'Kit',
      priceCents: null,
      link: '',
      note: '',
      leavesOut: 'prop guard, rubber band, tape',
    }
    const parts = [makePart({ id: 'fp', slot: 'frame', name: 'plates', kitId: 'k', owned: 1 })]
    const lines = [
      listed('f', 'frame', 'plates', 1, null, { partId: 'fp' }),
      listed('g', 'guard', 'ring', 4),
      listed('o', 'other', 'heat-shrink', 1),
    ]
    expect(
      toBuy(buildOf(lines), parts, none, plain, { kits: [kit], radioFamily: '' }).map(r => [r.slot, r.name]),
    ).toEqual([
      ['guard', 'ring'],
      ['strap', 'rubber band'],
      [null, 'tape'],
    ])
  })
  it('computes the length of screws that have no line, and is content with a line that fits', () => {
    const fit = {
      ...blankFit,
      joints: [
        {
          id: 'j',
          name: 'motors',
          holds: 'motors' as const,
          count: 16,
          thread: 'M2',
          head: 'button',
          material: 'alloy steel',
          clampedMm: 3,
          engagementMm: 2,
          freeDepthMm: 2.4,
          beyond: 'windings' as const,
          into: 'aluminium',
          lengthMm: null,
          lineId: null,
          said: true,
        },
      ],
    }
    expect(toBuy(buildOf([], { fit }), [], none, plain)).toMatchObject([
      { name: 'M2 × 5 button, alloy steel', toBuy: 16, why: 'motors' },
    ])
    const owned = makePart({
      id: 's',
      slot: 'screw',
      name: 'M2 × 5',
      owned: 10,
      properties: { thread: 'M2', lengthMm: 5 },
    })
    expect(toBuy(buildOf([], { fit }), [owned], none, plain)).toMatchObject([{ inDrawer: 10, toBuy: 6 }])
    const line = listed('l', 'screw', 'screws', 16, null, {
      properties: { thread: 'M2', lengthMm: 5 },
      mass: makeMass({ versionId: 'x', evidence: 'weighed', valueG: 0.2 }),
    })
    expect(toBuy(buildOf([line], { fit }), [], none, plain)).toEqual([])
  })
  it('adds spares and tools only when asked; their prices are known or said to be missing', () => {
    const lines = [
      receiver,
      {
        ...listed('props', 'propeller', 'props', 4, 70),
        mass: makeMass({ versionId: 'q', evidence: 'weighed', valueG: 1.5 }),
      },
    ]
    expect(toBuy(buildOf(lines), [], none, plain)).toEqual([])
    const rows = toBuy(buildOf(lines), [], none, { tools: true, spares: true })
    expect(rows.find(r => r.reason === 'crash spare')).toMatchObject({ name: 'props', toBuy: 8, priceCents: 560 })
    expect(buyTotal(rows)).toEqual({ cents: 560, unpriced: rows.length - 1 })
  })
})

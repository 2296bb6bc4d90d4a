import { describe, expect, it } from 'vitest'
import { loadoutFigure, sheetCells, type LoadoutCell, type SheetFlight } from '#core/aircraft/flight'
import { limitG, startingCards } from '#core/limits/rules'
import { estimatesOf } from '#core/mass/loadout'
import { ListingBiasTable } from '#core/mass/listings'
import { makeBuild } from '#core/changes/commands'
import { makeLine, makeMass, type Line } from '#core/model/ledger'
import { sortedBy } from '#shared/sheet/sorted-by'
import { capacityPerGram, isRetired, loadoutRows, loadoutValue, misfitsOfRow } from './loadout-rows'

const grams = (id: string, valueG: number) =>
  makeMass({ versionId: id, evidence: 'weighed', valueG, resolutionG: 0.01, basis: 'as fitted' })
const pack = (id: string, valueG: number | null, capacityMah: number | null, more: Partial<Line> = {}) =>
  makeLine({
    id,
    slot: 'pack',
    name: id,
    mass: valueG === null ? null : grams(`v-${id}`, valueG),
    pack:
      capacityMah === null ? null : { label: id, cells: 4, chemistry: 'LiPo', capacityMah, cRating: null, plug: '' },
    ...more,
  })
const build = makeBuild({
  id: 'b',
  name: 'craft',
  lines: [
    makeLine({ id: 'frame', slot: 'frame', name: 'frame', mass: grams('v-frame', 150) }),
    makeLine({ id: 'guards', slot: 'guard', name: 'guards', role: 'fitting', mass: grams('v-guards', 30) }),
    pack('P1', 60, 650),
    pack('P2', 85, 850),
    pack('old', 58, 600, { properties: { packState: 'retired' } }),
    pack('unweighed', null, null),
  ],
  setups: [
    { id: 'bare', name: 'bare', lineIds: [] },
    { id: 'guarded', name: 'with guards', lineIds: ['guards'] },
  ],
  neverFlown: [{ setupId: 'bare', packLineId: 'P2' }],
  flies: { setupId: 'bare', packLineId: 'P1' },
})
const estimates = estimatesOf(build, new ListingBiasTable([]))
const limit = startingCards.find(card => limitG(card) === 250 && card.counts === 'take-off')!
const cells = sheetCells(build, [], [limit], estimates)
const setupIds = ['bare', 'guarded']
const shown = { onlyClear: false, withNever: false, withRetired: false }
const rowsWith = (more: Partial<typeof shown> = {}, of: readonly LoadoutCell[] = cells) =>
  loadoutRows(of, setupIds, line => estimates.of(line), { ...shown, ...more })
const names = (rows: ReturnType<typeof rowsWith>) => rows.map(row => row.pack.line.id)

describe('the rows of the loadouts', () => {
  it('one a pack in ledger order, with a cell for every set-up; what is never flown is left out unless it is asked for', () => {
    const rows = rowsWith()
    expect(names(rows)).toEqual(['P1', 'P2', 'unweighed'])
    expect(rows.map(row => row.cells.map(cell => cell?.choice.setupId ?? null))).toEqual([
      ['bare', 'guarded'],
      [null, 'guarded'],
      ['bare', 'guarded'],
    ])
    expect(rows[0]!.cells.map(cell => cell!.massG)).toEqual([210, 240])
    expect(rowsWith({ withNever: true })[1]!.cells.map(cell => cell?.massG)).toEqual([235, 265])
  })
  it('retired packs only where they are asked for', () => {
    expect(names(rowsWith({ withRetired: true }))).toEqual(['P1', 'P2', 'old', 'unweighed'])
    expect(build.lines.filter(isRetired).map(({ id }) => id)).toEqual(['old'])
  })
  it('only what is clear: a pack none of whose loadouts is, is left out as a whole, as is one without grams', () => {
    const clear = rowsWith({ onlyClear: true })
    expect(names(clear)).toEqual(['P1'])
    for (const row of clear) for (const cell of row.cells) if (cell) expect(cell.intoReserveG).toBe(0)
    const second = rowsWith({ onlyClear: true, withNever: true }).find(row => row.pack.line.id === 'P2')!
    expect(second.cells.map(Boolean)).toEqual([true, false])
  })
  it('there are none where there is no pack', () => {
    expect(rowsWith({}, [])).toEqual([])
  })
})

describe('the order of the loadouts', () => {
  const minutes = loadoutFigure('minutes')
  const flights = new Map<string, SheetFlight>()
  const by = (key: string, down: boolean) =>
    names([
      ...sortedBy(rowsWith({ withRetired: true }), [{ column: key, down }], (row, by) =>
        loadoutValue(row, by, setupIds, minutes, flights),
      ),
    ])

  it('by a fact of the pack; one that is not weighed or not known stands last either way', () => {
    expect(by('grams', false)).toEqual(['old', 'P1', 'P2', 'unweighed'])
    expect(by('grams', true)).toEqual(['P2', 'P1', 'old', 'unweighed'])
    expect(by('mah', true)).toEqual(['P2', 'P1', 'old', 'unweighed'])
    expect(by('label', false)).toEqual(['old', 'P1', 'P2', 'unweighed'])
    // 650 / 60 = 10.83, 600 / 58 = 10.34, 850 / 85 = 10.
    expect(by('ratio', false)).toEqual(['P2', 'old', 'P1', 'unweighed'])
    expect(capacityPerGram(build.lines[2]!, 60)).toBeCloseTo(10.833, 3)
    expect([capacityPerGram(build.lines[5]!, 60), capacityPerGram(build.lines[2]!, 0)]).toEqual([null, null])
  })
  it('by the figure on view in the set-up of a column; without a figure, or without the loadout, last', () => {
    const headroom = loadoutFigure('headroom')
    const value = (setup: string) => rowsWith().map(row => loadoutValue(row, setup, setupIds, headroom, flights))
    // 250 − 210 and 250 − 240; the second pack is never flown bare.
    expect(value('bare').slice(0, 2)).toEqual([expect.closeTo(40, 9), null])
    expect(value('guarded')[0]).toBeCloseTo(10, 9)
    expect(value('no such set-up')).toEqual([null, null, null])
    expect(rowsWith().map(row => loadoutValue(row, 'bare', setupIds, minutes, flights))).toEqual([null, null, null])
  })
})

describe('what does not fit', () => {
  it('is said at the pack where it is so in every set-up, and else at the loadout', () => {
    const [row] = rowsWith()
    const [bare, guarded] = row!.cells as [LoadoutCell, LoadoutCell]
    const flights = new Map([
      [bare.key, { misfits: ['the plug', 'the strap'] }],
      [guarded.key, { misfits: ['the guards', 'the plug'] }],
    ])
    const said = misfitsOfRow(row!, flights)
    expect(said.all).toEqual(['the plug'])
    expect([said.of(bare), said.of(guarded)]).toEqual([['the strap'], ['the guards']])
    const untold = misfitsOfRow(row!, new Map([[bare.key, { misfits: ['the plug'] }]]))
    expect([untold.all, untold.of(bare), untold.of(guarded)]).toEqual([[], ['the plug'], []])
    expect(misfitsOfRow({ cells: [null, null] }, flights).all).toEqual([])
  })
})

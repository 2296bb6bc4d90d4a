import { describe, expect, it } from 'vitest'
import { applyCommand, makeBuild } from '../../changes/commands'
import { startingCards } from '../../limits/rules'
import { ListingBiasTable } from '../../mass/listings'
import { blankAim, makeLine, makeMass, type Build, type Evidence, type Line, type Slot } from '../../model/ledger'
import { shelfEntry } from './index'

const part = (id: string, slot: Slot, valueG: number, evidence: Evidence = 'weighed', more: Partial<Line> = {}) =>
  makeLine({
    id,
    slot,
    name: id,
    mass: makeMass({ versionId: `v-${id}`, evidence, valueG, ownSpreadG: 0.05 }),
    ...more,
  })
const limit = startingCards.find(({ limit: l }) => l?.unit === 'lb')!
const craft = (lines: Line[], more: Partial<Build> = {}): Build =>
  makeBuild({
    id: 'b',
    name: 'Nougatine',
    lines,
    setups: [{ id: 's', name: 'as built', lineIds: [] }],
    flies: { setupId: 's', packLineId: 'pack' },
    aim: { ...blankAim(), cardIds: [limit.id] },
    ...more,
  })
const entryOf = (build: Build) => shelfEntry(build, startingCards, new ListingBiasTable())

describe('a build on the shelf', () => {
  it('tells its weight by groups, how it is known, and the verdict of the card that binds', () => {
    const entry = entryOf(
      craft([
        part('frame', 'frame', 40),
        part('motors', 'motor', 60, 'listed'),
        part('pack', 'pack', 100),
        makeLine({ id: 'o', slot: 'pad', name: 'pad' }),
      ]),
    )
    expect(entry.massG).toBeCloseTo(200, 6)
    expect(entry.dryG).toBeCloseTo(100, 6)
    expect(entry.segments.map(({ group, massG }) => [group, massG])).toEqual([
      ['Frame', 40],
      ['Drive', 60],
      ['Fixings', 0],
      ['Flight pack', 100],
    ])
    expect(entry).toMatchObject({ lines: 4, weighedLines: 2, openLines: 1, weighedWhole: false, decidedBy: null })
    expect(entry.evidences).toMatchObject({ weighed: 2, listed: 1, guess: 0 })
    expect(entry.limitG).toBeCloseTo(249.4758, 3)
    expect(entry.limitWritten).toBe('0.55 lb')
    expect(entry.headroomG).toBeCloseTo(49.4758, 3)
  })
  it('is over, and says so where that is on purpose', () => {
    const heavy = craft([part('frame', 'frame', 160), part('pack', 'pack', 100)])
    expect(entryOf(heavy)).toMatchObject({ word: 'Over', onPurpose: false })
    const meant = applyCommand(heavy, {
      type: 'flying.set',
      fields: { overOnPurpose: [{ setupId: 's', packLineId: 'pack' }] },
    })
    expect(entryOf(meant)).toMatchObject({ word: 'Over', onPurpose: true })
  })
  it('without a card has no verdict, no limit and no headroom', () => {
    const free = craft([part('frame', 'frame', 40), part('pack', 'pack', 100)], { aim: blankAim() })
    expect(entryOf(free)).toMatchObject({
      word: null,
      limitG: null,
      headroomG: null,
      probability: null,
      limitWritten: '',
    })
  })
  it('known only as a whole is judged by nothing: what is said of its parts is less than it weighs', () => {
    const reference = {
      ...{ massG: 260, spreadG: 1, thrustG: null, priceCents: null, minutes: null },
      ...{ note: '', pictureIds: [] },
    }
    const whole = craft([part('frame', 'frame', 40), part('pack', 'pack', 100)], { reference })
    expect(entryOf(whole)).toMatchObject({ word: null, headroomG: null, limitG: null, reference: { massG: 260 } })
  })
  it('carries its pin and tags, and how far it is put together', () => {
    const build = craft([part('frame', 'frame', 40), part('pack', 'pack', 100)])
    expect(entryOf(build)).toMatchObject({ pinned: false, tags: [], assembled: null })
    const marked = applyCommand(build, { type: 'shelf.set', fields: { pinned: true, tags: ['race'] } })
    const begun = applyCommand(marked, { type: 'assembly.set', fields: {} })
    const entry = entryOf(begun)
    expect(entry).toMatchObject({ pinned: true, tags: ['race'] })
    expect(entry.assembled).toMatchObject({ done: 0, failed: 0 })
    expect(entry.assembled!.of).toBeGreaterThan(3)
  })
})

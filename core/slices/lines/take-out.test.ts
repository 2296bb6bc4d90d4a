import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyCommand, CommandRefused, describeCommand, diffBuilds, makeBuild } from '../../changes/commands'
import { spreadG } from '../../maths/estimate'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { weighedWhole } from '../../mass/report'
import { outcomeOf } from '../../comparing/outcomes'
import { makeLine, makeMass, type Build, type Line } from '../../model/ledger'
import { takenApart } from './index'

const lone = makeLine({
  id: 'rest',
  slot: 'other',
  name: 'The rest of Humbug',
  mass: makeMass({ versionId: 'v', evidence: 'worked out', valueG: 231.4, ownSpreadG: 0.6 }),
})
const humbug = {
  ...{ massG: 231.4, spreadG: 0.6, thrustG: null, priceCents: null, minutes: null },
  ...{ note: '', pictureIds: [] },
}
const ids = { restId: 'rest', versionId: 'v', observationId: 'whole' }
const setups = [{ id: 's', name: 'as built', lineIds: [] }]
function stripped(lines: readonly Line[] = []): Build {
  const apart = takenApart({ name: 'Humbug', lines }, humbug, ids, '2026-11-29T10:00:00.000Z')
  const build = makeBuild({ id: 'b', name: 'Humbug, stripped', lines: [...apart.lines], setups })
  return { ...build, observations: [apart.observation] }
}
const before = makeBuild({ id: 'b', name: 'Humbug, stripped', lines: [lone], setups })
const part = (id: string, valueG: number, more: Partial<Line> = {}): Line =>
  makeLine({
    id,
    slot: 'motor',
    name: `part ${id}`,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG, ownSpreadG: 0.05 }),
    ...more,
  })
const takingOut = (build: Build, line: Line) =>
  applyCommand(build, { type: 'line.takeOut', id: 'rest', line, versionId: `rest-${line.id}` })
const estimates = (build: Build) => estimatesOf(build, new ListingBiasTable())
const totalOf = (build: Build) => estimates(build).sum(build.lines)
const restOf = (build: Build) => estimates(build).of(build.lines.find(({ id }) => id === 'rest')!)

describe('a craft known only as a whole, taken apart', () => {
  it('weighs what was said of it, with its ±, whatever is guessed of its parts', () => {
    const guessed = {
      ...part('motors', 0),
      quantity: 4,
      mass: makeMass({ versionId: 'g', evidence: 'guess', valueG: 10.2 }),
    }
    const build = stripped([guessed])
    expect(totalOf(build).valueG).toBeCloseTo(231.4, 6)
    expect(spreadG(totalOf(build))).toBeCloseTo(0.6, 3)
    expect(restOf(build).valueG).toBeCloseTo(190.6, 6)
    expect(spreadG(restOf(build))).toBeGreaterThan(5)
    expect(weighedWhole(build, { counted: build.lines })).toBe(false)
    expect(outcomeOf(build, new ListingBiasTable())).toBeNull()
  })
  it('keeps its total when a part is named better: the rest gives way', () => {
    const build = takingOut(stripped(), part('motors', 10.2, { quantity: 4 }))
    expect(restOf(build).valueG).toBeCloseTo(190.6, 6)
    expect(build.observations[0]!.subjects.map(({ id }) => id)).toEqual(['rest', 'motors'])
    const better = applyCommand(build, {
      type: 'lines.change',
      changes: [{ id: 'motors', fields: { mass: { ...part('motors', 10.5).mass!, versionId: 'again' } } }],
    })
    expect(totalOf(better).valueG).toBeCloseTo(231.4, 3)
    expect(restOf(better).valueG).toBeCloseTo(189.4, 3)
    expect(spreadG(totalOf(better))).toBeCloseTo(0.6, 3)
  })
  it('is not begun from parts that weigh more than the whole, or that nobody has weighed', () => {
    expect(() => stripped([part('bricks', 240)])).toThrow('240.00 g, and only 231.40 g of it are left')
    expect(() => stripped([{ ...part('bricks', 1), mass: null }])).toThrow('Say what part bricks weighs')
  })
  it('holds its total through any parts in any order', () => {
    let named = 0
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.1, max: 40, noNaN: true }), { maxLength: 10 }), grams => {
        let build = stripped()
        for (const [i, valueG] of grams.entries()) {
          if (build.lines.find(({ id }) => id === 'rest')!.mass!.valueG < valueG) continue
          build = takingOut(build, part(`p${i}`, valueG))
          named++
        }
        expect(totalOf(build).valueG).toBeCloseTo(231.4, 4)
        expect(spreadG(totalOf(build))).toBeCloseTo(0.6, 3)
      }),
      { numRuns: 200 },
    )
    expect(named).toBeGreaterThan(300)
  })
})

describe('parts named out of a line that stands for several', () => {
  it('take their grams off what is left, and the total stays', () => {
    const motors = part('motors', 10.2, { quantity: 4 })
    const after = takingOut(before, motors)
    expect(after.lines.map(({ id }) => id)).toEqual(['rest', 'motors'])
    expect(after.lines[0]!.mass!.valueG).toBeCloseTo(190.6, 9)
    expect(after.lines[0]!.edition).toBe(1)
    expect(totalOf(after).valueG).toBeCloseTo(231.4, 9)
    const command = { type: 'line.takeOut', id: 'rest', line: motors, versionId: 'n' } as const
    expect(describeCommand(command, before, diffBuilds(before, after)).title).toBe(
      'Took part motors × 4, 40.80 g, out of The rest of Humbug',
    )
  })
  it('never weigh more than what is left, are weighed themselves, and come out of one piece', () => {
    expect(() => takingOut(before, part('much', 231.5))).toThrow('231.50 g, and only 231.40 g of it are left')
    expect(() => takingOut(before, { ...part('open', 1), mass: null })).toThrow('Say what part open weighs')
    const two = { ...before, lines: [{ ...lone, quantity: 2 }] }
    expect(() => takingOut(two, part('one', 1))).toThrow(CommandRefused)
    expect(() => takingOut({ ...before, lines: [] }, part('one', 1))).toThrow('no longer in this build')
    expect(takingOut(before, part('all', 231.4)).lines[0]!.mass!.valueG).toBe(0)
  })
  it('leave the total as it was and its ± never smaller, whatever is named in which order', () => {
    let named = 0
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.1, max: 40, noNaN: true }), { maxLength: 12 }), grams => {
        let build: Build = before
        for (const [i, valueG] of grams.entries()) {
          if (build.lines[0]!.mass!.valueG < valueG) continue
          build = takingOut(build, part(`p${i}`, valueG))
          named++
        }
        expect(totalOf(build).valueG).toBeCloseTo(231.4, 6)
        expect(spreadG(totalOf(build))).toBeGreaterThanOrEqual(spreadG(totalOf(before)) - 1e-9)
        expect(build.lines[0]!.mass!.valueG).toBeGreaterThanOrEqual(0)
      }),
      { numRuns: 300 },
    )
    expect(named).toBeGreaterThan(500)
  })
})

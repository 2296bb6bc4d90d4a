import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeBuild } from '../../changes/commands'
import { evidences, makeLine, makeMass, type Line, type Slot } from '../../model/ledger'
import { ListingBiasTable } from '../listings'
import { allLoadouts, estimatesOf, loadoutMasses, loadoutMeanG } from './index'

const anyLine = fc.record({
  slot: fc.constantFrom<Slot>('frame', 'motor', 'camera', 'pack', 'payload', 'guard'),
  evidence: fc.constantFrom(...evidences),
  valueG: fc.double({ min: 0, max: 60, noNaN: true }),
  quantity: fc.integer({ min: 1, max: 5 }),
  ownSpreadG: fc.option(fc.double({ min: 0, max: 3, noNaN: true })),
  role: fc.constantFrom<Line['role']>('airframe', 'airframe', 'fitting', 'payload'),
  state: fc.constantFrom<Line['state']>('fitted', 'fitted', 'fitted', 'off'),
  tie: fc.constantFrom(null, null, 'lens', 'lamp'),
  unsaid: fc.integer({ min: 0, max: 9 }),
  inSetups: fc.constantFrom<readonly string[]>([], ['a'], ['b'], ['b', 'a']),
})
const anyBuild = fc.array(anyLine, { minLength: 1, maxLength: 25 }).map(list =>
  makeBuild({
    id: 'b',
    name: 'b',
    lines: list.map(({ slot, evidence, valueG, quantity, ownSpreadG, role, state, tie, unsaid }, i) =>
      makeLine({
        ...{ id: `l${i}`, slot, name: `line ${i}`, quantity, role, state, tie },
        mass: unsaid === 0 ? null : makeMass({ versionId: `v${i}`, evidence, valueG, ownSpreadG }),
      }),
    ),
    // One set-up names its lines from the last to the first: sums keep the order they are named in.
    setups: ['a', 'b'].map(id => {
      const lineIds = list.flatMap(({ inSetups }, i) => (inSetups.includes(id) ? [`l${i}`] : []))
      return { id, name: id, lineIds: id === 'a' ? lineIds : lineIds.reverse() }
    }),
    flies: { setupId: 'a', packLineId: null },
  }),
)
const honesty = new ListingBiasTable([
  { slot: 'motor', product: 'one', ratio: 1.04 },
  { slot: 'motor', product: 'other', ratio: 1.07 },
  { slot: 'camera', product: 'third', ratio: 0.98 },
])

describe('the mean of a loadout by itself', () => {
  it('is the mean that stands beside its spread, to the last bit', () => {
    let tied = 0
    let listed = 0
    fc.assert(
      fc.property(anyBuild, build => {
        const estimates = estimatesOf(build, honesty)
        for (const choice of [...allLoadouts(build), { setupId: 'gone', packLineId: 'gone' }]) {
          const [whole] = loadoutMasses(build, [choice], estimates)
          expect(Object.is(loadoutMeanG(build, choice, honesty), whole!.massG)).toBe(true)
        }
        const optional = build.lines.filter(line => line.tie && line.role !== 'airframe' && line.state === 'fitted')
        if (build.lines.some(line => line.role === 'airframe' && optional.some(one => one.tie === line.tie))) tied++
        if (build.lines.some(line => line.mass?.evidence === 'listed' && line.state === 'fitted')) listed++
      }),
      { numRuns: 300 },
    )
    expect(tied).toBeGreaterThan(60)
    expect(listed).toBeGreaterThan(60)
  })
  it('is left to the estimates where a weighing of several lines, or one beside a line’s own, may move it', () => {
    const mass = makeMass({ versionId: 'v', evidence: 'weighed', valueG: 10 })
    const line = makeLine({ id: 'frame', slot: 'frame', name: 'frame', mass })
    const alone = makeBuild({ id: 'b', name: 'b', lines: [line], setups: [{ id: 's', name: 's', lineIds: [] }] })
    const choice = { setupId: 's', packLineId: null }
    expect(loadoutMeanG(alone, choice, honesty)).toBe(10)
    const beside = { ...line, further: [{ mass: { ...mass, versionId: 'w', valueG: 11 }, of: null }] }
    expect(loadoutMeanG({ ...alone, lines: [beside] }, choice, honesty)).toBeNull()
  })
})

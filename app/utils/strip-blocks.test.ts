import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeLine, makeMass, type Line } from '#core/model/ledger'
import type { Estimate } from '#core/maths/estimate'
import { isDrawn, stripBlocks } from './strip-blocks'

const lineOf = (id: string, grams: number | null): Line =>
  makeLine({
    id,
    slot: 'screw',
    name: id,
    mass: grams === null ? null : makeMass({ versionId: id, evidence: 'weighed', valueG: grams, resolutionG: 0.01 }),
  })
const estimates = new Map<Line, Estimate>()
function estimateOf(line: Line): Estimate {
  const known = estimates.get(line) ?? { valueG: line.mass?.valueG ?? 0, contributions: {} }
  estimates.set(line, known)
  return known
}
const groupsOf = (sizes: readonly number[], grams: (n: number) => number | null) => {
  let n = 0
  return sizes.map((size, group) => ({
    lines: Array.from({ length: size }, () => lineOf(`${group}-${n}`, grams(n++))),
  }))
}

describe('blocks of the strip', () => {
  it('hold every line once and in order, each block from where those before it end', () => {
    let several = 0
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { maxLength: 6 }), sizes => {
        const groups = groupsOf(sizes, n => (n % 5 === 0 ? null : 0.5 + (n % 7)))
        const blocks = stripBlocks(groups, estimateOf)
        const all = groups.flatMap(group => group.lines)
        expect(blocks.flatMap(block => block.lines)).toEqual(all)
        if (blocks.length > groups.length) several++
        let grams = 0
        let drawn = 0
        for (const block of blocks) {
          expect(block.fromG).toBeCloseTo(grams, 9)
          expect(block.firstIndex).toBe(drawn)
          grams += block.lines.reduce((sum, line) => sum + (line.mass?.valueG ?? 0), 0)
          drawn += block.lines.filter(line => isDrawn(line, estimateOf(line))).length
        }
      }),
    )
    expect(several).toBeGreaterThan(10)
  })

  it('are the same as before where nothing in them changed, and begin later when a line before them grew', () => {
    const groups = groupsOf([40, 3], () => 1)
    const before = stripBlocks(groups, estimateOf)
    const heavier = { lines: [lineOf('0-0', 3.5), ...groups[0]!.lines.slice(1)] }
    const after = stripBlocks([heavier, groups[1]!], estimateOf, before)
    expect(after.map(({ lines }, i) => lines === before[i]!.lines)).toEqual([false, true, true, true])
    expect(after.map(({ estimates: of }, i) => of === before[i]!.estimates)).toEqual([false, true, true, true])
    expect(after.map(({ fromG }, i) => fromG - before[i]!.fromG)).toEqual([0, 2.5, 2.5, 2.5])
  })

  it('a line without grams, or of none, has no segment', () => {
    expect(isDrawn(lineOf('a', null), { valueG: 0, contributions: {} })).toBe(false)
    expect(isDrawn(lineOf('b', 0), { valueG: 0, contributions: {} })).toBe(false)
    expect(isDrawn(lineOf('c', 0.01), { valueG: 0.01, contributions: {} })).toBe(true)
  })
})

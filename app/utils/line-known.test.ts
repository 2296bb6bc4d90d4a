import { describe, expect, it } from 'vitest'
import { makeBuild } from '#core/changes/commands'
import { isSharedCause } from '#core/mass/evidence'
import { ListingBiasTable } from '#core/mass/listings'
import { estimatesOf } from '#core/mass/loadout'
import { makeLine, makeMass, subjectOf, type Line } from '#core/model/ledger'
import { doubtWords, movedWords, toldCauses } from './line-known'

const listed = (id: string, valueG: number): Line =>
  makeLine({
    id,
    slot: 'motor',
    name: id,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'listed', valueG, resolutionG: 0.1 }),
    listing: { valueG, resolutionG: 0.1 },
  })

describe('where a spread comes from', () => {
  it('every cause in words, the largest first; what cannot be seen in the last digit is left out', () => {
    const contributions = {
      'product:x': 0.2,
      'listing:motor': -0.4,
      'digit:x': 0.03,
      'pieces:x': 0.0004,
      'gain:unchecked': 0.1,
      'gain:check:c': 0.05,
      'gain:reference:r': 0.06,
      'tared:t': 0.02,
      'something new': 0.01,
    }
    expect(toldCauses({ contributions }).map(({ words, isShared }) => [words, isShared])).toEqual([
      ['how this kind is listed', true],
      ['the part itself', false],
      ['the unchecked scale', true],
      ['the reference mass', true],
      ['the check of the scale', true],
      ['last digit of the listing', false],
      ['the tare', true],
      ['something new', false],
    ])
  })
  it('of a listing: what its kind has in common is shared, what is its own is not', () => {
    const build = makeBuild({ id: 'b', name: 'b', lines: [listed('a', 30)] })
    const causes = toldCauses(estimatesOf(build, new ListingBiasTable()).of(build.lines[0]!))
    expect(causes.length).toBeGreaterThan(1)
    for (const cause of causes) expect(cause.isShared).toBe(isSharedCause(cause.key))
    expect(new Set(causes.map(({ isShared }) => isShared))).toEqual(new Set([true, false]))
    const grams = causes.map(one => Math.abs(one.grams))
    expect(grams).toEqual([...grams].sort((a, b) => b - a))
  })
})

describe('what moves a line', () => {
  const [a, b] = [listed('a', 30), listed('b', 30)]
  const whole = {
    id: 'o',
    title: 'Motor a, alone',
    takenAt: '2026-05-02T10:00:00.000Z',
    scaleId: 's',
    scaleName: 'pocket scale',
    checkId: null,
    displaysG: [31],
    tareDisplayG: null,
    valueG: 31,
    contributions: { 'display o': 0.01 },
    pictureIds: [],
    subjects: [subjectOf(a)],
    state: 'taken in' as const,
  }
  const build = makeBuild({ id: 'b', name: 'b', lines: [a, b], observations: [whole] })
  const estimates = estimatesOf(build, new ListingBiasTable())
  const told = (line: Line) =>
    movedWords(line, build, estimates.movedBy(line), toldCauses(estimates.before(line))).map(({ words }) => words)

  it('is said by the name of the weighing; of a line that was not on the pan, through what both share', () => {
    expect(told(a)).toEqual(['Moved by “Motor a, alone”'])
    expect(told(b)).toEqual(['Moved by “Motor a, alone”, through how this kind is listed'])
    const [moved] = movedWords(a, build, estimates.movedBy(a), [])
    expect(estimates.before(a).valueG + moved!.shiftG).toBeCloseTo(estimates.of(a).valueG, 9)
  })
  it('weighing a line again moves it by that, and another one by weighing the first again', () => {
    const again = {
      ...a,
      further: [{ mass: makeMass({ versionId: 'again', evidence: 'weighed', valueG: 31 }) }],
    } as unknown as Line
    const moved = [{ id: 'again', shiftG: 0.4 }]
    const of = { lines: [again, b], observations: [] }
    expect(movedWords(again, of, moved, [])[0]!.words).toBe('Moved by weighing it again')
    expect(movedWords(b, of, moved, [])[0]!.words).toBe('Moved by weighing a again, through a cause they share')
    expect(movedWords(b, { lines: [b], observations: [] }, moved, [])[0]!.words).toContain(
      'weighing another line again',
    )
    expect(movedWords(b, of, [{ id: 'again', shiftG: 0.004 }], [])).toEqual([])
  })
})

describe('a listing that a weighing speaks against', () => {
  it('is a slip, or far from its kind', () => {
    const [slip, unusual] = (['slip', 'unusual'] as const).map(why =>
      doubtWords({ why, weighedG: 3.1, listedG: 31 } as Parameters<typeof doubtWords>[0]),
    )
    expect(slip).toMatch(/^3\.10 g weighed, 31\.00 g listed: is that a slip of a digit\?/)
    expect(unusual).toMatch(/^3\.10 g weighed, 31\.00 g listed: far from how others/)
  })
})

import { describe, expect, it } from 'vitest'
import { sigmaG, type Estimate } from '../../maths/estimate'
import { lineEstimate, twinPartG } from '../../mass/evidence'
import { ListingBiasTable, listingObservations } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { evaluateCheck, type Scale } from '../../mass/scale'
import { placeOf, takeByDifference, takeOneByOne, takeTogether } from '../../deciding/weigh'
import { buildOf, lineOf, taking, weighOne } from '../../deciding/weigh/testing'
import { asTwin, makeLine, twinOfLine, weighedElsewhere, type Line } from './index'

const nobody = new ListingBiasTable()
const scale: Scale = {
  id: 's',
  name: 's',
  resolutionG: 0.01,
  capacityG: 300,
  repeatabilityG: 0.008,
  checkIntervalDays: 30,
}
const ready = {
  scale,
  name: 's',
  check: {
    id: 'c',
    result: evaluateCheck(scale, [
      { references: [], displayG: 0 },
      { references: [{ id: 'r', massG: 100, toleranceG: 0.02 }], displayG: 100 },
    ]),
  },
}
const motors = makeLine({
  id: 'motors',
  slot: 'motor',
  name: 'motors',
  quantity: 4,
  listing: { valueG: 9.3, resolutionG: 0.1 },
})
let made = 0
const newId = () => `twin-${made++}`
const of = (line: Line): Estimate => lineEstimate(line, nobody)

describe('a twin', () => {
  const one = { ...motors, mass: takeOneByOne(taking(ready), motors, [9.61, 9.58, 9.67, 9.62], 'as supplied') }
  const together = { ...motors, mass: takeTogether(taking(ready), motors, [38.48], 4, 'as supplied') }
  it('has the mean of the pieces it was copied from, the causes of their scale, and a part of its own', () => {
    const twin = twinOfLine(one, newId)
    expect(twin.mass).toMatchObject({ evidence: 'twin', versionId: 'twin-0' })
    expect(of(twin).valueG).toBe(of(one).valueG)
    for (const [key, c] of Object.entries(of(one).contributions)) expect(of(twin).contributions[key]).toBe(c)
    // sₚ of 9.61, 9.58, 9.67, 9.62: variance 0.0014, (4·(0.0962)² + 3·0.0014)/7, root 0.076733; times √(4 + 16/4).
    expect(of(twin).contributions['twin:twin-0']).toBeCloseTo(0.076733 * Math.sqrt(8), 3)
    expect(sigmaG(of(twin))).toBeGreaterThan(sigmaG(of(one)))
  })
  it('of pieces that were never weighed one by one differs by one per cent of a piece', () => {
    const twin = twinOfLine(together, newId)
    expect(of(twin).contributions[`twin:${twin.mass!.versionId}`]).toBeCloseTo(
      twinPartG(4, 4, (0.01 * of(together).valueG) / 4),
      9,
    )
  })
  it('is not corrected for listings and teaches nothing; weighed itself, the weighing takes its place', () => {
    const twin = twinOfLine(together, newId)
    expect(listingObservations([together])).toHaveLength(1)
    expect(listingObservations([twin])).toEqual([])
    const teaching = new ListingBiasTable(listingObservations([together, { ...together, id: 'other', name: 'other' }]))
    expect(lineEstimate(twin, teaching)).toEqual(of(twin))
    const build = buildOf([twin])
    const mass = takeTogether(taking(ready), twin, [38.9], 4, 'as supplied')
    expect(placeOf(mass, twin, build, estimatesOf(build, nobody), nobody)).toBe('estimate')
    expect(lineOf(weighOne(build, 'motors', 38.9, ready, 'estimate'), 'motors').mass?.evidence).toBe('weighed')
  })
  it('trimmed by difference stays a twin, with its own part counted once', () => {
    const twin = twinOfLine(together, newId)
    const mass = takeByDifference(taking(ready), twin, 1.6, 0, nobody)
    const trimmed = of({ ...twin, mass })
    expect(mass.evidence).toBe('twin')
    expect(trimmed.valueG).toBeCloseTo(of(twin).valueG - 1.6 / ready.check.result.gain, 9)
    expect(Math.abs(sigmaG(trimmed) - sigmaG(of(twin)))).toBeLessThan(0.002)
  })
  it('of what was trimmed by difference before the copy has a part of its own all the same', () => {
    const trimmed = { ...together, mass: takeByDifference(taking(ready), together, 1.6, 0, nobody) }
    const twin = twinOfLine(trimmed, newId)
    expect(twin.mass).toMatchObject({ evidence: 'twin', weighing: { method: 'by difference' } })
    expect(of(twin).contributions[`twin:${twin.mass!.versionId}`]).toBeCloseTo(
      twinPartG(4, 4, (0.01 * of(trimmed).valueG) / 4),
      9,
    )
    expect(sigmaG(of(twin))).toBeGreaterThan(10 * sigmaG(of(trimmed)))
  })
  it('what was copied before copies were twins is found by the weighing it shares, and asked about', () => {
    const praline = {
      id: 'a',
      name: 'Praline',
      lines: [together, makeLine({ id: 'guess', slot: 'other', name: 'guess' })],
    }
    const copy = { id: 'b', name: 'Copy', lines: praline.lines }
    expect(weighedElsewhere(copy, [praline])).toEqual({ from: 'Praline', lineIds: ['motors'] })
    expect(
      weighedElsewhere(
        { ...copy, lines: copy.lines.map(line => (line.mass ? { ...line, mass: asTwin(line.mass, newId()) } : line)) },
        [praline],
      ),
    ).toBeNull()
    expect(
      weighedElsewhere({ ...copy, lines: [{ ...together, partId: 'drawer' }] }, [
        { ...praline, lines: [{ ...together, partId: 'drawer' }] },
      ]),
    ).toBeNull()
  })
})

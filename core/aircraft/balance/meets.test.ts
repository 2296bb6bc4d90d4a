import { describe, expect, it } from 'vitest'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { noGear, fitReport } from '../fit'
import type { Build, PiecePlace } from '../../model/ledger'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import { balanceOf, layoutOf, meetingsOf, packLowestMm, placeOutcomes } from './index'

const marzipan = marzipanFile.build as unknown as Build
const nobody = new ListingBiasTable()
const withPlace = (lineId: string, [xMm, yMm, zMm]: readonly [number, number, number], turnDeg = 0): Build => {
  const place: PiecePlace = { lineId, number: 0, xMm, yMm, zMm, sigmaMm: 1, turnDeg, tiltDeg: 0 }
  const others = marzipan.places!.pieces.filter(one => one.lineId !== lineId)
  return { ...marzipan, places: { ...marzipan.places!, pieces: [...others, place] } }
}
const meetings = (build: Build) =>
  meetingsOf(layoutOf(build, build.flies, estimatesOf(build, nobody))).map(
    ({ kind, pieces: [a, b] }) => `${a.lineId} ${kind} ${b.lineId}`,
  )
const layout = balanceOf(marzipan, marzipan.flies, estimatesOf(marzipan, nobody)).layout
const prop = layout.pieces.find(piece => piece.slot === 'propeller')!

describe('what is in the way of what', () => {
  it('as the demo has it nothing is', () => {
    expect(meetings(marzipan)).toEqual([])
  })
  it('a camera that is put into a prop’s disc is in the props; above it is not', () => {
    const [x, y, z] = prop.atMm
    expect(meetings(withPlace('camera', [x, y, z]))).toEqual(['camera in the props props'])
    expect(meetings(withPlace('camera', [x, y, z + 40]))).toEqual([])
    const edge = prop.sizeMm[0] / 2
    const camera = layout.pieces.find(piece => piece.lineId === 'camera')!
    const out = Math.sign(y) * (edge + camera.sizeMm[1] / 2)
    expect(meetings(withPlace('camera', [x, y + out + Math.sign(y) * 0.5, z]))).toEqual([])
    expect(meetings(withPlace('camera', [x, y + out - Math.sign(y) * 3, z]))).toEqual(['camera in the props props'])
  })
  it('a pack that is turned reaches where it did not', () => {
    const [x, y, z] = prop.atMm
    const pack = layout.pieces.find(piece => piece.slot === 'pack')!
    const beside = Math.sign(y) * (Math.abs(y) + prop.sizeMm[0] / 2 + pack.sizeMm[1] / 2 + 2)
    expect(meetings(withPlace('p7', [x, beside, z]))).not.toContain('p7 in the props props')
    expect(meetings(withPlace('p7', [x, beside, z], 90))).toContain('p7 in the props props')
  })
  it('two placed pieces of known size in one place are told once, and nothing of what is assumed', () => {
    const gps = marzipan.places!.pieces.find(one => one.lineId === 'gps')!
    const sized = (build: Build): Build => ({
      ...build,
      lines: build.lines.map(line =>
        line.id === 'gps' || line.id === 'camera'
          ? { ...line, properties: { ...line.properties, lengthMm: 14, widthMm: 14, heightMm: 14 } }
          : line,
      ),
    })
    const both = sized(withPlace('camera', [gps.xMm + 2, gps.yMm, gps.zMm]))
    expect(meetings(both)).toHaveLength(1)
    const unplaced: Build = {
      ...both,
      places: { ...both.places!, pieces: both.places!.pieces.filter(one => one.lineId !== 'gps') },
    }
    expect(meetings(unplaced)).toEqual([])
  })
  it('a pack below lands first, and Fit says how long legs would have to be; above it says nothing', () => {
    const estimates = estimatesOf(marzipan, nobody)
    const below: Build = { ...marzipan, places: { ...marzipan.places!, packSide: 'below' } }
    const lowest = packLowestMm(layoutOf(below, below.flies, estimates))!
    const pack = layout.pieces.find(piece => piece.slot === 'pack')!
    expect(lowest.byMm).toBeGreaterThan(pack.sizeMm[2] - 5)
    expect(placeOutcomes(below, below.flies, estimates).map(({ check }) => check)).toEqual(['placed-lands'])
    expect(placeOutcomes(marzipan, marzipan.flies, estimates)).toEqual([])
    // Something as low as that keeps it off the ground.
    const legs: Build = {
      ...below,
      places: {
        ...below.places!,
        pieces: below.places!.pieces.map(one => (one.lineId === 'cradle' ? { ...one, zMm: -lowest.byMm - 4 } : one)),
      },
    }
    expect(placeOutcomes(legs, legs.flies, estimates)).toEqual([])
  })
  it('comes up in Fit as a clash, in the set-ups it is in, and can be lived with', () => {
    const [x, y, z] = prop.atMm
    const build = withPlace('camera', [x, y, z])
    const estimates = estimatesOf(build, nobody)
    const report = fitReport(build, build.flies, noGear, choice => placeOutcomes(build, choice, estimates))
    const found = report.findings.find(({ check }) => check === 'placed-in-props')!
    expect(found).toMatchObject({
      id: 'placed-in-props:camera+props',
      severity: 'clash',
      title: 'Digital nano camera, 14 mm is in the props',
      onlyIn: [],
    })
    expect(report.clashes).toBe(fitReport(build, build.flies, noGear).clashes + 1)
  })
})

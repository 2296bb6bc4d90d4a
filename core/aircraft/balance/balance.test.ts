import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chanceOf } from '../../maths/numbers'
import { estimateOf } from '../../maths/estimate'
import {
  centreOf,
  clearTilts,
  ellipse95,
  gyrationMm,
  hoverLoads,
  inertiaAbout,
  inPicture,
  leastMoves,
  lensFrom,
  levelShare,
  packSlide,
  sigmasOf,
  smallestTilt,
  type Disc,
  type Lens,
  type Piece,
  type Rotor,
  type Vec3,
} from './index'

const piece = (
  key: string,
  massG: number,
  at: Vec3,
  sigma: number | Vec3,
  size: Vec3,
  more: Partial<Piece> = {},
): Piece => ({
  key,
  lineId: key,
  number: 0,
  slot: 'other',
  name: key,
  mass: estimateOf(massG, {}),
  atMm: at,
  sigmaMm: typeof sigma === 'number' ? [sigma, sigma, sigma] : sigma,
  sizeMm: size,
  shape: 'box',
  turnDeg: 0,
  tiltDeg: 0,
  isAssumed: false,
  isSizeAssumed: false,
  ...more,
})
const corners = [
  [45, -45],
  [45, 45],
  [-45, 45],
  [-45, -45],
] as const
/** A craft worked out by hand beside the code. */
const craft: Piece[] = [
  piece('plate', 40, [0, 0, -2], 0.5, [110, 110, 3], { mass: estimateOf(40, { a: 0.05 }) }),
  ...corners.map(([x, y], i) =>
    piece(`motor${i}`, 11, [x, y, 4], 0.3, [18, 18, 12], { shape: 'can', mass: estimateOf(11, { motors: 0.04 }) }),
  ),
  piece('board', 9, [0, 0, 8], 0.5, [33, 33, 8], { turnDeg: 45, mass: estimateOf(9, { b: 0.03 }) }),
  piece('video', 17, [-30, 0, 14], [2, 1, 1], [30, 30, 12], { mass: estimateOf(17, { v: 1 }) }),
  piece('camera', 5, [38, 0, 14], [1, 0.5, 1], [18, 19, 19], { mass: estimateOf(5, { c: 0.02 }) }),
  piece('pack', 95, [-3, 0, 30], 1, [70, 35, 28], { mass: estimateOf(95, { p: 0.03 }) }),
]
const rotors: Rotor[] = corners.map(([xMm, yMm], i) => ({ xMm, yMm, spin: i % 2 === 0 ? 1 : -1 }))

describe('the worked example of a craft', () => {
  const centre = centreOf(craft)!
  it('has its centre of gravity and its spread', () => {
    expect(centre.massG).toBe(210)
    expect(centre.atMm.map(mm => mm.toFixed(5))).toEqual(['-2.88095', '0.00000', '15.83810'])
    expect(sigmasOf(centre).map(mm => mm.toFixed(5))).toEqual(['0.50857', '0.47102', '0.47166'])
  })
  it('has its tensor of inertia and radii of gyration', () => {
    const inertia = inertiaAbout(craft, centre.atMm)
    expect([inertia[0][0], inertia[1][1], inertia[2][2], inertia[0][2]].map(g => g.toFixed(3))).toEqual([
      '188005.995',
      '238716.352',
      '335239.190',
      '3447.952',
    ])
    expect(gyrationMm(inertia, centre.massG).map(mm => mm.toFixed(4))).toEqual(['29.9210', '33.7156', '39.9547'])
  })
  it('loads its rotors, and keeps so much of full throttle', () => {
    const hover = hoverLoads(rotors, 210, [centre.atMm[0], centre.atMm[1]])
    if ('problem' in hover) throw new Error(hover.problem)
    expect(hover.loadsG.map(g => g.toFixed(4))).toEqual(['49.1389', '49.1389', '55.8611', '55.8611'])
    expect(levelShare(hover.loadsG).toFixed(5)).toBe('0.93983')
    expect(levelShare(hover.loadsG, [200, 200, 200, 200])).toBeCloseTo(levelShare(hover.loadsG), 12)
  })
  it('hangs true with its pack moved, or with pack and video moved as little as can be', () => {
    const slide = packSlide({ xMm: -3, massG: 95 }, 210, centre.atMm[0], null)!
    expect(slide.wantedMm.toFixed(5)).toBe('3.36842')
    expect([slide.missesMm, slide.remainsMm]).toEqual([0, expect.closeTo(0, 12)])
    const { movesMm, missingGmm } = leastMoves(
      [
        { massG: 17, weight: 1, leastMm: -5, mostMm: 40 },
        { massG: 95, weight: 4, leastMm: 0, mostMm: 8 },
      ],
      -210 * centre.atMm[0],
    )
    expect(movesMm.map(mm => mm.toFixed(5))).toEqual(['4.04086', '5.64532'])
    expect(missingGmm).toBeCloseTo(0, 6)
  })
  it('solder spread over the craft changes nothing in the slide', () => {
    expect(packSlide({ xMm: -3, massG: 95 }, 210, centreOf(craft)!.atMm[0], null)!.wantedMm.toFixed(3)).toBe('3.368')
  })
})

const mm = (reach: number) => fc.double({ min: -reach, max: reach, noNaN: true })
const anyPiece = fc
  .record({
    massG: fc.double({ min: 0.1, max: 100, noNaN: true }),
    at: fc.tuple(mm(150), mm(150), mm(60)),
    sigma: fc.double({ min: 0, max: 10, noNaN: true }),
    size: fc.tuple(
      fc.double({ min: 1, max: 90, noNaN: true }),
      fc.double({ min: 1, max: 90, noNaN: true }),
      fc.double({ min: 1, max: 40, noNaN: true }),
    ),
    turnDeg: fc.double({ min: 0, max: 360, noNaN: true }),
    own: fc.double({ min: 0, max: 2, noNaN: true }),
  })
  .map(given => given)
const anyCraft = fc.array(anyPiece, { minLength: 2, maxLength: 12 }).map(list =>
  list.map((given, i) =>
    piece(`p${i}`, given.massG, given.at as Vec3, given.sigma, given.size as Vec3, {
      turnDeg: given.turnDeg,
      mass: estimateOf(given.massG, { [`own${i}`]: given.own }),
    }),
  ),
)
const movedBy = (pieces: readonly Piece[], [x, y, z]: Vec3) =>
  pieces.map(one => ({ ...one, atMm: [one.atMm[0] + x, one.atMm[1] + y, one.atMm[2] + z] as const }))

describe('properties of the centre and the tensor', () => {
  it('moving everything moves the centre by as much and changes neither spread nor tensor', () => {
    fc.assert(
      fc.property(anyCraft, fc.tuple(mm(80), mm(80), mm(80)), (pieces, by) => {
        const [before, after] = [centreOf(pieces)!, centreOf(movedBy(pieces, by as Vec3))!]
        for (const axis of [0, 1, 2] as const) expect(after.atMm[axis] - before.atMm[axis]).toBeCloseTo(by[axis], 8)
        expect(sigmasOf(after)[0]).toBeCloseTo(sigmasOf(before)[0], 8)
        const [one, two] = [inertiaAbout(pieces, before.atMm), inertiaAbout(movedBy(pieces, by as Vec3), after.atMm)]
        expect(two[0][1] / one[0][0]).toBeCloseTo(one[0][1] / one[0][0], 8)
        expect(two[2][2] / one[2][2]).toBeCloseTo(1, 8)
      }),
    )
  })
  it('turning the craft about the upright turns the tensor: its trace and its upright stay, its other axes follow', () => {
    fc.assert(
      fc.property(anyCraft, fc.double({ min: -180, max: 180, noNaN: true }), (pieces, deg) => {
        const [cos, sin] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)]
        const turned = pieces.map(one => ({
          ...one,
          turnDeg: one.turnDeg + deg,
          atMm: [one.atMm[0] * cos - one.atMm[1] * sin, one.atMm[0] * sin + one.atMm[1] * cos, one.atMm[2]] as const,
        }))
        const [a, b] = [inertiaAbout(pieces, centreOf(pieces)!.atMm), inertiaAbout(turned, centreOf(turned)!.atMm)]
        const scale = a[2][2]
        expect(b[2][2] / scale).toBeCloseTo(1, 8)
        const wantedXx = a[0][0] * cos ** 2 - 2 * a[0][1] * cos * sin + a[1][1] * sin ** 2
        const wantedXy = (a[0][0] - a[1][1]) * cos * sin + a[0][1] * (cos ** 2 - sin ** 2)
        expect(b[0][0] / scale).toBeCloseTo(wantedXx / scale, 8)
        expect(b[0][1] / scale).toBeCloseTo(wantedXy / scale, 8)
      }),
    )
  })
  it('each moment is at most the sum of the other two', () => {
    fc.assert(
      fc.property(anyCraft, pieces => {
        const i = inertiaAbout(pieces, centreOf(pieces)!.atMm)
        const [x, y, z] = [i[0][0], i[1][1], i[2][2]]
        expect(x + y - z).toBeGreaterThan(-1e-9 * z)
        expect(y + z - x).toBeGreaterThan(-1e-9 * z)
        expect(x + z - y).toBeGreaterThan(-1e-9 * z)
      }),
    )
  })
  it('a gain that all masses have in common moves nothing', () => {
    fc.assert(
      fc.property(anyCraft, fc.double({ min: -0.05, max: 0.05, noNaN: true }), (pieces, gain) => {
        const same = pieces.map(one => ({
          ...one,
          mass: estimateOf(one.mass.valueG, { ...one.mass.contributions, gain: one.mass.valueG * gain }),
        }))
        for (const axis of [0, 1, 2] as const)
          expect(sigmasOf(centreOf(same)!)[axis]).toBeCloseTo(sigmasOf(centreOf(pieces)!)[axis], 6)
      }),
    )
  })
  it('a mirrored pair that is placed together errs forward as one and cancels across', () => {
    const pair = [1, -1].map(sign =>
      piece(`arm${sign}`, 10, [0, 40 * sign, 0], 2, [5, 5, 5], { placedWith: { name: 'arms', signs: [1, sign, 1] } }),
    )
    expect(sigmasOf(centreOf(pair)!)).toEqual([2, 0, 2])
    const apart = pair.map(one => ({ ...one, placedWith: undefined }))
    expect(sigmasOf(centreOf(apart)!)[0]).toBeCloseTo(Math.SQRT2, 12)
  })
  it('the 95 % ellipse comes from both directions together', () => {
    const { longMm, shortMm, turnDeg } = ellipse95({
      covarianceMm2: [
        [5, 3, 0],
        [3, 5, 0],
        [0, 0, 1],
      ],
    })
    expect([longMm, shortMm, turnDeg].map(v => v.toFixed(3))).toEqual(['6.923', '3.462', '45.000'])
  })
  it('nothing, or what weighs nothing, has no centre; NaN and negative sizes are refused by name', () => {
    expect([centreOf([]), centreOf([piece('air', 0, [1, 1, 1], 1, [1, 1, 1])])]).toEqual([null, null])
    expect(() => centreOf([piece('x', 1, [NaN, 0, 0], 1, [1, 1, 1])])).toThrow('x.at must be a finite number')
    expect(() => centreOf([piece('x', 1, [0, 0, 0], -1, [1, 1, 1])])).toThrow('x.sigma must be zero or more')
    expect(() => centreOf([piece('x', 1, [0, 0, 0], 1, [1, Infinity, 1])])).toThrow('x.size must be zero or more')
  })
})

describe('hover loads', () => {
  it('add up to the weight and balance, with four, six and eight rotors', () => {
    const hits = { four: 0, more: 0, down: 0 }
    fc.assert(
      fc.property(
        fc.constantFrom(4, 6, 8),
        fc.double({ min: 20, max: 200, noNaN: true }),
        fc.tuple(mm(60), mm(60)),
        (count, armMm, centre) => {
          const ring: Rotor[] = Array.from({ length: count }, (_, i) => {
            const angle = (2 * Math.PI * (i + 0.5)) / count
            return { xMm: armMm * Math.cos(angle), yMm: armMm * Math.sin(angle), spin: i % 2 === 0 ? 1 : -1 }
          })
          const hover = hoverLoads(ring, 200, centre)
          if ('problem' in hover) {
            expect(hover.problem).toBe('pulls down')
            hits.down++
          }
          const loads = hover.loadsG!
          hits[count === 4 ? 'four' : 'more']++
          expect(loads.reduce((sum, load) => sum + load, 0)).toBeCloseTo(200, 6)
          expect(loads.reduce((sum, load, i) => sum + load * ring[i]!.xMm, 0)).toBeCloseTo(200 * centre[0], 4)
          expect(loads.reduce((sum, load, i) => sum + load * ring[i]!.yMm, 0)).toBeCloseTo(200 * centre[1], 4)
          expect(loads.reduce((sum, load, i) => sum + load * ring[i]!.spin, 0)).toBeCloseTo(0, 6)
        },
      ),
    )
    expect(Math.min(hits.four, hits.more, hits.down)).toBeGreaterThan(3)
  })
  it.each([
    ['three rotors', rotors.slice(0, 3), 'few rotors'],
    ['four on one spot', rotors.map(rotor => ({ ...rotor, xMm: 40, yMm: 40 })), 'in one line'],
    ['four in one line', rotors.map((rotor, i) => ({ ...rotor, xMm: 30 * i, yMm: 0 })), 'in one line'],
    ['spins that do not add up', rotors.map(rotor => ({ ...rotor, spin: 1 as const })), 'spins'],
  ] as const)('%s are named', (_what, list, problem) => expect(hoverLoads(list, 200, [0, 0])).toEqual({ problem }))
  it('a centre outside the rotors would have one pull down', () =>
    expect(hoverLoads(rotors, 200, [60, 0])).toMatchObject({ problem: 'pulls down' }))
  it('with unequal rotors the one that is at its end first decides', () =>
    expect(levelShare([50, 50, 50, 50], [100, 200, 200, 200])).toBeCloseTo(100 / 50 / (700 / 200), 12))
})

describe('slide and moves', () => {
  it('the slide leaves nothing where it is within the tray, and says by how much it misses where not', () => {
    const hits = { within: 0, misses: 0 }
    fc.assert(
      fc.property(anyCraft, fc.tuple(mm(40), fc.double({ min: 0, max: 60, noNaN: true })), (pieces, [least, room]) => {
        const centre = centreOf(pieces)!
        const [pack] = pieces
        const given = { xMm: pack!.atMm[0], massG: pack!.mass.valueG }
        const slide = packSlide(given, centre.massG, centre.atMm[0], { leastMm: least, mostMm: least + room })!
        const moved = centreOf([{ ...pack!, atMm: [slide.toMm, pack!.atMm[1], pack!.atMm[2]] }, ...pieces.slice(1)])!
        expect(moved.atMm[0]).toBeCloseTo(slide.remainsMm, 6)
        if (slide.missesMm === 0) expect(moved.atMm[0]).toBeCloseTo(0, 6)
        hits[slide.missesMm === 0 ? 'within' : 'misses']++
      }),
      { numRuns: 300 },
    )
    expect(Math.min(hits.within, hits.misses)).toBeGreaterThan(5)
  })
  it('without a pack there is no slide', () => expect(packSlide(null, 200, 3, null)).toBeNull())
  it('what cannot be reached within the bounds is said, in both directions', () => {
    const bounded = [{ massG: 10, weight: 1, leastMm: -2, mostMm: 3 }]
    expect(leastMoves(bounded, 50)).toEqual({ movesMm: [3], missingGmm: 20 })
    expect(leastMoves(bounded, -50)).toEqual({ movesMm: [-2], missingGmm: -30 })
    expect(() => leastMoves([{ ...bounded[0]!, massG: 0 }], 1)).toThrow('massG must be above zero')
  })
})

const camera: Vec3 = [34, 0, 18]
const pair = (x: number, y: number, z: number, more: Partial<Disc> = {}): Disc[] =>
  [1, -1].map(sign => ({ atMm: [x, y * sign, z], radiusMm: 38.1, holeMm: 0, ...more }))
const straight: Lens = { kind: 'straight', acrossDeg: 118, upDeg: 92 }
const wide: Lens = { kind: 'wide', diagonalDeg: 155, aspect: 4 / 3 }

describe('what the lens sees', () => {
  it.each([
    ['a straight-line lens', straight, pair(53, 53, 6), '34.132', 34.2],
    ['a wide lens', wide, pair(53, 53, 6), '57.119', 57.2],
    ['discs out of the picture', straight, pair(25, 60, 6), '0.000', 0],
  ] as const)('%s has its smallest tilt', (_what, lens, discs, deg, shownDeg) => {
    const tilt = smallestTilt(clearTilts(lens, camera, discs))!
    expect([tilt.deg.toFixed(3), tilt.shownDeg]).toEqual([deg, shownDeg])
  })
  it('one angle gives the others by the aspect', () => {
    expect(lensFrom('wide', { of: 'across', deg: 124 }, 4 / 3)).toMatchObject({ diagonalDeg: expect.closeTo(155, 9) })
    expect(lensFrom('straight', { of: 'across', deg: 90 }, 4 / 3)).toMatchObject({ upDeg: expect.closeTo(73.7398, 4) })
    expect(lensFrom('straight', { of: 'diagonal', deg: 120 }, 1)).toMatchObject({
      acrossDeg: expect.closeTo(101.537, 3),
    })
  })
  it('a point ahead is in the middle, one behind is not seen', () => {
    for (const lens of [straight, wide]) {
      expect(inPicture(lens, camera, 0, [100, 0, 18])).toEqual([expect.closeTo(0, 12), expect.closeTo(0, 12)])
      expect(inPicture(lens, camera, 0, [0, 0, 18])).toBeNull()
    }
  })
  it('agrees with a fine scan of the whole discs, rings too, on 200 random cameras', { timeout: 300_000 }, () => {
    const { uniform: random } = chanceOf(11)
    const hits = { straight: 0, wide: 0, rings: 0, clear: 0, none: 0, several: 0 }
    for (let i = 0; i < 200; i++) {
      const lens: Lens =
        i % 2 === 0
          ? { kind: 'straight', acrossDeg: 40 + random() * 110, upDeg: 30 + random() * 90 }
          : { kind: 'wide', diagonalDeg: 80 + random() * 140, aspect: 1 + random() }
      const at: Vec3 = [10 + random() * 50, (random() - 0.5) * 8, 5 + random() * 25]
      const radiusMm = 15 + random() * 40
      const holeMm = i % 5 === 0 ? radiusMm * 0.8 : 0
      const discs = pair(20 + random() * 60, 30 + random() * 40, -6 + random() * 34, { radiusMm, holeMm })
      const ranges = clearTilts(lens, at, discs)
      hits[lens.kind]++
      hits.rings += holeMm > 0 ? 1 : 0
      hits[ranges.length === 0 ? 'none' : 'clear']++
      hits.several += ranges.length > 1 ? 1 : 0
      const near = (deg: number) => ranges.some(r => Math.abs(r.fromDeg - deg) <= 0.1 || Math.abs(r.toDeg - deg) <= 0.1)
      const within = (deg: number) => ranges.some(r => deg >= r.fromDeg && deg <= r.toDeg)
      for (let k = 0; k <= 7; k++) {
        const deg = k * 10
        if (near(deg)) continue
        expect(within(deg), `case ${i} at ${deg}°`).toBe(!scanSees(lens, at, deg, discs))
      }
      const first = ranges[0]
      if (first && first.fromDeg > 0.1) {
        expect(scanSees(lens, at, first.fromDeg - 0.1, discs, 60_000), `case ${i} just below`).toBe(true)
        if (first.toDeg - first.fromDeg > 0.2)
          expect(scanSees(lens, at, first.fromDeg + 0.1, discs), `case ${i} just above`).toBe(false)
      }
    }
    expect(Math.min(hits.straight, hits.wide, hits.rings, hits.clear)).toBeGreaterThan(30)
    expect(hits.none + hits.several).toBeGreaterThan(5)
  })
  it('where discs come back from above, every clear range is found', () => {
    const narrow: Lens = { kind: 'straight', acrossDeg: 40, upDeg: 20 }
    // At 30° above the camera, and 2° to either side of it: seen from about 18° of tilt to about 42°.
    const above: Disc = { atMm: [134, 0, 18 + 100 * Math.tan(Math.PI / 6)], radiusMm: 8, holeMm: 0 }
    const ranges = clearTilts(narrow, camera, [above])
    expect(ranges.map(({ fromDeg, toDeg }) => [fromDeg.toFixed(0), toDeg.toFixed(0)])).toEqual([
      ['0', '18'],
      ['42', '70'],
    ])
    for (const [deg, isSeen] of [
      [ranges[0]!.toDeg - 0.05, false],
      [ranges[0]!.toDeg + 0.05, true],
      [ranges[1]!.fromDeg - 0.05, true],
      [ranges[1]!.fromDeg + 0.05, false],
    ] as const)
      expect(scanSees(narrow, camera, deg, [above]), `${deg}°`).toBe(isSeen)
    // A great disc below: its rim ahead leaves the picture's lower edge.
    const great = clearTilts(narrow, camera, [{ ...above, atMm: [34, 0, 0], radiusMm: 400 }])
    expect(great).toEqual([{ fromDeg: expect.closeTo(10 - (Math.atan(18 / 400) * 180) / Math.PI, 3), toDeg: 70 }])
  })
  it.each([
    ['a lens of 0°', { kind: 'straight', acrossDeg: 0, upDeg: 60 }, 'acrossDeg must be above zero and less than 180'],
    [
      'a straight-line lens of 180°',
      { kind: 'straight', acrossDeg: 90, upDeg: 180 },
      'upDeg must be above zero and less than 180',
    ],
    ['a lens of 400°', { kind: 'wide', diagonalDeg: 400, aspect: 1 }, 'diagonalDeg must be above zero and at most 360'],
    ['a lens that is no number', { kind: 'wide', diagonalDeg: NaN, aspect: 1 }, 'diagonalDeg'],
  ] as const)('refuses %s', (_what, lens, sentence) =>
    expect(() => clearTilts(lens, camera, pair(50, 50, 0))).toThrow(sentence),
  )
})

/** Whether any of very many points of the discs is in the picture: on each rim, and a web inside. */
function scanSees(lens: Lens, at: Vec3, deg: number, discs: readonly Disc[], onRim = 3000): boolean {
  const seen = (point: Vec3) => {
    const found = inPicture(lens, at, deg, point)
    return found !== null && Math.abs(found[0]) <= 1 && Math.abs(found[1]) <= 1
  }
  return discs.some(({ atMm: [x, y, z], radiusMm, holeMm }) => {
    for (let i = 0; i < onRim; i++) {
      const angle = (2 * Math.PI * i) / onRim
      for (const r of holeMm > 0 ? [radiusMm, holeMm] : [radiusMm])
        if (seen([x + r * Math.cos(angle), y + r * Math.sin(angle), z])) return true
    }
    for (let i = 0; i < 120; i++)
      for (let k = 0; k <= 20; k++) {
        const angle = (2 * Math.PI * i) / 120
        const r = holeMm + ((radiusMm - holeMm) * k) / 20
        if (seen([x + r * Math.cos(angle), y + r * Math.sin(angle), z])) return true
      }
    return false
  })
}

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyCommand, makeBuild } from '../../changes/commands'
import { ListingBiasTable } from '../../mass/listings'
import { allLoadouts, estimatesOf, loadoutMasses } from '../../mass/loadout'
import { craftPresets, presetLines } from '../../parts/catalogue'
import type { Layer } from '../../model/data'
import { discsOf } from '../fit'
import { makeLine, makeMass, slots, type Build, type Line } from '../../model/ledger'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import pralineFile from '../../../demo/builds/praline.build.json'
import sherbetFile from '../../../demo/builds/sherbet.build.json'
import treacleFile from '../../../demo/builds/treacle.build.json'
import {
  arrangementsOf,
  cameraArrangements,
  standoffArrangements,
  balanceOf,
  cameraViews,
  centreMovesMm,
  centreOf,
  clearsAfterMm,
  coveredShare,
  lensOf,
  movableLines,
  otherMoves,
  placeOfPiece,
  rimInPicture,
  smallestTilt,
  slideTable,
  type Balance,
} from './index'

const demo = [sherbetFile, pralineFile, marzipanFile, nougatFile, treacleFile].map(
  file => file.build as unknown as Build,
)
const marzipan = demo[2]!
const nobody = new ListingBiasTable()
const hang = (build: Build, choice = build.flies) => balanceOf(build, choice, estimatesOf(build, nobody))
const pieceOf = ({ layout }: Balance, key: string) => layout.pieces.find(piece => piece.key === key)!
const figuresOf = (balance: Balance) => [
  ...(balance.centre?.atMm ?? []),
  ...balance.spreadMm,
  ...(balance.gyrationMm ?? []),
  balance.totalG,
  ...(balance.hover && !('problem' in balance.hover) ? balance.hover.loadsG : []),
  ...(balance.slide ? [balance.slide.byMm, balance.slide.remainsMm, balance.slide.spreadMm] : []),
]

describe('how the builds of the demo hang', () => {
  it.each(demo.map(build => [build.name, build] as const))(
    '%s hangs in every loadout, within a hand',
    (_name, build) => {
      const estimates = estimatesOf(build, nobody)
      const choices = allLoadouts(build)
      const masses = loadoutMasses(build, choices, estimates)
      choices.forEach((choice, i) => {
        const balance = balanceOf(build, choice, estimates)
        for (const figure of figuresOf(balance)) expect(figure).toBeTypeOf('number')
        expect(figuresOf(balance).every(Number.isFinite)).toBe(true)
        expect(balance.totalG).toBeCloseTo(masses[i]!.massG, 6)
        expect(Math.abs(balance.centre!.atMm[0])).toBeLessThan(15)
        expect(Math.abs(balance.centre!.atMm[1])).toBeLessThan(3)
        const placed = new Set(build.places?.pieces.map(piece => piece.lineId))
        const isPlaced = ({ lineId }: { lineId: string }) => placed.has(lineId)
        expect(balance.assumed).toBe(balance.layout.pieces.filter(piece => !isPlaced(piece)).length)
        expect(balance.spreadMm[0]).toBeGreaterThan(1)
      })
    },
  )
  it('Marzipan is tail-heavy with P7, and P7 belongs farther forward', () => {
    const balance = hang(marzipan)
    expect(balance.centre!.atMm[0]).toBeLessThan(-0.5)
    expect(balance.slide!.byMm).toBeGreaterThan(1)
    expect(balance.slide!.missesMm).toBe(0)
  })
})

describe('pieces that somebody places', () => {
  const put = (build: Build, more: object) =>
    applyCommand(build, {
      type: 'places.put',
      pieces: [{ lineId: 'p7', number: 0, xMm: 0, yMm: 0, zMm: 30, sigmaMm: 0.5, turnDeg: 0, tiltDeg: 0, ...more }],
    })
  it('the slide that is proposed hangs it true, strap and pad going along', () => {
    const before = hang(marzipan)
    const after = hang(put(marzipan, { xMm: before.slide!.toMm, zMm: before.pack!.atMm[2] }))
    expect(after.centre!.atMm[0]).toBeCloseTo(0, 9)
    expect(after.slide!.byMm).toBeCloseTo(0, 9)
    expect(pieceOf(after, 'strap#0').atMm[0]).toBeCloseTo(before.slide!.toMm, 9)
    expect(pieceOf(after, 'p7#0').isAssumed).toBe(false)
    expect(after.spreadMm[0]).toBeLessThan(before.spreadMm[0] * 0.7)
  })
  it('at the end of the tray it says by how much it misses, and what is left', () => {
    const short = applyCommand(marzipan, {
      type: 'lines.change',
      changes: [
        {
          id: 'frame',
          fields: { properties: { ...marzipan.lines[0]!.properties, trayLengthMm: 77, trayFrontMm: 38.5 } },
        },
      ],
    })
    const { slide, centre, pack } = hang(short)
    expect(slide!.toMm).toBeCloseTo(0.5, 9)
    expect(slide!.frontRangeMm).toEqual([expect.closeTo(0, 9), expect.closeTo(1, 9)])
    expect(slide!.missesMm).toBeGreaterThan(1)
    const moved = hang(put(short, { xMm: slide!.toMm, zMm: pack!.atMm[2] }))
    expect(moved.centre!.atMm[0]).toBeCloseTo(slide!.remainsMm, 9)
    expect(Math.abs(moved.centre!.atMm[0])).toBeLessThan(Math.abs(centre!.atMm[0]))
  })
  it('a motor takes its prop along; the others stay', () => {
    const moved = hang(put(marzipan, { lineId: 'motors', number: 1, xMm: 60, yMm: 40, zMm: 6 }))
    expect(pieceOf(moved, 'props#1').atMm.slice(0, 2)).toEqual([60, 40])
    expect(pieceOf(moved, 'props#0').atMm).toEqual(pieceOf(hang(marzipan), 'props#0').atMm)
  })
  it('another frame keeps the pieces and moves the arms', () => {
    const placed = put(marzipan, { xMm: 4 })
    const other = applyCommand(
      applyCommand(placed, {
        type: 'lines.add',
        beforeId: null,
        lines: [
          makeLine({
            id: 'frame2',
            slot: 'frame',
            name: 'Longer',
            state: 'candidate',
            insteadOf: 'frame',
            mass: makeMass({ versionId: 'f2', evidence: 'weighed', valueG: 44 }),
            properties: { wheelbaseMm: 200, armLayout: 'stretched' },
          }),
        ],
      }),
      { type: 'line.fit', id: 'frame2' },
    )
    const [before, after] = [hang(placed), hang(other)]
    expect(after.layout.arms.forwardMm).toBeGreaterThan(before.layout.arms.forwardMm)
    expect(after.layout.arms.forwardMm / after.layout.arms.sidewaysMm).toBeCloseTo(1.15, 9)
    // Fit looks for props where Balance has them.
    expect(discsOf(other.lines.filter(line => line.state === 'fitted'))!.centresMm.map(([x]) => Math.abs(x))).toEqual(
      after.layout.rotors.map(({ xMm }) => expect.closeTo(Math.abs(xMm), 9) as number),
    )
    expect(pieceOf(after, 'p7#0').atMm[0]).toBe(4)
    expect(pieceOf(after, 'motors#0').atMm[0]).toBeCloseTo(after.layout.arms.forwardMm, 9)
  })
  it('a pack that takes the place of another sits there; a line that goes takes its places along', () => {
    const placed = put(put(marzipan, { xMm: 5 }), { lineId: 'camera', xMm: 50, zMm: 14 })
    const gone = applyCommand(placed, { type: 'lines.delete', ids: ['camera'] })
    expect(gone.places!.pieces.map(piece => piece.lineId)).toEqual(['gps', 'lead', 'cradle', 'p7'])
    const freed = applyCommand(placed, { type: 'places.free', pieces: [{ lineId: 'p7', number: 0 }] })
    expect(freed.places!.pieces.map(piece => piece.lineId)).toEqual(['camera', 'gps', 'lead', 'cradle'])
    expect(pieceOf(hang(freed), 'p7#0').isAssumed).toBe(true)
  })
  it('the pack below hangs the craft lower, and its pad lies between', () => {
    const below = applyCommand(marzipan, { type: 'places.pack', side: 'below' })
    // A pack that was placed above goes along.
    const moved = applyCommand(put(marzipan, { xMm: 9, zMm: 35 }), { type: 'places.pack', side: 'below' })
    expect(pieceOf(hang(moved), 'p7#0').atMm).toEqual(pieceOf(hang(below), 'p7#0').atMm)
    const [over, under] = [hang(marzipan), hang(below)]
    expect(under.centre!.atMm[2]).toBeLessThan(over.centre!.atMm[2] - 10)
    expect(under.abovePropsMm).toBeLessThan(0)
    const [pad, pack] = [pieceOf(under, 'pad#0').atMm[2], pieceOf(under, 'p7#0').atMm[2]]
    expect(pad).toBeGreaterThan(pack)
  })
  it.each([
    [{ lineId: 'nobody' }, 'The line of that piece is not in this build.'],
    [{ number: 1 }, '“4S 850 mAh” has 1, and no piece 2.'],
  ])('%o is refused', (more, sentence) => expect(() => put(marzipan, more)).toThrow(sentence))
})

describe('what fewer grams do to the bob', () => {
  it('is what hanging it again says, for every line with a place, taken lighter or heavier', () => {
    let moved = 0
    for (const build of demo) {
      const before = hang(build)
      for (const line of build.lines.filter(one => before.layout.pieces.some(piece => piece.lineId === one.id))) {
        const own = before.layout.pieces.filter(piece => piece.lineId === line.id)
        const off = own.reduce((sum, piece) => sum + 0.1 * piece.mass.valueG, 0)
        const told = centreMovesMm(before, line.id, off)!
        const pieces = before.layout.pieces.map(piece =>
          piece.lineId === line.id ? { ...piece, mass: { ...piece.mass, valueG: 0.9 * piece.mass.valueG } } : piece,
        )
        expect(told).toBeCloseTo(centreOf(pieces)!.atMm[0] - before.centre!.atMm[0], 9)
        if (Math.abs(told) > 0.01) moved++
      }
    }
    expect(moved).toBeGreaterThan(20)
  })
  it('cannot be told of what has no place, or where nothing is left', () => {
    const balance = hang(marzipan)
    expect(centreMovesMm(balance, 'nobody', 1)).toBeNull()
    expect(centreMovesMm(balance, 'frame', 1e6)).toBeNull()
    expect(() => centreMovesMm(balance, 'frame', NaN)).toThrow()
  })
})

describe('other places of the camera', () => {
  it('come as they are told when one is chosen; farther forward the picture is clear at less tilt', () => {
    const told = cameraArrangements(marzipan, marzipan.flies, estimatesOf(marzipan, nobody))
    expect(told.map(({ byMm }) => byMm)).toEqual([-10, -5, 0, 5, 10])
    for (const { place, slide } of told) {
      const hung = hang(applyCommand(marzipan, { type: 'places.put', pieces: [place] }))
      expect(hung.slide!.byMm).toBeCloseTo(slide!.byMm, 9)
    }
    const slides = told.map(({ slide }) => slide!.toMm)
    expect(slides).toEqual([...slides].sort((a, b) => b - a))
    const clear = told.map(({ clearDeg }) => clearDeg!)
    expect(clear[4]).toBeLessThan(clear[2]!)
    expect(clear[2]).toBeLessThan(clear[0]!)
  })
})

describe('the upper plate', () => {
  const frameSays = (build: Build, freeHeightMm: number | undefined): Build => {
    const { freeHeightMm: _, ...others } = build.lines.find(line => line.id === 'frame')!.properties!
    const properties = freeHeightMm === undefined ? others : { ...others, freeHeightMm }
    return applyCommand(build, { type: 'lines.change', changes: [{ id: 'frame', fields: { properties } }] })
  }
  const packZ = (build: Build) => hang(build).pack!.atMm[2]
  it('lies where the frame has its room, with all above it; never lower than the boards need, 17.5 mm', () => {
    const needs = packZ(frameSays(marzipan, undefined))
    expect(packZ(marzipan) - needs).toBeCloseTo(20 - 17.5, 9)
    expect(packZ(frameSays(marzipan, 25)) - needs).toBeCloseTo(25 - 17.5, 9)
    expect(packZ(frameSays(marzipan, 12))).toBeCloseTo(needs, 9)
    // Boards stay where they are stacked.
    const boards = (build: Build) =>
      hang(build)
        .layout.pieces.filter(({ slot }) => slot === 'board')
        .map(p => p.atMm[2])
    expect(boards(frameSays(marzipan, 25))).toEqual(boards(marzipan))
  })
  it('is carried by standoffs: each row comes as it is told, and they weigh by their length', () => {
    const told = (build: Build) => standoffArrangements(build, build.flies, estimatesOf(build, nobody))
    expect(told(marzipan).map(({ lengthMm, isNow, moreG }) => [lengthMm, isNow, moreG])).toEqual([
      [18, false, null],
      [20, true, null],
      [22, false, null],
      [25, false, null],
    ])
    const weighed = makeMass({ versionId: 's1', evidence: 'weighed', valueG: 1.44 })
    const standoffs = makeLine({ id: 's', name: 'Standoffs, 20 mm', slot: 'standoff', quantity: 4, mass: weighed })
    const owned: Build = { ...marzipan, lines: [...marzipan.lines, standoffs] }
    const massG = estimatesOf(owned, nobody).of(standoffs).valueG
    for (const { lengthMm, moreG, slide, abovePropsMm } of told(owned)) {
      expect(moreG).toBeCloseTo(massG * (lengthMm / 20 - 1), 9)
      const chosen = frameSays(owned, lengthMm)
      expect(hang(chosen).slide!.byMm).toBeCloseTo(slide!.byMm, 9)
      expect(told(chosen).find(({ isNow }) => isNow)!.lengthMm).toBe(lengthMm)
      expect(told(chosen).find(({ isNow }) => isNow)!.abovePropsMm).toBeCloseTo(abovePropsMm!, 9)
    }
    // Where the frame says nothing they are the shortest that are sold and long enough.
    expect(
      told(frameSays(marzipan, undefined))
        .filter(({ isNow }) => isNow)
        .map(({ lengthMm }) => lengthMm),
    ).toEqual([18])
  })
  it('takes a pack along that somebody has placed', () => {
    const pack = { ...placeOfPiece(hang(marzipan).pack!), zMm: 33 }
    const placed = applyCommand(marzipan, { type: 'places.put', pieces: [pack] })
    const rows = standoffArrangements(placed, placed.flies, estimatesOf(placed, nobody))
    expect(rows.map(({ place }) => place?.zMm ?? null)).toEqual([31, null, 35, 38])
  })
  it('is none without standoffs: one plate, or a height between that is unknown', () => {
    const { layers } = marzipan.fit!.stack!
    const told = (changed: readonly Layer[]) => {
      const build: Build = { ...marzipan, fit: { ...marzipan.fit!, stack: { layers: changed } } }
      return standoffArrangements(build, build.flies, estimatesOf(build, nobody))
    }
    expect(told(layers.filter(({ kind }, i) => kind !== 'plate' || i === 0))).toEqual([])
    expect(told(layers.map(one => (one.kind === 'grommet' ? { ...one, heightMm: null } : one)))).toEqual([])
    expect(told([])).toEqual([])
  })
})

describe('other ways to carry the pack', () => {
  it('are four, each as it comes when it is chosen, and slid as it proposes', () => {
    const told = arrangementsOf(marzipan, marzipan.flies, estimatesOf(marzipan, nobody))
    expect(told.map(({ side, turnDeg, isNow }) => [side, turnDeg, isNow])).toEqual([
      ['above', 0, true],
      ['above', 90, false],
      ['below', 0, false],
      ['below', 90, false],
    ])
    for (const { side, turnDeg, slide, gyrationMm, abovePropsMm } of told) {
      const chosen = applyCommand(marzipan, { type: 'places.pack', side, turnDeg })
      const hung = hang(chosen)
      expect(hung.pack!.turnDeg).toBe(turnDeg)
      expect(hung.slide!.byMm).toBeCloseTo(slide!.byMm, 9)
      const [x, y, z] = [hung.slide!.toMm, hung.pack!.atMm[1], hung.pack!.atMm[2]]
      const slid = hang(
        applyCommand(chosen, {
          type: 'places.put',
          pieces: [{ lineId: 'p7', number: 0, xMm: x, yMm: y, zMm: z, sigmaMm: 1, turnDeg, tiltDeg: 0 }],
        }),
      )
      expect(slid.centre!.atMm[0]).toBeCloseTo(slide!.remainsMm, 6)
      expect(slid.gyrationMm![2]).toBeCloseTo(gyrationMm[2], 6)
      expect(slid.abovePropsMm).toBeCloseTo(abovePropsMm!, 6)
    }
    // Across, a long pack is nearer to the axis of pitch and farther from that of roll; below, the bob hangs lower.
    const [along, across, below] = told
    expect(across!.gyrationMm[1]).toBeLessThan(along!.gyrationMm[1])
    expect(across!.gyrationMm[0]).toBeGreaterThan(along!.gyrationMm[0])
    expect(below!.abovePropsMm!).toBeLessThan(along!.abovePropsMm!)
  })
  it('are none without a pack', () => {
    const without = { ...marzipan, flies: { ...marzipan.flies, packLineId: null } }
    expect(arrangementsOf(without, without.flies, estimatesOf(without, nobody))).toEqual([])
  })
  it('leave a pack that is arranged as before where somebody put it', () => {
    const placed = applyCommand(marzipan, {
      type: 'places.put',
      pieces: [{ lineId: 'p7', number: 0, xMm: 3, yMm: 0, zMm: 30, sigmaMm: 1, turnDeg: 0, tiltDeg: 0 }],
    })
    expect(applyCommand(placed, { type: 'places.pack', side: 'above', turnDeg: 0 }).places).toEqual(placed.places)
    const across = applyCommand(placed, { type: 'places.pack', side: 'above', turnDeg: 90 })
    expect(across.places!.pieces.some(piece => piece.lineId === 'p7')).toBe(false)
    expect(across.places!.pieces).toHaveLength(placed.places!.pieces.length - 1)
  })
})

describe('moving other things than the pack', () => {
  it('hangs true with the moves it tells, the least of them, and leaves the rest alone', () => {
    const before = hang(marzipan)
    expect(before.centre!.atMm[0]).toBeLessThan(-0.5)
    const told = otherMoves(
      before,
      new Map([
        ['camera', 60],
        ['gps', 60],
      ]),
    )!
    expect(told.leftMm).toBeCloseTo(0, 6)
    const by = new Map(told.moves.map(({ lineId, byMm }) => [lineId, byMm]))
    expect([...by.keys()].sort()).toEqual(['camera', 'gps'])
    const grams = (id: string) => before.layout.pieces.find(piece => piece.lineId === id)!.mass.valueG
    // Alike in their limits, each goes in proportion to its grams.
    expect(by.get('camera')! / by.get('gps')!).toBeCloseTo(grams('camera') / grams('gps'), 6)
    const pieces = before.layout.pieces.map(piece => ({
      ...piece,
      atMm: [piece.atMm[0] + (by.get(piece.lineId) ?? 0), piece.atMm[1], piece.atMm[2]] as const,
    }))
    expect(centreOf(pieces)!.atMm[0]).toBeCloseTo(0, 6)
  })
  it('says what is left where the limits do not reach', () => {
    const before = hang(marzipan)
    const told = otherMoves(before, new Map([['camera', 1]]))!
    expect(told.moves).toEqual([{ lineId: 'camera', byMm: 1 }])
    const grams = before.layout.pieces.find(piece => piece.lineId === 'camera')!.mass.valueG
    expect(told.leftMm).toBeCloseTo(before.centre!.atMm[0] + grams / before.centre!.massG, 9)
    expect(otherMoves(before, new Map())).toEqual({ moves: [], leftMm: before.centre!.atMm[0] })
    expect(() => otherMoves(before, new Map([['camera', -1]]))).toThrow()
  })
  it('moves neither what the craft is built around nor what goes with the pack', () => {
    const of = movableLines(hang(marzipan)).map(({ lineId }) => lineId)
    expect(of).toContain('camera')
    for (const id of ['frame', 'motors', 'props', 'screws', 'p7', 'strap', 'pad']) expect(of).not.toContain(id)
  })
})

describe('craft of which little is said', () => {
  it.each(craftPresets.map(({ name }) => name))('a build begun from the class %s hangs at once', craftClass => {
    let n = 0
    const made = makeBuild({ id: 'c', name: 'C', lines: presetLines(craftClass, () => `id-${n++}`) })
    const pack = made.lines.find(line => line.slot === 'pack')
    const balance = hang({ ...made, flies: { setupId: made.setups[0]!.id, packLineId: pack?.id ?? null } })
    expect(figuresOf(balance).every(Number.isFinite)).toBe(true)
    expect(Math.abs(balance.centre!.atMm[0])).toBeLessThan(15)
    expect(balance.hover && 'loadsG' in balance.hover).toBe(true)
    expect(balance.slide).not.toBeNull()
  })
  it('nothing, or parts without grams, hang nowhere', () => {
    expect(hang(makeBuild({ id: 'e', name: 'Empty' }))).toMatchObject({ centre: null, hover: null, slide: null })
    const bare = makeBuild({ id: 'e', name: 'E', lines: [makeLine({ id: 'f', slot: 'frame', name: 'F' })] })
    expect(hang(bare).centre).toBeNull()
  })
  it('a craft without a pack has no slide; one without motors no loads; three motors are named', () => {
    const without = (slot: string) => ({ ...marzipan, lines: marzipan.lines.filter(line => line.slot !== slot) })
    expect(hang(without('pack'), { setupId: 'day', packLineId: null }).slide).toBeNull()
    expect(hang(without('motor')).hover).toBeNull()
    const three = marzipan.lines.map(line => (line.slot === 'motor' ? { ...line, quantity: 3 } : line))
    expect(hang({ ...marzipan, lines: three }).hover).toEqual({ problem: 'few rotors' })
  })
  it('random builds with half of their sizes unknown always give an answer, and what is assumed widens it', () => {
    const hits = { hung: 0, loads: 0, slides: 0 }
    const anyLine = fc
      .record({
        slot: fc.constantFrom(...slots),
        massG: fc.double({ min: 0.05, max: 90, noNaN: true }),
        quantity: fc.integer({ min: 1, max: 8 }),
        isSized: fc.boolean(),
        size: fc.integer({ min: 5, max: 60 }),
      })
      .map(given => given)
    fc.assert(
      fc.property(fc.array(anyLine, { minLength: 1, maxLength: 16 }), list => {
        const lines = list.map(({ slot, massG, quantity, isSized, size }, i): Line =>
          makeLine({
            id: `l${i}`,
            slot,
            name: `${slot} ${i}`,
            quantity: slot === 'pack' ? 1 : quantity,
            mass: makeMass({ versionId: `v${i}`, evidence: 'guess', valueG: massG, valueCount: quantity }),
            properties:
              isSized && ['board', 'pack', 'payload'].includes(slot)
                ? { widthMm: size, lengthMm: size, heightMm: size }
                : null,
          }),
        )
        const made = makeBuild({ id: 'r', name: 'R', lines })
        const pack = lines.find(line => line.slot === 'pack')
        const build = { ...made, flies: { setupId: made.setups[0]!.id, packLineId: pack?.id ?? null } }
        const balance = hang(build)
        expect(figuresOf(balance).every(Number.isFinite)).toBe(true)
        if (!balance.centre) return
        hits.hung++
        if (balance.hover && !('problem' in balance.hover)) hits.loads++
        if (balance.slide) hits.slides++
        expect(balance.layout.pieces.every(piece => piece.isAssumed)).toBe(true)
        expect(balance.spreadMm[0]).toBeGreaterThan(0)
        expect(slideTable(build, estimatesOf(build, nobody)).length).toBe(
          lines.filter(line => line.slot === 'pack').length,
        )
      }),
      { numRuns: 200 },
    )
    expect(Math.min(hits.hung - 100, hits.loads, hits.slides)).toBeGreaterThan(0)
  })
})

describe('what the camera of a build sees', () => {
  const [view] = cameraViews(marzipan, hang(marzipan).layout)
  it('is told for Marzipan: props at its tilt, none from the smallest', () => {
    expect(view!.tiltDeg).toBe(20)
    expect(view!.discs).toHaveLength(4)
    if (!('lens' in view!.seen)) throw new Error('the lens of the demo is said')
    const { lens, clear } = view!.seen
    const least = smallestTilt(clear)!
    expect(least.shownDeg).toBeGreaterThan(30)
    expect(least.shownDeg).toBeLessThan(45)
    expect(coveredShare(lens, view!.lensAtMm, 20, view!.discs)).toBeGreaterThan(0.005)
    expect(coveredShare(lens, view!.lensAtMm, least.shownDeg + 0.1, view!.discs)).toBe(0)
    expect(rimInPicture(lens, view!.lensAtMm, 20, view!.discs[0]!).length).toBeGreaterThan(0)
    const forward = clearsAfterMm(lens, view!.lensAtMm, 20, view!.discs, 'forward')!
    const [x, y, z] = view!.lensAtMm
    expect(clearsAfterMm(lens, [x + forward, y, z], 20, view!.discs, 'forward')).toBe(0)
    expect(coveredShare(lens, [x + forward - 1, y, z], 20, view!.discs, 400)).toBeGreaterThan(0)
    expect(clearsAfterMm(lens, view!.lensAtMm, least.shownDeg, view!.discs, 'up')).toBe(0)
    const smaller = clearsAfterMm(lens, view!.lensAtMm, 20, view!.discs, 'smaller')!
    const narrowed = (mm: number) => view!.discs.map(disc => ({ ...disc, radiusMm: disc.radiusMm - mm / 2 }))
    expect(coveredShare(lens, view!.lensAtMm, 20, narrowed(smaller))).toBe(0)
    expect(coveredShare(lens, view!.lensAtMm, 20, narrowed(smaller - 2), 400)).toBeGreaterThan(0)
    const wider = clearsAfterMm(lens, view!.lensAtMm, 20, view!.discs, 'wider')!
    const apart = (mm: number) =>
      view!.discs.map(disc => ({
        ...disc,
        atMm: [disc.atMm[0], disc.atMm[1] + Math.sign(disc.atMm[1]) * mm, disc.atMm[2]] as const,
      }))
    expect(coveredShare(lens, view!.lensAtMm, 20, apart(wider))).toBe(0)
    expect(coveredShare(lens, view!.lensAtMm, 20, apart(wider - 2), 400)).toBeGreaterThan(0)
    expect(clearsAfterMm(lens, view!.lensAtMm, 20, view!.discs, 'lower')).not.toBe(0)
  })
  it('is not told of a lens of which too little is said, or that cannot be', () => {
    const camera = (properties: Line['properties']) => makeLine({ id: 'c', slot: 'camera', name: 'C', properties })
    expect(lensOf(camera(null))).toEqual({ missing: ['viewDeg', 'viewAlong', 'lens', 'aspect'] })
    expect(lensOf(camera({ viewDeg: 150, lens: 'wide', viewAlong: 'diagonal' }))).toEqual({ missing: ['aspect'] })
    const all = { viewDeg: 190, viewAlong: 'across', aspect: '16:9' }
    expect(lensOf(camera({ ...all, lens: 'straight lines straight' }))).toEqual({ impossible: true })
    expect(lensOf(camera({ ...all, lens: 'wide' }))).toMatchObject({ lens: { kind: 'wide' }, aspect: 16 / 9 })
    for (const viewAlong of ['across', 'up', 'diagonal'])
      for (const lens of ['wide', 'straight lines straight'])
        for (const viewDeg of [20, 100, 179, 220])
          for (const aspect of ['4:3', '16:9', '1:1'])
            expect(() => lensOf(camera({ viewDeg, viewAlong, lens, aspect }))).not.toThrow()
  })
})

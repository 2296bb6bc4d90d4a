import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { craftPresets, presetLines } from '../../parts/catalogue'
import { applyCommand } from '../../changes/commands'
import { makeLine, type Build, type Line } from '../../model/ledger'
import { wiresG } from '../../mass/mass-calculators'
import {
  askedOfJoint,
  blankFit,
  clearanceMm,
  discsOf,
  fitReport,
  fixingRow,
  fixingsSchedule,
  newJoint,
  newWire,
  noGear,
  outlineMm,
  planWire,
  planWires,
  stackOf,
  stackUp,
  standoffLengthsMm,
  suggestStack,
  type GroundGear,
  type JointPlan,
  type Layer,
  type SaidJoint,
} from './index'
import { electricalTree, feedOf, feedsOnOffer, nodesOf } from '../wiring'
import drawer from '../../../demo/drawer.json'
import marzipan from '../../../demo/builds/marzipan.build.json'
import nougat from '../../../demo/builds/nougat.build.json'
import sherbet from '../../../demo/builds/sherbet.build.json'
import treacle from '../../../demo/builds/treacle.build.json'

const files = { marzipan, nougat, sherbet, treacle }
const demo = (name: string) => files[name as keyof typeof files].build as unknown as Build
const gear = drawer.gear as GroundGear

describe('the fit of a whole build', () => {
  const build = demo('marzipan')
  const report = fitReport(build, build.flies, gear)
  it('finds Marzipan’s two clashes in whichever set-up they lie, and no other', () => {
    expect(report.clashes).toBe(2)
    expect(report.findings.filter(f => f.severity === 'clash').map(f => [f.title, f.onlyIn])).toEqual([
      ['Capacitor is rated 16 V, a full pack is 16.8 V', []],
      ['9 V output gives 1.5 A, asked for 1.9 A', ['ridge, lamp and navigation']],
    ])
  })
  it.each(craftPresets.map(preset => preset.name))('a build begun as “%s” has no clash', name => {
    let n = 0
    const lines = presetLines(name, () => `l${n++}`)
    const begun: Build = {
      ...build,
      craftClass: name,
      lines,
      setups: [{ id: 's', name: 's', lineIds: [] }],
      flies: { setupId: 's', packLineId: lines.find(line => line.slot === 'pack')!.id },
      neverFlown: [],
      observations: [],
      fit: null,
    }
    expect(
      fitReport(begun, begun.flies, noGear)
        .findings.filter(f => f.severity === 'clash')
        .map(f => f.sentence),
    ).toEqual([])
  })
  it('the way out it offers ends that clash and brings no other', () => {
    const move = report.findings.flatMap(f => f.ways).find(w => w.move)!.move!
    expect(move).toEqual({ lineId: 'lamp', feed: { from: 'board', output: '5 V' } })
    const moved = applyCommand(build, {
      type: 'lines.change',
      changes: [{ id: move.lineId, fields: { feed: move.feed } }],
    })
    const after = fitReport(moved, moved.flies, gear)
    expect(after.clashes).toBe(1)
    expect(after.toCheck).toBe(report.toCheck)
    expect(after.fits.map(f => f.words)).toContain('5 V output 0.91 A of 2 A')
  })
  it('what is set aside is told apart and no longer counted', () => {
    const [first] = report.findings
    const lived = applyCommand(build, {
      type: 'fit.set',
      fields: { setAside: [{ finding: first!.id, why: 'until Friday' }] },
    })
    const after = fitReport(lived, lived.flies, gear)
    expect(after.clashes).toBe(1)
    expect(after.findings.at(-1)).toMatchObject({ id: first!.id, setAside: 'until Friday' })
  })
  it('asks only for what could reveal a clash, once each, naming the rules that wait', () => {
    const planned = demo('treacle')
    const { asked, folded } = fitReport(planned, planned.flies, noGear)
    expect(asked.map(a => `${a.lineId}.${a.key}`)).toContain('frame.motorPatterns')
    expect(folded.map(a => `${a.lineId}.${a.key}`)).toContain('frame.boardPatterns')
    expect(new Set(asked.map(a => `${a.lineId}.${a.key}`)).size).toBe(asked.length)
    expect(asked.find(a => a.key === 'ampsContinuous')?.forChecks).toEqual(['motor-amps'])
  })
  it('an empty build has nothing to say', () => {
    const empty: Build = {
      ...build,
      lines: [],
      setups: [{ id: 's', name: 's', lineIds: [] }],
      flies: { setupId: 's', packLineId: null },
      fit: null,
      neverFlown: [],
    }
    expect(fitReport(empty, empty.flies, noGear)).toMatchObject({ clashes: 0, toCheck: 0, asked: [] })
  })
})

describe('the electrical tree', () => {
  const build = demo('marzipan')
  const lines = build.lines.filter(l => l.state === 'fitted' && l.id !== 'p7')
  const tree = electricalTree(
    lines,
    lines.find(l => l.id === 'p4')!,
  )
  const node = (id: string) => nodesOf(tree.root).find(n => n.id === id)!
  it('adds up amps by hand: 1.14 + 0.25 × 5 / (9 × 0.85) + 0.6 at 9 V', () => {
    expect(node('board/9 V').demandA).toBeCloseTo(1.14 + (0.25 * 5) / (9 * 0.85) + 0.6, 10)
    expect(node('board/5 V').demandA).toBeCloseTo(0.31, 10)
    expect(node('pack').volts).toEqual({ lowV: 4 * 3.27, highV: 16.8 })
  })
  it('the pack gives what the outputs take, divided by the regulators’ efficiency', () => {
    const watts = node('board/9 V').demandA * 9 + node('board/5 V').demandA * 5
    expect(tree.root.demandA * tree.root.volts!.lowV).toBeCloseTo(watts / 0.85, 8)
  })
  it('every device can be put on every feed, and hangs there afterwards', () => {
    const lamp = lines.find(l => l.id === 'lamp')!
    const offers = feedsOnOffer(lines, lamp)
    expect(offers.map(o => o.name)).toEqual([
      '3.3 V of the board',
      '5 V of the board',
      '9 V of the board',
      'camera of the video transmitter',
      'the pack’s own volts',
      'the balance lead',
    ])
    for (const { feed } of offers) {
      const moved = lines.map(l => (l.id === 'lamp' ? { ...l, feed } : l))
      expect(
        feedOf(
          moved.find(l => l.id === 'lamp')!,
          moved,
        ),
      ).toEqual(feed)
      expect(
        nodesOf(
          electricalTree(
            moved,
            moved.find(l => l.id === 'p4')!,
          ).root,
        ).some(n => n.lineId === 'lamp'),
      ).toBe(true)
    }
  })
  it('a ring of feeds is named and left out instead of counted for ever', () => {
    const ring = ['a', 'b'].map((id, i) =>
      makeLine({
        id,
        slot: 'video transmitter',
        name: id,
        properties: { outputs: [{ name: 'x', volts: 5, amps: 1 }], drawA: 0.1 },
        feed: { from: ['b', 'a'][i]!, output: 'x' },
      }),
    )
    const found = electricalTree(ring, null)
    expect(found.looped.map(l => l.id)).toEqual(['a', 'b'])
    expect(nodesOf(found.root)).toHaveLength(1)
  })
  it('a feed whose output is gone counts as not said', () => {
    const gone = lines.map(l =>
      l.id === 'board' ? { ...l, properties: { ...l.properties, outputs: [{ name: '5 V', volts: 5, amps: 2 }] } } : l,
    )
    expect(electricalTree(gone, null).unwired.map(l => l.id)).toEqual(['vtx', 'lamp'])
  })
})

describe('the stack-up', () => {
  const layer = (id: string, kind: Layer['kind'], heightMm: number, more: Partial<Layer> = {}): Layer => ({
    id,
    name: id,
    kind,
    lineId: null,
    heightMm,
    widthMm: null,
    lengthMm: null,
    turnDeg: 0,
    bare: 'none',
    port: null,
    ...more,
  })
  it.each([
    ['marzipan', 17.5, 18, 2.5],
    ['nougat', 22.5, 25, 1.5],
    ['sherbet', 11, 12, 5],
  ])('%s: %d mm between plates, standoffs of %d mm, %d mm left', (name, needed, standoff, left) => {
    const build = demo(name)
    const up = stackUp(
      build.fit!.stack!,
      Number(build.lines.find(l => l.id === 'frame')!.properties!.freeHeightMm),
      discsOf(build.lines),
    )
    expect(up.neededMm).toBeCloseTo(needed, 9)
    expect([up.standoffMm, up.leftMm]).toEqual([standoff, expect.closeTo(left, 9)])
    expect(up.touching).toEqual([])
    expect(up.crowded).toEqual([])
  })
  it('a taller spacer asks for taller standoffs and takes from what is left, millimetre by millimetre', () => {
    const layers = demo('marzipan').fit!.stack!.layers
    fc.assert(
      fc.property(fc.double({ min: 0, max: 15, noNaN: true }), more => {
        const taller = stackUp(
          { layers: layers.map(l => (l.id === 'sp' ? { ...l, heightMm: l.heightMm! + more } : l)) },
          20,
          null,
        )
        expect(taller.neededMm).toBeCloseTo(17.5 + more, 9)
        expect(taller.leftMm!).toBeCloseTo(2.5 - more, 9)
        if (taller.standoffMm !== null) expect(taller.standoffMm).toBeGreaterThanOrEqual(taller.neededMm - 1e-9)
        expect(standoffLengthsMm.filter(l => l >= taller.neededMm && l < taller.standoffMm!)).toEqual([])
      }),
    )
  })
  it('bare metal with less than a millimetre between is flagged, through grommets and screw heads, but not past a board', () => {
    const bottom = layer('b', 'plate', 2, { bare: 'both' })
    const board = layer('x', 'board', 6, { bare: 'both' })
    expect(stackUp({ layers: [bottom, layer('g', 'grommet', 0.6), board] }, null, null).touching).toMatchObject([
      { gapMm: expect.closeTo(0.6, 9) },
    ])
    expect(stackUp({ layers: [bottom, layer('g', 'grommet', 1), board] }, null, null).touching).toEqual([])
    expect(stackUp({ layers: [bottom, layer('c', 'board', 3), board] }, null, null).touching).toEqual([])
  })
  it('a board turned by 45° keeps clear of ducts it would meet straight', () => {
    const discs = {
      centresMm: [
        [33, 33],
        [-33, 33],
        [-33, -33],
        [33, -33],
      ] as const,
      radiusMm: 22,
    }
    const straight = layer('x', 'board', 6, { widthMm: 37, lengthMm: 37 })
    expect(clearanceMm(straight, discs)).toBeCloseTo(Math.hypot(14.5, 14.5) - 22, 9)
    expect(clearanceMm({ ...straight, turnDeg: 45 }, discs)).toBeCloseTo(Math.hypot(33, 33) - 18.5 - 22, 9)
    expect(
      outlineMm({ ...straight, turnDeg: 90 }).map(([x, y]) => Math.round(Math.abs(x)) + Math.round(Math.abs(y))),
    ).toEqual([38, 38, 38, 38])
  })
  it('is suggested from the boards there are, and refuses a height that cannot be', () => {
    const lines = demo('marzipan').lines.filter(l => l.state === 'fitted')
    let n = 0
    expect(suggestStack(lines, () => `l${++n}`).layers.map(l => l.kind)).toEqual([
      'plate',
      'screw head',
      'grommet',
      'board',
      'gap',
      'grommet',
      'board',
      'gap',
      'plate',
      'aerial',
    ])
    expect(() => stackUp({ layers: [layer('x', 'gap', -1)] }, null, null)).toThrow('heightMm')
  })
})

describe('fixings', () => {
  const joint: SaidJoint = {
    id: 'j',
    name: 'motors',
    holds: 'motors' as const,
    count: 16,
    thread: 'M2',
    head: 'socket cap',
    material: 'alloy steel',
    clampedMm: 5,
    engagementMm: 2,
    freeDepthMm: 3.4,
    beyond: 'windings',
    into: 'aluminium',
    lengthMm: 8,
    lineId: null,
  }
  it('weigh what sixteen M2×8 socket caps weigh, and say what titanium saves', () => {
    const row = fixingRow(joint)
    expect([row.shortestMm, row.longestMm, row.verdict]).toEqual([7, 8.4, 'fits'])
    expect(row.massG).toBeCloseTo(16 * 0.31212, 3)
    expect(row.materials.find(m => m.material.startsWith('titanium'))!.savesG).toBeCloseTo(16 * (0.31212 - 0.17614), 3)
  })
  it('take a length at hand before another that would do, and a washer when none is', () => {
    expect(fixingRow({ ...joint, lengthMm: null }, [8, 10]).soldMm).toBe(8)
    expect(fixingRow({ ...joint, lengthMm: null }, [6, 10])).toMatchObject({ soldMm: 7, washerMm: 1.6 })
    expect(fixingRow({ ...joint, lengthMm: null }, [8]).washerMm).toBeNull()
  })
  it('say when no length is safe, and warn of soft threads', () => {
    expect(fixingRow({ ...joint, engagementMm: 4 }).words).toBe(
      'No length is safe: holding 4 mm of thread would go past the 3.4 mm that are free.',
    )
    expect(fixingRow({ ...joint, into: 'brass insert' }).notes.join()).toContain('brass insert strips')
    expect(fixingRow({ ...joint, material: 'aluminium 7075' }).notes.join()).toContain('Soft screw')
    expect(fixingRow({ ...joint, into: 'plastic' }).notes.join()).not.toContain('thread-lock')
  })
  it('every length inside the safe range fits, every length outside does not', () => {
    const mm = fc.integer({ min: 1, max: 100 }).map(n => n / 10)
    fc.assert(
      fc.property(mm, mm, mm, mm, (clampedMm, engagementMm, freeDepthMm, extra) => {
        const lengthMm = clampedMm + extra
        const row = fixingRow({ ...joint, head: 'button', clampedMm, engagementMm, freeDepthMm, lengthMm })
        expect(row.verdict === 'fits').toBe(lengthMm >= row.shortestMm - 1e-9 && lengthMm <= row.longestMm + 1e-9)
        if (row.soldMm !== null)
          expect(row.soldMm >= row.shortestMm - 1e-9 && row.soldMm <= row.longestMm + 1e-9).toBe(true)
      }),
    )
  })
  it('of Nougat name the screw that touches the windings and the one that holds too few threads', () => {
    const { rows, clashes } = fixingsSchedule(demo('nougat').fit!.joints)
    expect(clashes).toBe(2)
    expect(rows.map(row => row.words)).toEqual([
      '10 mm would touch the windings: 10 through 4 leaves 6, and 2.6 are free. M2 × 6 fits.',
      '10 mm holds too few threads: 2 mm of the 3 mm wanted. M2 × 12 fits.',
    ])
  })
})

describe('the wire plan', () => {
  const wire = {
    id: 'w',
    name: 'motor',
    from: 'motors',
    to: 'board',
    awg: 24,
    count: 12,
    routeMm: 66,
    slackMm: 6,
    haveMm: 150,
  }
  it('saves what is trimmed: 78 mm off twelve leads of AWG 24', () => {
    const row = planWire(wire)
    expect(row.lengthMm).toBe(72)
    expect(row.savedG).toBeCloseTo(0.3934 * 0.78 * 12, 3)
    expect(row.massG + row.savedG).toBeCloseTo(wiresG(24, 150, 12), 9)
  })
  it('a lead too short says by how much and what a splice adds; one that just reaches keeps less slack', () => {
    expect(planWire({ ...wire, haveMm: 60 })).toMatchObject({
      shortMm: 6,
      words: '60 mm is 6 mm too short for the way of 66 mm. A splice adds 1.54 g.',
    })
    expect(planWire({ ...wire, haveMm: 68 })).toMatchObject({
      shortMm: 0,
      lengthMm: 68,
      words: 'Reaches, with 2 mm of slack.',
    })
    expect(planWire({ ...wire, haveMm: null })).toMatchObject({ savedG: 0, words: 'Cut 72 mm.' })
  })
})

describe('what nobody said', () => {
  const frame = makeLine({ id: 'frame', slot: 'frame', name: 'Frame' })
  const motor = (properties: Line['properties']) =>
    makeLine({ id: 'motor', slot: 'motor', name: 'Motor', quantity: 4, properties })
  it('a new joint says nothing by itself, takes typed arm thickness and depth, and carries no figure until all is said', () => {
    const blank = newJoint('j', [], [frame, motor(null)])
    expect(blank).toMatchObject({
      name: 'Motors on the arms',
      holds: 'motors' as const,
      count: null,
      thread: null,
      clampedMm: null,
      freeDepthMm: null,
    })
    const told = newJoint(
      'j',
      [],
      [{ ...frame, properties: { armThicknessMm: 4 } }, motor({ screwThread: 'M2', screwDepthMm: 2.1 })],
    )
    expect(told).toMatchObject({ thread: 'M2', clampedMm: 4, freeDepthMm: 2.1, count: null })
    expect(fixingsSchedule([told])).toMatchObject({ rows: [], massG: 0, open: [told] })
    expect(askedOfJoint(told)).toEqual(['count', 'head', 'material', 'engagementMm'])
    const whole = { ...told, count: 16, head: 'button', material: 'alloy steel', engagementMm: 2 }
    expect(fixingsSchedule([whole]).rows[0]).toMatchObject({
      shortestMm: 6,
      longestMm: 6.1,
      verdict: 'not chosen',
      soldMm: 6,
    })
    expect(newJoint('k', [told], [frame, motor(null)])).toMatchObject({ name: 'New joint', beyond: null })
  })
  it('a joint saved with the figures every new one once had is asked about; nothing rests on it until somebody says so', () => {
    const saved: JointPlan = {
      id: 'j',
      name: 'Motors on the arms',
      holds: 'motors' as const,
      count: 16,
      thread: 'M2',
      head: 'button',
      material: 'alloy steel',
      clampedMm: 3,
      engagementMm: 2,
      freeDepthMm: 2.4,
      beyond: 'windings',
      into: 'aluminium',
      lengthMm: 6,
      lineId: null,
    }
    expect(fixingsSchedule([saved])).toMatchObject({ rows: [], massG: 0, clashes: 0, open: [saved] })
    expect(fixingsSchedule([{ ...saved, said: true }])).toMatchObject({ open: [], clashes: 1 })
    expect(fixingsSchedule([{ ...saved, clampedMm: 4 }]).open).toEqual([])
  })
  it('a new lead says nothing by itself, and saves nothing until its way is said', () => {
    const blank = newWire('w', [], [motor(null)])
    expect(blank).toMatchObject({ awg: null, count: null, routeMm: null, haveMm: null })
    const told = newWire('w', [], [motor({ statorDiameterMm: 14, leadAwg: 26, leadLengthMm: 120 })])
    expect(told).toMatchObject({ awg: 26, count: 12, haveMm: 120, routeMm: null })
    expect(planWires([blank, told])).toMatchObject({ rows: [], massG: 0, savedG: 0, open: [blank, told] })
    const whole = planWires([{ ...told, routeMm: 60, slackMm: 6 }])
    expect(whole.savedG).toBeCloseTo(wiresG(26, 54, 12), 9)
  })
  it('a stack begun without heights has one plate, no height and no clash; heights said at the boards join', () => {
    const lines = [
      frame,
      makeLine({ id: 'board', slot: 'board', name: 'Board' }),
      makeLine({ id: 'vtx', slot: 'video transmitter', name: 'Transmitter' }),
    ]
    let n = 0
    const stack = suggestStack(lines, () => `l${++n}`)
    expect(stack.layers.filter(layer => layer.kind === 'plate')).toHaveLength(1)
    expect(stack.layers.filter(layer => layer.kind === 'board').map(layer => layer.lineId)).toEqual(['board', 'vtx'])
    const begun = stackUp(stackOf(stack, lines), 20, null)
    expect(begun).toMatchObject({ neededMm: 0, standoffMm: null, touching: [], crowded: [] })
    expect(begun.unknownBetween.map(layer => layer.name)).toEqual([
      'Screw heads',
      'Grommets',
      'Board',
      'Air',
      'Grommets',
      'Transmitter',
      'Air',
    ])
    const report = (at: readonly Line[]) =>
      fitReport(
        {
          ...demo('nougat'),
          lines: at,
          setups: [{ id: 's', name: 's', lineIds: [] }],
          flies: { setupId: 's', packLineId: null },
          neverFlown: [],
          fit: { ...blankFit, stack },
        },
        { setupId: 's', packLineId: null },
        noGear,
      )
    expect(report([{ ...frame, properties: { freeHeightMm: 20 } }, ...lines.slice(1)])).toMatchObject({ clashes: 0 })
    const said = lines.map(line => (line.id === 'board' ? { ...line, properties: { heightMm: 6.5 } } : line))
    expect(stackUp(stackOf(stack, said), 20, null)).toMatchObject({ neededMm: 6.5, leftMm: 13.5 })
    expect(stackUp(stackOf(stack, said), 5, null).leftMm).toBe(-1.5)
  })
})

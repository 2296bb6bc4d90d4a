import { fullThrottleOf } from '../../currents'
import { describe, expect, it } from 'vitest'
import { makeLine, type Line, type PackFacts, type Slot } from '../../../model/ledger'
import type { Properties } from '../../../model/properties'
import { electricalTree } from '../../wiring'
import { noGear, type GroundGear } from '../gear'
import { blankFit, type FitPlan, type Layer } from '../../../model/data'
import { checks } from './index'
import type { CheckOutcome } from './types'

const line = (slot: Slot, properties: Properties | null, more: Partial<Line> = {}) =>
  makeLine({ id: slot, slot, name: slot, properties, ...more })
const pack4s: PackFacts = {
  label: 'P1',
  cells: 4,
  chemistry: 'LiPo',
  capacityMah: 720,
  cRating: 75,
  plug: 'two bullets 2 mm',
}
const pack = (facts: Partial<PackFacts> = {}, properties: Properties | null = null) =>
  line('pack', properties, { pack: { ...pack4s, ...facts } })
const motors = (properties: Properties) => line('motor', properties, { quantity: 4 })
const board = (more: Properties = {}) =>
  line('board', {
    cellsMin: 2,
    cellsMax: 6,
    outputs: [
      { name: '5 V', volts: 5, amps: 2 },
      { name: '9 V', volts: 9, amps: 1.5 },
    ],
    ...more,
  })
const on = (output: string) => ({ feed: { from: 'board', output } })
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
const joint = (lengthMm: number | null): Partial<FitPlan> => ({
  joints: [
    {
      id: 'j',
      name: 'motors',
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
      lengthMm,
      lineId: null,
      said: true,
    },
  ],
})
const wire = (haveMm: number | null): Partial<FitPlan> => ({
  wires: [
    { id: 'w', name: 'lamp lead', from: 'board', to: 'lamp', awg: 28, count: 2, routeMm: 90, slackMm: 10, haveMm },
  ],
})
const stack = (heightMm: number): Partial<FitPlan> => ({
  stack: { layers: [layer('b', 'plate', 2), layer('x', 'board', heightMm), layer('t', 'plate', 2)] },
})

interface Case {
  readonly lines: readonly Line[]
  readonly fit?: Partial<FitPlan>
  readonly gear?: Partial<GroundGear>
}
const given = (lines: readonly Line[], fit?: Partial<FitPlan>, gear?: Partial<GroundGear>): Case => ({
  lines,
  fit,
  gear,
})
function outcomes(id: string, { lines, fit, gear }: Case): readonly CheckOutcome[] {
  const found = lines.find(l => l.slot === 'pack') ?? null
  return checks
    .find(check => check.id === id)!
    .examine({
      lines,
      pack: found,
      fit: { ...blankFit, ...fit },
      gear: { ...noGear, ...gear },
      tree: electricalTree(lines, found),
      full: fullThrottleOf(lines, found),
    })
}
const amps20 = { maxCurrentA: 5 }

/** Every rule: a case that fits, one that does not (with words of its sentence), one where something is not known. */
const cases: Readonly<
  Record<string, { fits: Case; fails: readonly [Case, string, ...(readonly string[])]; unknown: Case }>
> = {
  cells: {
    fits: given([pack(), board()]),
    fails: [given([pack({ cells: 7 }), board()]), '29.4 V', 'at most 6'],
    unknown: given([pack(), line('board', {})]),
  },
  'feed-volts': {
    fits: given([pack(), board(), line('video transmitter', { voltsMin: 7, voltsMax: 13, drawA: 1 }, on('9 V'))]),
    fails: [
      given([
        pack(),
        line('camera', { voltsMin: 4.5, voltsMax: 5.5, drawA: 0.2 }, { feed: { from: 'pack', output: '' } }),
        board(),
      ]),
      '16.8 V',
      '4.5 V to 5.5 V',
    ],
    unknown: given([pack(), board(), line('camera', { voltsMin: 4.5 }, on('5 V'))]),
  },
  'output-amps': {
    fits: given([pack(), board(), line('camera', { voltsMin: 4, voltsMax: 6, drawA: 1.9 }, on('5 V'))]),
    fails: [
      given([
        pack(),
        board(),
        line('video transmitter', { voltsMin: 7, voltsMax: 13, drawA: 1.3 }, on('9 V')),
        line('payload', { voltsMin: 5, voltsMax: 12, drawA: 0.6 }, on('9 V')),
      ]),
      '1.5 A, asked for 1.9 A',
      'payload 0.6 A',
    ],
    unknown: given([pack(), board(), line('camera', { voltsMin: 4, voltsMax: 6 }, on('5 V'))]),
  },
  'feed-known': {
    fits: given([pack(), board(), line('camera', { drawA: 0.1 }, on('5 V'))]),
    fails: [
      given([
        pack(),
        line('board', { outputs: [{ name: '5 V', volts: 5, amps: 1 }] }, { feed: { from: 'board', output: '5 V' } }),
      ]),
      'feeds itself',
    ],
    unknown: given([pack(), board(), line('camera', { drawA: 0.1 })]),
  },
  'capacitor-volts': {
    fits: given([pack(), line('capacitor', { ratedV: 25 })]),
    fails: [given([pack(), line('capacitor', { ratedV: 16 })]), '16 V, a full pack is 16.8 V'],
    unknown: given([pack(), line('capacitor', {})]),
  },
  'motor-amps': {
    fits: given([motors({ maxCurrentA: 12 }), board({ ampsContinuous: 35 })]),
    fails: [given([motors({ maxCurrentA: 50 }), board({ ampsContinuous: 35, ampsBurst: 45 })]), '50 A', '45 A'],
    unknown: given([motors({}), board({ ampsContinuous: 35 })]),
  },
  'full-throttle': {
    fits: given([pack(), motors(amps20)]),
    fails: [given([pack({ cells: 1, capacityMah: 40 }), motors({ maxCurrentA: 7 })]), 'collapses'],
    unknown: given([pack(), motors({})]),
  },
  'pack-amps': {
    fits: given([pack(), motors(amps20)]),
    fails: [given([pack({ cRating: 20 }), motors(amps20)]), '20 A', '14.4 A'],
    unknown: given([pack({ cRating: null }), motors(amps20)]),
  },
  'plug-amps': {
    fits: given([pack(), motors({ maxCurrentA: 3 }), line('power lead', { plug: 'two bullets 2 mm' })]),
    fails: [
      given([pack(), motors({ maxCurrentA: 9 }), line('power lead', { plug: 'two bullets 2 mm' })]),
      '36 A',
      '30 A',
    ],
    unknown: given([pack(), motors(amps20), line('power lead', {})]),
  },
  'lead-amps': {
    fits: given([pack(), motors(amps20), line('power lead', { awg: 16 })]),
    fails: [given([pack(), motors(amps20), line('power lead', { awg: 28 })]), '20 A', 'AWG 28'],
    unknown: given([pack(), motors(amps20), line('power lead', {})]),
  },
  plugs: {
    fits: given([pack(), line('power lead', { plug: 'two bullets 2 mm, 30 A class' })]),
    fails: [
      given([pack(), line('power lead', { plug: 'two round pins 1.0 mm' })]),
      'two bullets 2 mm',
      'two round pins',
    ],
    unknown: given([pack(), line('power lead', {})]),
  },
  charger: {
    fits: given([pack()], {}, { chargerCells: 6, chargerPlugs: 'two bullets 2 mm' }),
    fails: [given([pack()], {}, { chargerCells: 2 }), '4 cells', 'does 2'],
    unknown: given([pack({ plug: '' })], {}, { chargerPlugs: 'two bullets 2 mm' }),
  },
  'motor-pattern': {
    fits: given([
      motors({ pattern: ['12×12 M2'] }),
      line('frame', { motorPatterns: ['0.4724 in × 0.4724 in', '9×9'] }),
    ]),
    fails: [
      given([motors({ pattern: ['9×9 M2'] }), line('frame', { motorPatterns: ['12×12 M2'] })]),
      '9×9 M2',
      '12×12 M2',
    ],
    unknown: given([motors({ pattern: ['9×9'] }), line('frame', {})]),
  },
  'prop-room': {
    fits: given([line('propeller', { diameterMm: 76.2 }), line('frame', { propMaxMm: 78 })]),
    fails: [given([line('propeller', { diameterMm: 89 }), line('frame', { propMaxMm: 78 })]), '89 mm', '78 mm'],
    unknown: given([line('propeller', { diameterMm: 89 }), line('frame', {})]),
  },
  'prop-mount': {
    fits: given([line('propeller', { mount: 'two screws' }), motors({ propMount: 'two screws' })]),
    fails: [
      given([
        line('propeller', { mount: 'pressed on a shaft', shaftMm: 1 }),
        motors({ propMount: 'pressed on a shaft', shaftMm: 1.5 }),
      ]),
      '1 mm',
      '1.5 mm',
    ],
    unknown: given([line('propeller', {}), motors({ propMount: 'two screws' })]),
  },
  'board-pattern': {
    fits: given([
      line('board', { pattern: ['25.5×25.5 M2'] }),
      line('frame', { boardPatterns: ['16×16', '25.5×25.5'] }),
    ]),
    fails: [
      given([line('board', { pattern: ['20×20'] }), line('frame', { boardPatterns: ['16×16'] })]),
      '20×20',
      '16×16',
    ],
    unknown: given([line('board', {}), line('frame', { boardPatterns: ['16×16'] })]),
  },
  'camera-width': {
    fits: given([line('camera', { widthMm: 14 }), line('frame', { cameraWidthMm: 14 })]),
    fails: [given([line('camera', { widthMm: 19 }), line('canopy', { cameraWidthMm: 14 })]), '19 mm', '14 mm'],
    unknown: given([line('camera', { widthMm: 19 }), line('frame', {})]),
  },
  'pack-tray': {
    fits: given([pack({}, { lengthMm: 70, widthMm: 30 }), line('frame', { trayLengthMm: 90, trayWidthMm: 38 })]),
    fails: [
      given([pack({}, { lengthMm: 100, widthMm: 30 }), line('frame', { trayLengthMm: 90, trayWidthMm: 38 })]),
      '100 × 30 mm',
      '90 × 38 mm',
    ],
    unknown: given([pack(), line('frame', { trayLengthMm: 90, trayWidthMm: 38 })]),
  },
  'video-family': {
    fits: given([line('camera', { videoFamily: 'Digital' }), line('video transmitter', { videoFamily: 'digital' })]),
    fails: [
      given([line('camera', { videoFamily: 'analogue' }), line('video transmitter', { videoFamily: 'digital' })]),
      'analogue',
      'digital',
      'no picture',
    ],
    unknown: given([line('camera', {}), line('video transmitter', { videoFamily: 'digital' })]),
  },
  goggles: {
    fits: given([line('video transmitter', { videoFamily: 'digital' })], {}, { videoFamily: 'analogue; digital' }),
    fails: [
      given([line('video transmitter', { videoFamily: 'digital' })], {}, { videoFamily: 'analogue' }),
      'your goggles analogue',
    ],
    unknown: given([line('video transmitter', {})], {}, { videoFamily: 'analogue' }),
  },
  'hand-controller': {
    fits: given([line('receiver', { radioFamily: '2.4 GHz, wide' })], {}, { radioFamily: '2.4 GHz, wide' }),
    fails: [
      given([line('board', { provides: ['receiver'], radioFamily: 'old' })], {}, { radioFamily: 'wide' }),
      'receiver is old',
      'wide',
    ],
    unknown: given([line('receiver', {})], {}, { radioFamily: 'wide' }),
  },
  'aerial-connector': {
    fits: given([
      line('aerial', { connector: 'small push-on' }),
      line('video transmitter', { aerialConnector: 'Small push-on' }),
    ]),
    fails: [
      given([
        line('aerial', { connector: 'screwed' }),
        line('video transmitter', { aerialConnector: 'small push-on' }),
      ]),
      'screwed',
      'small push-on',
    ],
    unknown: given([line('aerial', {}), line('video transmitter', { aerialConnector: 'small push-on' })]),
  },
  polarisation: {
    fits: given([line('aerial', { polarisation: 'left hand' })], {}, { polarisation: 'left hand' }),
    fails: [
      given([line('aerial', { polarisation: 'right hand' })], {}, { polarisation: 'left hand' }),
      'right hand',
      'left hand',
      'most of the signal',
    ],
    unknown: given([line('aerial', {})], {}, { polarisation: 'left hand' }),
  },
  'aerial-there': {
    fits: given([line('video transmitter', {}), line('aerial', {})]),
    fails: [given([line('video transmitter', {})]), 'burn out'],
    unknown: given([line('video transmitter', null)]),
  },
  'radio-aerial': {
    fits: given([line('receiver', { aerialOn: true })]),
    fails: [given([line('receiver', { aerials: 2 })]), 'wants 2, 0 on board'],
    unknown: given([line('receiver', {})]),
  },
  'receiver-there': {
    fits: given([motors({}), line('board', { provides: ['receiver'] })]),
    fails: [given([motors({}), board()]), 'hears the hand controller'],
    unknown: given([motors({}), line('board', null)]),
  },
  'transmitter-there': {
    fits: given([line('camera', {}), line('video transmitter', {})]),
    fails: [given([line('camera', {}), board()]), 'sends its picture'],
    unknown: given([line('camera', {}), line('board', null)]),
  },
  twice: {
    fits: given([line('receiver', {})]),
    fails: [given([line('receiver', {}), line('board', { provides: ['receiver'] })]), 'receiver', 'saves its grams'],
    unknown: given([line('receiver', {}), line('board', null)]),
  },
  'stack-height': {
    fits: given([line('frame', { freeHeightMm: 20 })], stack(18)),
    fails: [given([line('frame', { freeHeightMm: 20 })], stack(22)), '22 mm', '20 mm'],
    unknown: given([line('frame', {})], stack(18)),
  },
  'screw-length': {
    fits: given([], joint(5)),
    fails: [given([], joint(6)), 'windings', '6 through 3 leaves 3, and 2.4 are free', 'M2 × 5 fits'],
    unknown: given([], joint(null)),
  },
  'wire-reach': {
    fits: given([], wire(120)),
    fails: [given([], wire(70)), '20 mm too short', 'splice'],
    unknown: given([], wire(null)),
  },
  'tip-speed': {
    fits: given([pack(), motors({ kv: 3000 }), line('propeller', { diameterMm: 76.2 })]),
    fails: [
      given([pack(), motors({ kv: 8000 }), line('propeller', { diameterMm: 76.2 })]),
      '8000 kV',
      'speed of sound',
    ],
    unknown: given([pack(), motors({}), line('propeller', { diameterMm: 76.2 })]),
  },
  mounting: {
    fits: given([]),
    fails: [
      given([], { mounting: { motorsUpsideDown: true, pushedProps: false, boardUpsideDown: false, boardTurnDeg: 0 } }),
      'the air would go up',
    ],
    unknown: given([]),
  },
}

describe('the rules of fit', () => {
  it('have each their three cases here', () =>
    expect(Object.keys(cases).sort()).toEqual(checks.map(check => check.id).sort()))
  const named = Object.entries(cases).map(([id, of]) => [id, of] as const)
  it.each(named)('%s: fits', (id, { fits }) => {
    const found = outcomes(id, fits)
    expect(found.length).toBeGreaterThan(0)
    expect(found.map(o => o.kind)).toEqual(found.map(() => 'fits'))
  })
  it.each(named)('%s: does not fit, and says why with the numbers', (id, { fails: [build, ...words] }) => {
    const finding = outcomes(id, build).find(o => o.kind === 'finding')
    expect(finding).toBeDefined()
    const said =
      finding?.kind === 'finding'
        ? `${finding.title} ${finding.sentence} ${finding.ways.map(w => w.words).join(' ')}`
        : ''
    for (const word of words) expect(said).toContain(word)
    expect(said).not.toMatch(/undefined|NaN|null/)
  })
  it.each(named.filter(([id]) => id !== 'mounting'))(
    '%s: what is not known is neither a pass nor a clash',
    (id, { unknown }) => {
      const found = outcomes(id, unknown)
      expect(found.some(o => o.kind === 'unknown')).toBe(true)
      expect(found.some(o => o.kind === 'finding')).toBe(false)
    },
  )
  it('mounting is never unknown: nothing said is the usual way up', () =>
    expect(outcomes('mounting', cases.mounting!.unknown)).toEqual([expect.objectContaining({ kind: 'fits' })]))
  it('a screw that holds too few threads is told from one that touches', () => {
    const [short] = outcomes('screw-length', given([], joint(4)))
    expect(short).toMatchObject({
      kind: 'finding',
      title: 'motors: screws too short',
      sentence: '4 mm holds too few threads: 1 mm of the 2 mm wanted. M2 × 5 fits.',
    })
  })
  it('motors of two threads meet but want a look; a peak within bursts is a check, not a clash', () => {
    expect(
      outcomes(
        'motor-pattern',
        given([motors({ pattern: ['12×12 M2'] }), line('frame', { motorPatterns: ['12×12 M3'] })]),
      ),
    ).toMatchObject([{ severity: 'check' }])
    expect(
      outcomes(
        'plug-amps',
        given([pack(), motors({ maxCurrentA: 6 }), line('power lead', { plug: 'two bullets 2 mm' })]),
      ),
    ).toMatchObject([{ severity: 'check' }])
    expect(
      outcomes('lead-amps', given([pack(), motors({ maxCurrentA: 10 }), line('power lead', { awg: 16 })])),
    ).toMatchObject([{ severity: 'check' }])
  })
  it('of two frame parts the one a part sits on is asked: plates with board holes, arms with motor holes', () => {
    const plates = line(
      'frame',
      { boardPatterns: ['25.5×25.5 M2'], trayLengthMm: 90, trayWidthMm: 38 },
      { id: 'plates' },
    )
    const arms = line('frame', { motorPatterns: ['9×9 M2'], propMaxMm: 90 }, { id: 'arms' })
    const lines = [
      arms,
      plates,
      motors({ pattern: ['9×9 M2'] }),
      board({ pattern: ['25.5×25.5 M2'] }),
      pack({}, { lengthMm: 70, widthMm: 30 }),
      line('propeller', { diameterMm: 76.2 }),
    ]
    for (const id of ['motor-pattern', 'board-pattern', 'pack-tray', 'prop-room'])
      expect(outcomes(id, given(lines)), id).toMatchObject([{ kind: 'fits' }])
    // Two that both have board holes: it sits on the one that suits it, and where none does, the lesser misfit is told once.
    const camera = line('frame', { boardPatterns: ['16×16 M2'] }, { id: 'top' })
    expect(outcomes('board-pattern', given([...lines, camera]))).toMatchObject([{ kind: 'fits' }])
    expect(outcomes('board-pattern', given([arms, camera, board({ pattern: ['25.5×25.5 M2'] })]))).toMatchObject([
      { kind: 'finding', severity: 'clash' },
    ])
    // Nobody says anything: one is asked, not each.
    expect(
      outcomes(
        'motor-pattern',
        given([line('frame', {}, { id: 'a' }), line('frame', {}, { id: 'b' }), motors({ pattern: ['9×9 M2'] })]),
      ),
    ).toMatchObject([{ kind: 'unknown', asks: [{ lineId: 'a', key: 'motorPatterns' }] }])
  })
  it('a board of one thread in holes of another wants a look, as a motor does', () => {
    expect(
      outcomes(
        'board-pattern',
        given([board({ pattern: ['25.5×25.5 M2'] }), line('frame', { boardPatterns: ['25.5×25.5 M3'] })]),
      ),
    ).toMatchObject([{ severity: 'check', title: 'Board screws and holes differ' }])
    expect(
      outcomes(
        'board-pattern',
        given([board({ pattern: ['25.5×25.5'] }), line('frame', { boardPatterns: ['25.5×25.5 M3'] })]),
      ),
    ).toMatchObject([{ kind: 'fits' }])
  })
  it('a frame is asked for its largest prop, not for a duct; a guard for its inside', () => {
    expect(
      outcomes('prop-room', given([line('propeller', { diameterMm: 76.2 }), line('frame', {}), line('guard', {})])),
    ).toMatchObject([{ asks: [{ key: 'propMaxMm' }] }, { asks: [{ key: 'ductMm' }] }])
  })
  it('plugs: a class is read as such, names of the builder’s own are said to be unknown, not called a clash', () => {
    const plugs = (mine: string, theirs: string) =>
      outcomes('plugs', given([pack({ plug: mine }), line('power lead', { plug: theirs })]))
    expect(plugs('30 A class', 'two bullets 2 mm (30 A class)')).toMatchObject([{ kind: 'fits' }])
    expect(plugs('30 A class', '60 A class plugs')).toMatchObject([{ severity: 'clash' }])
    expect(plugs('gold ones of my own', 'two bullets 2 mm')).toMatchObject([
      { severity: 'check', title: 'Do these plugs mate?' },
    ])
    expect(plugs('Gold ones', 'gold  ones')).toMatchObject([{ kind: 'fits' }])
    const bears = (plug: string) =>
      outcomes('plug-amps', given([pack({ plug }), motors({ maxCurrentA: 9 }), line('power lead', { plug })]))
    expect(bears('gold ones, 30 A class')).toMatchObject([
      { severity: 'clash', sentence: expect.stringContaining('bears 30 A') },
    ])
    expect(bears('gold ones, 60 A class')).toMatchObject([{ severity: 'check' }])
    expect(bears('gold ones')).toMatchObject([
      { severity: 'advice', title: 'Nobody knows what this plug bears', sentence: expect.stringContaining('36 A') },
    ])
    const charger = (plug: string) =>
      outcomes('charger', given([pack({ plug })], {}, { chargerPlugs: '30 A class; two round pins 1.0 mm' }))
    expect(charger('two bullets 2 mm')).toMatchObject([{ kind: 'fits' }])
    expect(charger('two bullets 3.5 mm')).toMatchObject([{ title: 'Your charger lacks this plug' }])
    expect(charger('gold ones')).toMatchObject([{ title: 'Does your charger have this plug?' }])
  })
  it('each bound stands where it is written: figures on both sides of it', () => {
    const kinds = (id: string, of: Case) =>
      outcomes(id, of).map(one => (one.kind === 'finding' ? one.severity : one.kind))
    const duct = (gap: number) =>
      kinds('prop-room', given([line('propeller', { diameterMm: 40 }), line('frame', { ductMm: 40 + 2 * gap })]))
    expect([duct(0.39), duct(0.41), duct(0.43)]).toEqual([['check'], ['fits'], ['fits']])
    const camera = (wide: number) =>
      kinds('camera-width', given([line('camera', { widthMm: wide }), line('frame', { cameraWidthMm: 19 })]))
    expect([19.29, 19.31, 19.32, 18.05, 17.95, 17.92].map(camera)).toEqual([
      ['fits'],
      ['clash'],
      ['clash'],
      ['fits'],
      ['check'],
      ['check'],
    ])
    const capacitor = (ratedV: number) => kinds('capacitor-volts', given([pack(), line('capacitor', { ratedV })]))
    // A full pack of four has 16.8 V; 1.2 times that is 20.16.
    expect([16.7, 16.9, 20.1, 20.2, 21].map(capacitor)).toEqual([['clash'], ['check'], ['check'], ['fits'], ['fits']])
    const holes = (side: number) =>
      kinds(
        'board-pattern',
        given([board({ pattern: ['20×20'] }), line('frame', { boardPatterns: [`${side}×${side}`] })]),
      )
    // Each hole is off by √2 × half the difference of the sides: a quarter of a millimetre is allowed.
    expect([20.35, 20.36, 20.38].map(holes)).toEqual([['fits'], ['clash'], ['clash']])
    const tip = (share: number) =>
      kinds(
        'tip-speed',
        given([
          pack(),
          motors({ kv: Math.round((share * 340 * 60) / (Math.PI * 0.0762 * 16.8 * 0.7)) }),
          line('propeller', { diameterMm: 76.2 }),
        ]),
      )
    expect([tip(0.64), tip(0.66)]).toEqual([['fits'], ['advice']])
    const near = (clearance: number) => {
      const lines = [line('frame', { wheelbaseMm: 150, ductMm: 60, freeHeightMm: 30 })]
      const centre = 150 / 2 / Math.SQRT2
      const half = centre - (30 + clearance) / Math.SQRT2
      return kinds(
        'stack-height',
        given(lines, {
          stack: {
            layers: [layer('b', 'plate', 2), layer('x', 'board', 5, { widthMm: 2 * half, lengthMm: 2 * half })],
          },
        }),
      ).filter(kind => kind !== 'fits')
    }
    expect([near(0.45), near(0.52), near(0.6), near(-0.1)]).toEqual([['check'], [], [], ['clash']])
  })
  it('a device on too many amps is offered the output that has room, by a move', () => {
    const [finding] = outcomes('output-amps', cases['output-amps']!.fails[0])
    expect(finding?.kind === 'finding' && finding.ways[0]).toEqual({
      words: 'Move payload to 5 V of the board: 0.6 A of 2 A there.',
      gramsG: 0,
      move: { lineId: 'payload', feed: { from: 'board', output: '5 V' } },
    })
  })
})

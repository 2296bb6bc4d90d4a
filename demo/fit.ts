import { usualMounting, type FitPlan, type JointPlan, type Layer, type WirePlan } from '../core/aircraft/fit'

const layer = (id: string, kind: Layer['kind'], name: string, heightMm: number, more: Partial<Layer> = {}): Layer => ({
  id,
  name,
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
const plate = (id: string, name: string, heightMm: number) =>
  layer(id, 'plate', name, heightMm, { lineId: 'frame', bare: 'both' })
const held: Readonly<Record<string, JointPlan['holds']>> = { motors: 'motors', board: 'boards' }
const joint = (
  id: string,
  name: string,
  count: number,
  lengthMm: number | null,
  clampedMm: number,
  engagementMm: number,
  freeDepthMm: number,
  more: Partial<JointPlan> = {},
): JointPlan => ({
  id,
  name,
  holds: held[id] ?? 'something else',
  count,
  thread: 'M2',
  head: 'button',
  material: 'alloy steel',
  clampedMm,
  engagementMm,
  freeDepthMm,
  beyond: 'nothing',
  into: 'aluminium',
  lengthMm,
  lineId: 'screws',
  ...more,
})
const wire = (
  id: string,
  name: string,
  from: string,
  to: string,
  awg: number,
  count: number,
  routeMm: number,
  slackMm: number,
  haveMm: number | null,
): WirePlan => ({ id, name, from, to, awg, count, routeMm, slackMm, haveMm })

/** How the parts of the demo builds go together. */
export const fitOf: Readonly<Record<string, Partial<FitPlan>>> = {
  sherbet: {
    stack: {
      layers: [
        layer('b', 'plate', 'Floor of the frame', 1, { lineId: 'frame' }),
        layer('g', 'grommet', 'Rubber balls', 2.5),
        layer('a', 'board', 'All-in-one board', 5.5, {
          lineId: 'board',
          widthMm: 29,
          lengthMm: 29,
          turnDeg: 45,
          bare: 'both',
          port: 'back',
        }),
        layer('air', 'gap', 'Air under the canopy', 3),
      ],
    },
    joints: [
      joint('canopy', 'Canopy to frame', 3, 4, 2, 1.5, 3, { thread: 'M1.4', head: 'pan', into: 'plastic', count: 3 }),
      joint('board', 'Board on its balls', 4, 4, 2.5, 1, 3.5, { thread: 'M1.4', head: 'pan', into: 'plastic' }),
    ],
    mounting: { ...usualMounting, boardTurnDeg: 45 },
  },
  praline: {
    stack: {
      layers: [
        plate('b', 'Frame plate', 2),
        layer('s', 'screw head', 'Screw heads', 1.1),
        layer('g', 'grommet', 'Grommets', 1.5),
        layer('a', 'board', 'All-in-one board', 6, {
          lineId: 'board',
          widthMm: 29,
          lengthMm: 29,
          turnDeg: 45,
          bare: 'both',
          port: 'left',
        }),
        layer('sp', 'spacer', 'Spacers', 1.5),
        layer('v', 'board', 'Transmitter', 3.5, { lineId: 'vtx', widthMm: 28, lengthMm: 28, turnDeg: 45 }),
        layer('air', 'gap', 'Air under the canopy', 2),
        layer('ae', 'aerial', 'Wire dipole', 32, { lineId: 'aerial' }),
      ],
    },
    joints: [
      joint('motors', 'Motors on the arms', 8, 6, 4, 1.5, 2.5, { beyond: 'windings' }),
      joint('canopy', 'Canopy', 4, 6, 3.5, 2, 6, { into: 'plastic' }),
    ],
    mounting: { ...usualMounting, boardTurnDeg: 45 },
  },
  marzipan: {
    stack: {
      layers: [
        plate('b', 'Bottom plate', 2),
        layer('s', 'screw head', 'Screw heads', 1.1),
        layer('g', 'grommet', 'Grommets', 1.4),
        layer('a', 'board', 'All-in-one board', 7.5, {
          lineId: 'board',
          widthMm: 33,
          lengthMm: 33,
          turnDeg: 45,
          bare: 'both',
          port: 'left',
        }),
        layer('sp', 'spacer', 'Spacers', 1.5),
        layer('v', 'board', 'Transmitter, cased', 6, {
          lineId: 'vtx',
          widthMm: 31,
          lengthMm: 31,
          turnDeg: 45,
          port: 'back',
        }),
        plate('t', 'Top plate', 1.5),
        layer('ae', 'aerial', 'Stub', 28, { lineId: 'aerial' }),
      ],
    },
    joints: [joint('motors', 'Motors, through arm and foot', 16, 8, 6, 1.8, 2.4, { beyond: 'windings' })],
    wires: [
      wire('motor', 'Motor leads', 'motors', 'board', 24, 12, 56, 6, 62),
      wire('lamp', 'Ridge lamp', 'board', 'lamp', 28, 2, 90, 10, null),
      wire('gps', 'Satellite receiver', 'board', 'navigation', 30, 4, 70, 8, 110),
    ],
    mounting: { ...usualMounting, boardTurnDeg: 45 },
    considered: [
      {
        id: 'c1',
        slot: 'video transmitter',
        name: 'Oddfellow digital, long range, 1 W',
        grams: 24.3,
        why: 'Seven grams more and hot without a fan: the ridge is never that far away.',
        on: '2026-10-12',
      },
    ],
  },
  nougat: {
    stack: {
      layers: [
        plate('b', 'Bottom plate', 2),
        layer('s', 'screw head', 'Screw heads', 2),
        layer('g', 'grommet', 'Grommets', 2),
        layer('a', 'board', 'All-in-one board', 7.5, {
          lineId: 'board',
          widthMm: 33,
          lengthMm: 33,
          turnDeg: 45,
          bare: 'both',
          port: 'left',
        }),
        layer('sp', 'spacer', 'Spacers', 2),
        layer('v', 'board', 'Digital light unit', 7, {
          lineId: 'vtx',
          widthMm: 32,
          lengthMm: 32,
          turnDeg: 45,
          port: 'back',
        }),
        layer('r', 'ribbon', 'Bend of the camera cable', 2),
        plate('t', 'Top plate', 2),
        layer('ae', 'aerial', 'Stub on coax', 62, { lineId: 'aerial' }),
      ],
    },
    joints: [
      joint('motors', 'Motors on the arms', 16, 10, 4, 2, 2.6, { head: 'socket cap', beyond: 'windings' }),
      joint('top', 'Top plate and heat camera foot', 4, 10, 8, 3, 6, { head: 'socket cap' }),
    ],
    wires: [
      wire('motor', 'Motor leads', 'motors', 'board', 24, 12, 66, 6, 150),
      wire('heat', 'Heat camera feed', 'board', 'payload', 28, 2, 85, 10, 120),
    ],
    mounting: { ...usualMounting, boardTurnDeg: 45 },
  },
  treacle: {
    mounting: { motorsUpsideDown: true, pushedProps: true, boardUpsideDown: false, boardTurnDeg: 0 },
    wires: [wire('gps', 'Satellite receiver', 'board', 'navigation', 30, 4, 110, 8, 80)],
  },
}

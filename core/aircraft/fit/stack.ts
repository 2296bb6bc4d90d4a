import { CoreInputError } from '../../basics/errors'
import type { Line } from '../../model/ledger'
import { measureOf } from '../../model/properties'
import type { Layer, Stack } from '../../model/data'
import { armsSaid } from './arms'
import { frameWith, saidOfFrame } from './frame-with'

/** Lengths standoffs are sold in, mm. */
export const standoffLengthsMm = [4, 5, 6, 8, 10, 12, 14, 15, 16, 18, 20, 22, 25, 28, 30, 35, 40, 45, 50] as const

/** A layer at its height above the bottom plate's underside, mm. */
export interface PlacedLayer {
  readonly layer: Layer
  readonly fromMm: number
  readonly toMm: number
}

export interface Touching {
  readonly below: Layer
  readonly above: Layer
  readonly gapMm: number
}
export interface Crowded {
  readonly layer: Layer
  readonly clearanceMm: number
}

export interface StackUp {
  readonly placed: readonly PlacedLayer[]
  /**
   * Between the first and the last plate; all above the first plate when there is only one. At least that where heights
   * between are unknown.
   */
  readonly neededMm: number
  /** Layers whose height nobody has said, of those between the plates and of all; they stand at no height. */
  readonly unknownBetween: readonly Layer[]
  readonly unknown: readonly Layer[]
  /** The shortest standoff that is sold and long enough; null when none is, or while a height between is unknown. */
  readonly standoffMm: number | null
  /** What the frame's free height still allows; null when it is not known. At most that where heights between are unknown. */
  readonly leftMm: number | null
  readonly overallMm: number
  /** Bare metal against bare metal with too little between. */
  readonly touching: readonly Touching[]
  /** Boards whose outline meets a duct or a prop's disc. */
  readonly crowded: readonly Crowded[]
}

/** Where props or ducts turn, seen from above: four discs about the middle, mm. */
export interface Discs {
  readonly centresMm: readonly (readonly [number, number])[]
  readonly radiusMm: number
}

/** Bare metal wants this much air or something that insulates between. */
const airMm = 1
/** What sits only at the corners or gives way: metal sees past it. */
const seenPast: readonly Layer['kind'][] = ['gap', 'ribbon', 'grommet', 'spacer', 'screw head']

const facesUp = (layer: Layer) => layer.bare === 'above' || layer.bare === 'both'
const facesDown = (layer: Layer) => layer.bare === 'below' || layer.bare === 'both'

/** A layer with what its line says of its size, where the layer itself says nothing. */
function sized(layer: Layer, line: Line): Layer {
  const own = (key: 'heightMm' | 'widthMm' | 'lengthMm') => layer[key] ?? measureOf(line, key) ?? null
  return { ...layer, heightMm: own('heightMm'), widthMm: own('widthMm'), lengthMm: own('lengthMm') }
}
/** The stack with what the lines say of the sizes of their boards and aerials: a height said there joins here. */
export function stackOf(stack: Stack, lines: readonly Line[]): Stack {
  const byId = new Map(lines.map(line => [line.id, line]))
  return {
    layers: stack.layers.map(layer => {
      const line = layer.lineId === null ? undefined : byId.get(layer.lineId)
      return line && (layer.kind === 'board' || layer.kind === 'aerial') ? sized(layer, line) : layer
    }),
  }
}

/**
 * Places the layers from the bottom plate up and computes what holds them apart. `freeHeightMm` is the frame's room
 * between plates, `discs` where props or ducts turn; both may be unknown.
 */
export function stackUp(stack: Stack, freeHeightMm: number | null, discs: Discs | null): StackUp {
  let at = 0
  const placed = stack.layers.map((layer): PlacedLayer => {
    const heightMm = layer.heightMm ?? 0
    if (!(heightMm >= 0 && heightMm <= 200))
      throw new CoreInputError('stackUp', 'heightMm', heightMm, { is: 'in range', least: 0, most: 200 })
    const fromMm = at
    at += heightMm
    return { layer, fromMm, toMm: at }
  })
  const plates = placed.filter(p => p.layer.kind === 'plate')
  const bottom = plates[0]
  const top = plates.length > 1 ? plates.at(-1)! : null
  const roofMm = top ? top.fromMm : (placed.filter(p => p.layer.kind !== 'aerial').at(-1)?.toMm ?? 0)
  const neededMm = roofMm - (bottom ? bottom.toMm : 0)
  const inRoom = placed
    .filter(p => p !== bottom && p.layer.kind !== 'aerial' && (!top || placed.indexOf(p) < placed.indexOf(top)))
    .map(p => p.layer)
  const unknownBetween = inRoom.filter(layer => layer.heightMm === null)
  const leftMm = freeHeightMm === null ? null : freeHeightMm - neededMm
  return {
    placed,
    neededMm,
    leftMm,
    overallMm: at,
    unknownBetween,
    unknown: stack.layers.filter(layer => layer.heightMm === null),
    standoffMm:
      unknownBetween.length > 0 ? null : (standoffLengthsMm.find(length => length >= neededMm - 1e-9) ?? null),
    touching: touchingOf(placed),
    crowded: discs
      ? placed
          .filter(p => p.layer.kind === 'board' && p.layer.widthMm !== null && p.layer.lengthMm !== null)
          .map(p => ({ layer: p.layer, clearanceMm: clearanceMm(p.layer, discs) }))
          .filter(c => c.clearanceMm < 0.5)
      : [],
  }
}

/** Which layer is the plate that standoffs hold above another; null in a stack without one. */
export function upperPlate(layers: readonly Layer[]): number | null {
  const last = layers.findLastIndex(layer => layer.kind === 'plate')
  return last > layers.findIndex(layer => layer.kind === 'plate') ? last : null
}

/** Looks from each bare upper face to the next plate or board above it. */
function touchingOf(placed: readonly PlacedLayer[]): Touching[] {
  return placed.flatMap((below, i) => {
    if (!facesUp(below.layer)) return []
    const between = placed.slice(i + 1)
    const next = between.findIndex(p => !seenPast.includes(p.layer.kind))
    const above = between[next]
    if (!above || !facesDown(above.layer)) return []
    if (between.slice(0, next).some(p => p.layer.heightMm === null)) return []
    const gapMm = above.fromMm - below.toMm
    return gapMm < airMm - 1e-9 ? [{ below: below.layer, above: above.layer, gapMm }] : []
  })
}

/** Corners of a layer's outline after its turn, mm about the middle. */
export function outlineMm(layer: Layer): (readonly [number, number])[] {
  const [w, l] = [(layer.widthMm ?? 0) / 2, (layer.lengthMm ?? 0) / 2]
  const [cos, sin] = [Math.cos((layer.turnDeg * Math.PI) / 180), Math.sin((layer.turnDeg * Math.PI) / 180)]
  return (
    [
      [l, w],
      [-l, w],
      [-l, -w],
      [l, -w],
    ] as const
  ).map(([x, y]) => [x * cos - y * sin, x * sin + y * cos] as const)
}

/** The least room between an outline and any disc; negative where they overlap. */
export function clearanceMm(layer: Layer, discs: Discs): number {
  const [w, l] = [(layer.widthMm ?? 0) / 2, (layer.lengthMm ?? 0) / 2]
  const [cos, sin] = [Math.cos((-layer.turnDeg * Math.PI) / 180), Math.sin((-layer.turnDeg * Math.PI) / 180)]
  return Math.min(
    ...discs.centresMm.map(([cx, cy]) => {
      const [x, y] = [cx * cos - cy * sin, cx * sin + cy * cos]
      return Math.hypot(Math.max(Math.abs(x) - l, 0), Math.max(Math.abs(y) - w, 0)) - discs.radiusMm
    }),
  )
}

/** The discs of a four-motor craft, from its arms and the duct or prop; null when either is not known. */
export function discsOf(lines: readonly Line[]): Discs | null {
  const prop = lines.find(line => line.slot === 'propeller')
  const arms = armsSaid(lines)
  const acrossMm = saidOfFrame(lines, 'ductMm') ?? (prop && measureOf(prop, 'diameterMm'))
  if (!arms || acrossMm === undefined) return null
  const { forwardMm, sidewaysMm } = arms
  return {
    centresMm: [
      [forwardMm, sidewaysMm],
      [-forwardMm, sidewaysMm],
      [-forwardMm, -sidewaysMm],
      [forwardMm, -sidewaysMm],
    ],
    radiusMm: acrossMm / 2,
  }
}

const stacked = ['speed controller', 'power distribution', 'board', 'video transmitter'] as const

/**
 * A stack to begin with: the plate, every board-like line on grommets with air above it, the upper plate where the frame
 * has a room between plates. Only what is said has a height; the rest waits for somebody who measures it.
 */
export function suggestStack(lines: readonly Line[], newId: () => string): Stack {
  const frame = frameWith(lines, 'freeHeightMm')
  const plateMm = (frame && measureOf(frame, 'plateThicknessMm')) ?? null
  const layer = (kind: Layer['kind'], name: string, heightMm: number | null, more: Partial<Layer> = {}): Layer => ({
    id: newId(),
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
  const boards = stacked.flatMap(slot => lines.filter(line => line.slot === slot))
  const between = boards.flatMap((line, i) => [
    ...(i === 0 ? [layer('screw head', 'Screw heads', null)] : []),
    layer('grommet', 'Grommets', null),
    layer('board', line.name, null, {
      lineId: line.id,
      bare: line.slot === 'video transmitter' ? 'none' : 'both',
      port: line.slot === 'board' ? 'left' : null,
    }),
    layer('gap', 'Air', null),
  ])
  const aerial = lines.find(line => line.slot === 'aerial' && measureOf(line, 'heightMm') !== undefined)
  return {
    layers: [
      layer('plate', 'Bottom plate', plateMm, { lineId: frame?.id ?? null, bare: 'both' }),
      ...between,
      ...(frame && measureOf(frame, 'freeHeightMm') !== undefined
        ? [layer('plate', 'Top plate', null, { lineId: frame.id, bare: 'both' })]
        : []),
      ...(aerial ? [layer('aerial', aerial.name, null, { lineId: aerial.id })] : []),
    ],
  }
}

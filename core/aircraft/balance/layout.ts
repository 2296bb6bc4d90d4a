import { countedLines, type LineEstimates } from '../../mass/loadout'
import { scaleEstimate } from '../../maths/estimate'
import { blankPlaces, packLabel, type Build, type Line, type LoadoutChoice, type Slot } from '../../model/ledger'
import {
  armsOf,
  saidOfFrame,
  stackOf,
  stackUp,
  suggestStack,
  upperPlate,
  type Arms,
  type Layer,
  type PlacedLayer,
} from '../fit'
import type { Rotor } from './loads'
import type { Range } from './moves'
import { pieceKey, type Piece, type Vec3 } from './pieces'
import { sizeOf, type Size } from './sizes'

/** How well a place is known that nobody has said, one standard uncertainty, mm. */
const assumedSigmaMm = 3
const looseSigmaMm = 10

/** What has no place of its own: it is spread over the craft. */
const spreadSlots: readonly Slot[] = ['wire', 'coating', 'other']
/** What sits as one group about its middle, however many pieces. */
const groupedSlots: readonly Slot[] = ['screw', 'standoff']
/** What is fixed to the pack and goes where it goes. */
const packFollowers: readonly Slot[] = ['strap', 'pad']

/** Heights of layers that nobody has said, mm, as such layers usually are. Our choice. */
const usualLayerMm: Readonly<Record<Layer['kind'], number>> = {
  plate: 2,
  board: 6,
  spacer: 2,
  grommet: 1.5,
  'screw head': 1.2,
  gap: 2,
  ribbon: 1,
  aerial: 25,
}

/** Where everything sits in one loadout. */
export interface Layout {
  readonly pieces: readonly Piece[]
  /** Lines without a place of their own: they hang in the centre of gravity. */
  readonly spread: readonly Line[]
  readonly arms: Arms
  readonly rotors: readonly Rotor[]
  /** Height of the props, mm; null without any. */
  readonly propPlaneMm: number | null
  /** Where the middle of the pack may lie, and the tray's front edge; null while nobody has said how long the tray is. */
  readonly tray: { readonly frontMm: number; readonly lengthMm: number; readonly isFrontAssumed: boolean } | null
}

interface Ground {
  readonly arms: Arms
  readonly armMm: number
  /** Height of the upper side of the stack, mm, and of the middle of each layer that is a line. */
  readonly topMm: number
  readonly layers: ReadonlyMap<string, { readonly midMm: number; readonly turnDeg: number }>
  readonly motor: Size | null
  readonly upsideDown: boolean
  readonly pushed: boolean
  readonly noseMm: number
  readonly packMm: Vec3
  readonly packSigmaMm: number | null
  readonly packSize: Size | null
  readonly packSide: 'above' | 'below'
  /** Places of motors that somebody has said: their props go with them. */
  readonly motorPlaces: ReadonlyMap<number, Vec3>
}

const liftedBy = (one: PlacedLayer, mm: number): PlacedLayer => ({
  ...one,
  fromMm: one.fromMm + mm,
  toMm: one.toMm + mm,
})

/** The stack in the craft's own heights: what nobody has said is as usual. */
function stackHeights(build: Build, lines: readonly Line[], armMm: number): Pick<Ground, 'topMm' | 'layers'> {
  let n = 0
  const stack = stackOf(build.fit?.stack ?? suggestStack(lines, () => `layer-${n++}`), lines)
  const { placed: stacked, leftMm } = stackUp(
    { layers: stack.layers.map(layer => ({ ...layer, heightMm: layer.heightMm ?? usualLayerMm[layer.kind] })) },
    saidOfFrame(lines, 'freeHeightMm') ?? null,
    null,
  )
  // Standoffs hold the upper plate, and all above it, where the frame has its room; never lower than the boards need.
  const upper = upperPlate(stack.layers)
  const placed = stacked.map((one, i) => (upper === null || i < upper ? one : liftedBy(one, Math.max(0, leftMm ?? 0))))
  const mid = ({ fromMm, toMm }: PlacedLayer) => (fromMm + toMm) / 2 - armMm
  const layers = new Map(
    placed.flatMap(one =>
      one.layer.lineId === null || one.layer.kind === 'plate'
        ? []
        : [[one.layer.lineId, { midMm: mid(one), turnDeg: one.layer.turnDeg }]],
    ),
  )
  const roof = placed.filter(one => one.layer.kind !== 'aerial').at(-1)
  return { topMm: roof ? roof.toMm - armMm : 0, layers }
}

/** Where each piece of a line usually sits: forward, left, up, mm. */
function usualPlaces(line: Line, size: Size, ground: Ground): readonly Vec3[] {
  const { arms, topMm, noseMm, armMm, packMm, packSize, packSide } = ground
  const [, , high] = size.sizeMm
  const layer = ground.layers.get(line.id)
  if (layer) return [[line.slot === 'aerial' ? -noseMm : 0, 0, layer.midMm]]
  const onTop = topMm + high / 2
  const motorHigh = ground.motor?.sizeMm[2] ?? 12
  const motorMm = ground.upsideDown ? -armMm - motorHigh / 2 : motorHigh / 2
  const pushes = ground.upsideDown !== ground.pushed
  const propMm = pushes ? -armMm - motorHigh - 1 : motorHigh + 1
  switch (line.slot) {
    case 'frame':
      return [[0, 0, -high / 2]]
    case 'motor':
      return onArms(line.quantity, arms, motorMm)
    case 'propeller':
      return onArms(line.quantity, arms, propMm).map((at, i): Vec3 => {
        const motorAt = ground.motorPlaces.get(i)
        return motorAt ? [motorAt[0], motorAt[1], at[2]] : at
      })
    case 'guard':
      return line.quantity > 1 ? onArms(line.quantity, arms, motorMm) : [[0, 0, motorMm]]
    case 'canopy':
      return [[noseMm / 3, 0, onTop]]
    case 'camera':
      return beside(line.quantity, [noseMm, 0, Math.max(high / 2, topMm / 2)], size)
    case 'aerial':
      return beside(line.quantity, [-noseMm, 0, onTop], size)
    case 'power lead':
      return [[-noseMm * 0.8, 0, topMm / 2]]
    case 'capacitor':
      return beside(line.quantity, [-noseMm * 0.6, 6, topMm / 2], size)
    case 'video transmitter':
    case 'receiver':
      return beside(line.quantity, [-noseMm * 0.5, 0, topMm / 2], size)
    case 'navigation':
      return [[-noseMm * 0.8, 0, onTop]]
    case 'sounder':
      return [[-noseMm * 0.5, -8, topMm / 2]]
    case 'payload':
      return beside(line.quantity, [noseMm * 0.6, 0, onTop], size)
    case 'pack':
      return [packMm]
    case 'strap':
      return beside(line.quantity, packMm, size)
    case 'pad':
      return [[packMm[0], 0, packMm[2] - ((packSide === 'above' ? 1 : -1) * (packSize?.sizeMm[2] ?? 28)) / 2]]
    default:
      return beside(line.quantity, [0, 0, topMm / 2], size)
  }
}

/** So many on the arms: four at the corners, front right first and round; others evenly on a ring through them. */
function onArms(count: number, { forwardMm, sidewaysMm }: Arms, zMm: number): readonly Vec3[] {
  if (count === 4)
    return [
      [forwardMm, -sidewaysMm, zMm],
      [forwardMm, sidewaysMm, zMm],
      [-forwardMm, sidewaysMm, zMm],
      [-forwardMm, -sidewaysMm, zMm],
    ]
  const reach = Math.hypot(forwardMm, sidewaysMm)
  return Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * (i + 0.5)) / count
    return [reach * Math.cos(angle), reach * Math.sin(angle), zMm] as const
  })
}

/** Several of one thing stand side by side. */
function beside(count: number, [x, y, z]: Vec3, { sizeMm: [, wide] }: Size): readonly Vec3[] {
  return Array.from({ length: count }, (_, i) => [x, y + (i - (count - 1) / 2) * (wide + 2), z] as const)
}

function groundOf(build: Build, lines: readonly Line[]): Ground {
  const arms = armsOf(lines)
  const armMm = saidOfFrame(lines, 'armThicknessMm') ?? saidOfFrame(lines, 'plateThicknessMm') ?? 2
  const { topMm, layers } = stackHeights(build, lines, armMm)
  const motor = lines.find(line => line.slot === 'motor')
  const pack = lines.find(line => line.slot === 'pack')
  const pad = lines.find(line => line.slot === 'pad')
  const packSide = (build.places ?? blankPlaces).packSide
  const packSize = pack ? sizeOf(pack) : null
  const padMm = pad ? sizeOf(pad).sizeMm[2] : 0
  const place = pack && build.places?.pieces.find(one => one.lineId === pack.id)
  const trayLengthMm = saidOfFrame(lines, 'trayLengthMm')
  const frontMm = saidOfFrame(lines, 'trayFrontMm')
  const middleMm = trayLengthMm !== undefined && frontMm !== undefined ? frontMm - trayLengthMm / 2 : 0
  const packHigh = packSize?.sizeMm[2] ?? 28
  const usualPackMm = packSide === 'above' ? topMm + padMm + packHigh / 2 : -armMm - padMm - packHigh / 2
  return {
    arms,
    armMm,
    topMm,
    layers,
    motor: motor ? sizeOf(motor) : null,
    upsideDown: build.fit?.mounting.motorsUpsideDown ?? false,
    pushed: build.fit?.mounting.pushedProps ?? false,
    noseMm: Math.max(20, arms.forwardMm * 0.85),
    packMm: place ? [place.xMm, place.yMm, place.zMm] : [middleMm, 0, usualPackMm],
    packSigmaMm: place ? place.sigmaMm : null,
    packSize,
    packSide,
    motorPlaces: new Map(
      (build.places?.pieces ?? []).flatMap(one =>
        one.lineId === motor?.id ? [[one.number, [one.xMm, one.yMm, one.zMm] as const] as const] : [],
      ),
    ),
  }
}

/** How well the usual place of a kind is known, mm. */
function usualSigma(line: Line, { arms, packSigmaMm }: Ground): Vec3 {
  if (line.slot === 'motor' || line.slot === 'propeller' || (line.slot === 'guard' && line.quantity > 1))
    return [arms.sigmaMm, arms.sigmaMm, 1]
  if (line.slot === 'frame') return [arms.sigmaMm + 1, 1, 1]
  if (packFollowers.includes(line.slot) && packSigmaMm !== null) return [packSigmaMm + 1, 1, assumedSigmaMm]
  const loose = line.slot === 'printed part' || line.slot === 'payload' || groupedSlots.includes(line.slot)
  const sigma = loose ? looseSigmaMm : assumedSigmaMm
  return [sigma, sigma, sigma]
}

/** How wide the frame is: to the motors and a little beyond. */
function frameSize(size: Size, { arms, armMm }: Ground): Size {
  return { ...size, sizeMm: [arms.forwardMm * 2 + 16, arms.sidewaysMm * 2 + 16, armMm], isAssumed: true }
}

function piecesOf(line: Line, ground: Ground, build: Build, estimates: LineEstimates): Piece[] {
  const isGrouped = groupedSlots.includes(line.slot)
  const own = sizeOf(line)
  const size = line.slot === 'frame' ? frameSize(own, ground) : own
  const usual = usualPlaces(isGrouped ? { ...line, quantity: 1 } : line, size, ground)
  const mass = scaleEstimate(estimates.of(line), 1 / usual.length)
  return usual.map((atMm, number): Piece => {
    const place = build.places?.pieces.find(one => one.lineId === line.id && one.number === number)
    const layer = ground.layers.get(line.id)
    // What is fixed to the pack errs with it.
    const follows = !place && packFollowers.includes(line.slot)
    return {
      key: pieceKey(line.id, number),
      lineId: line.id,
      number,
      slot: line.slot,
      name: line.slot === 'pack' ? packLabel(line) : line.name,
      mass,
      atMm: place ? [place.xMm, place.yMm, place.zMm] : atMm,
      sigmaMm: place ? [place.sigmaMm, place.sigmaMm, place.sigmaMm] : usualSigma(line, ground),
      sizeMm: size.sizeMm,
      shape: size.shape,
      turnDeg:
        place?.turnDeg ?? layer?.turnDeg ?? (line.slot === 'pack' ? (build.places ?? blankPlaces).packTurnDeg : 0),
      tiltDeg: place?.tiltDeg ?? 0,
      isAssumed: !place,
      isSizeAssumed: size.isAssumed,
      goesWithPack: follows,
      placedWith: follows ? { name: 'round the pack', signs: [1, 1, 1] } : undefined,
    }
  })
}

/** The motors as rotors: neighbours turn against each other. */
function rotorsOf(pieces: readonly Piece[]): Rotor[] {
  const motors = pieces.filter(piece => piece.slot === 'motor')
  const round = motors.map((_, i) => i).sort((a, b) => angleOf(motors[a]!) - angleOf(motors[b]!))
  const spins = new Map(round.map((i, place) => [i, place % 2 === 0 ? 1 : -1] as const))
  return motors.map(({ atMm: [xMm, yMm] }, i): Rotor => ({ xMm, yMm, spin: spins.get(i)! as 1 | -1 }))
}
const angleOf = ({ atMm: [x, y] }: Piece) => Math.atan2(y, x)

/**
 * Where every piece of a loadout sits: as somebody has said, else where such pieces usually sit on such a craft. Lines
 * without grams weigh nothing there.
 */
export function layoutOf(build: Build, choice: LoadoutChoice, estimates: LineEstimates): Layout {
  const lines = countedLines(build, choice)
  const ground = groundOf(build, lines)
  const placed = lines.filter(line => !spreadSlots.includes(line.slot) || isPlaced(build, line))
  const pieces = placed.flatMap(line => piecesOf(line, ground, build, estimates))
  const props = pieces.filter(piece => piece.slot === 'propeller')
  const lengthMm = saidOfFrame(lines, 'trayLengthMm')
  const frontMm = saidOfFrame(lines, 'trayFrontMm')
  return {
    pieces,
    spread: lines.filter(line => !placed.includes(line)),
    arms: ground.arms,
    rotors: rotorsOf(pieces),
    propPlaneMm: props.length === 0 ? null : props.reduce((sum, prop) => sum + prop.atMm[2], 0) / props.length,
    tray:
      lengthMm === undefined
        ? null
        : { frontMm: frontMm ?? lengthMm / 2, lengthMm, isFrontAssumed: frontMm === undefined },
  }
}

const isPlaced = (build: Build, line: Line) => build.places?.pieces.some(place => place.lineId === line.id) ?? false

/** Where the middle of a pack so long may lie on the tray, mm: within it, or as far over both ends as it is longer. */
export function trayRange(tray: NonNullable<Layout['tray']>, packLengthMm: number): Range {
  const ends = [tray.frontMm - packLengthMm / 2, tray.frontMm - tray.lengthMm + packLengthMm / 2] as const
  return { leastMm: Math.min(...ends), mostMm: Math.max(...ends) }
}

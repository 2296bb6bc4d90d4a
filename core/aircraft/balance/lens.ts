import { CoreInputError, requireFinite, requireNotNegative } from '../../basics/errors'
import type { Vec3 } from './pieces'

/** What a lens sees: straight lines stay straight, within angles across and up; or wide, with equal angles at equal distances. */
export type Lens =
  | { readonly kind: 'straight'; readonly acrossDeg: number; readonly upDeg: number }
  | { readonly kind: 'wide'; readonly diagonalDeg: number; readonly aspect: number }

/** Where something turns: a level disc, with a hole where it is a ring, mm. */
export interface Disc {
  readonly atMm: Vec3
  readonly radiusMm: number
  readonly holeMm: number
}

/** Tilts at which no disc is seen, degrees. */
export interface ClearRange {
  readonly fromDeg: number
  readonly toDeg: number
}

const rad = Math.PI / 180

/** Throws where a field or an aspect is out of range, or a number is not finite. */
function requireLens(lens: Lens): void {
  const within = (field: string, value: number, most: number, under: boolean) => {
    if (!(value > 0 && (under ? value < most : value <= most)))
      throw new CoreInputError('lens', field, value, {
        is: 'in range',
        above: 0,
        ...(under ? { under: most } : { most }),
      })
  }
  if (lens.kind === 'straight') {
    within('acrossDeg', lens.acrossDeg, 180, true)
    within('upDeg', lens.upDeg, 180, true)
  } else {
    within('diagonalDeg', lens.diagonalDeg, 360, false)
    within('aspect', lens.aspect, 10, false)
  }
}

/** A lens of which one angle is known, with the others from the aspect of its picture. */
export function lensFrom(
  kind: Lens['kind'],
  known: { readonly of: 'across' | 'up' | 'diagonal'; readonly deg: number },
  aspect: number,
): Lens {
  const diagonal = Math.sqrt(1 + aspect ** 2)
  if (kind === 'wide') {
    const share = { across: aspect / diagonal, up: 1 / diagonal, diagonal: 1 }[known.of]
    const lens: Lens = { kind, diagonalDeg: known.deg / share, aspect }
    requireLens(lens)
    return lens
  }
  if (!(known.deg > 0 && known.deg < 180))
    throw new CoreInputError('lens', `${known.of}Deg`, known.deg, { is: 'in range', above: 0, under: 180 })
  const half = Math.tan((known.deg / 2) * rad)
  const halfAcross = { across: half, up: half * aspect, diagonal: (half * aspect) / diagonal }[known.of]
  const lens: Lens = {
    kind,
    acrossDeg: (2 * Math.atan(halfAcross)) / rad,
    upDeg: (2 * Math.atan(halfAcross / aspect)) / rad,
  }
  requireLens(lens)
  return lens
}

/** A point in the lens’s picture, −1 to 1 across (left is −1) and up; null where the lens cannot see it, whatever its edges. */
export function inPicture(
  lens: Lens,
  cameraMm: Vec3,
  tiltDeg: number,
  pointMm: Vec3,
): readonly [number, number] | null {
  const [ahead, left, up] = toCamera(cameraMm, tiltDeg, pointMm)
  if (lens.kind === 'straight') {
    if (!(ahead > 0)) return null
    return [-left / ahead / Math.tan((lens.acrossDeg / 2) * rad), up / ahead / Math.tan((lens.upDeg / 2) * rad)]
  }
  const off = Math.hypot(left, up)
  if (off === 0) return ahead > 0 ? [0, 0] : null
  const r = Math.atan2(off, ahead) / ((lens.diagonalDeg / 2) * rad)
  const diagonal = Math.sqrt(1 + lens.aspect ** 2)
  return [((-r * left) / off) * (diagonal / lens.aspect), ((r * up) / off) * diagonal]
}

function toCamera([cx, cy, cz]: Vec3, tiltDeg: number, [x, y, z]: Vec3): Vec3 {
  const [cos, sin] = [Math.cos(tiltDeg * rad), Math.sin(tiltDeg * rad)]
  const [dx, dy, dz] = [x - cx, y - cy, z - cz]
  return [dx * cos + dz * sin, dy, -dx * sin + dz * cos]
}

/** How far outside the picture a point is: 1 on its edge, below that in it. */
function outside(lens: Lens, cameraMm: Vec3, tiltDeg: number, pointMm: Vec3): number {
  const seen = inPicture(lens, cameraMm, tiltDeg, pointMm)
  return seen ? Math.max(Math.abs(seen[0]), Math.abs(seen[1])) : Infinity
}

/** Whether any point of the disc is in the picture, rim or not. */
export function seesDisc(lens: Lens, cameraMm: Vec3, tiltDeg: number, disc: Disc): boolean {
  return lens.kind === 'straight'
    ? straightSees(lens, cameraMm, tiltDeg, disc)
    : wideSees(lens, cameraMm, tiltDeg, disc)
}

/**
 * A straight-line lens sees a convex part of the disc’s plane, bounded by the four planes of its picture: the disc is in it
 * where its nearest point is within the rim and its farthest beyond the hole.
 */
function straightSees(lens: Extract<Lens, { kind: 'straight' }>, camera: Vec3, tiltDeg: number, disc: Disc): boolean {
  const [cos, sin] = [Math.cos(tiltDeg * rad), Math.sin(tiltDeg * rad)]
  const dz = disc.atMm[2] - camera[2]
  // Seen from the middle of the disc: a point (u, v) beside it is ahead a = a0 + u·cos, left b = b0 + v, up e = e0 − u·sin.
  const [dx, b0] = [disc.atMm[0] - camera[0], disc.atMm[1] - camera[1]]
  const [a0, e0] = [dx * cos + dz * sin, -dx * sin + dz * cos]
  const [across, up] = [Math.tan((lens.acrossDeg / 2) * rad), Math.tan((lens.upDeg / 2) * rad)]
  // p·u + q·v + r ≥ 0 for each side of the picture.
  const sides: readonly Vec3[] = [
    [cos * across, -1, a0 * across - b0],
    [cos * across, 1, a0 * across + b0],
    [cos * up + sin, 0, a0 * up - e0],
    [cos * up - sin, 0, a0 * up + e0],
  ]
  const nearest = nearestWithin(sides)
  if (nearest === null || nearest > disc.radiusMm) return false
  return disc.holeMm === 0 || reachesBeyond(sides, disc.holeMm)
}

const holds = (sides: readonly Vec3[], u: number, v: number) =>
  sides.every(([p, q, r]) => p * u + q * v + r >= -1e-9 * (1 + Math.abs(r)))

/** Where two sides meet. */
function corners(sides: readonly Vec3[]): (readonly [number, number])[] {
  return sides.flatMap(([p, q, r], i) =>
    sides.slice(i + 1).flatMap(([s, t, w]) => {
      const area = p * t - s * q
      return Math.abs(area) < 1e-12 ? [] : [[(q * w - t * r) / area, (s * r - p * w) / area] as const]
    }),
  )
}

/** The distance of the nearest point that all sides hold, mm from the middle; null where there is none. */
function nearestWithin(sides: readonly Vec3[]): number | null {
  const feet = sides.flatMap(([p, q, r]) => {
    const long = p * p + q * q
    return long < 1e-18 ? [] : [[(-r * p) / long, (-r * q) / long] as const]
  })
  const candidates = [[0, 0] as const, ...feet, ...corners(sides)].filter(([u, v]) => holds(sides, u, v))
  return candidates.length === 0 ? null : Math.min(...candidates.map(([u, v]) => Math.hypot(u, v)))
}

/** Whether what all sides hold goes on beyond a circle about the middle. */
function reachesBeyond(sides: readonly Vec3[], radiusMm: number): boolean {
  if (corners(sides).some(([u, v]) => holds(sides, u, v) && Math.hypot(u, v) >= radiusMm)) return true
  // A part without an end leaves along one of its sides.
  return sides.some(([p, q, r]) => {
    const long = Math.hypot(p, q)
    if (long < 1e-9) return false
    const [footU, footV] = [(-r * p) / long ** 2, (-r * q) / long ** 2]
    return [1, -1].some(way => {
      const far = 1e6
      return holds(sides, footU - (way * far * q) / long, footV + (way * far * p) / long)
    })
  })
}

const rimSteps = 180

/** The least of a function of an angle around the rim, refined where it is low. */
function leastAround(at: (angle: number) => number, enough: number): number {
  const values = Array.from({ length: rimSteps }, (_, i) => at((2 * Math.PI * i) / rimSteps))
  let least = Math.min(...values)
  if (least <= enough) return least
  values.forEach((value, i) => {
    const [before, after] = [values[(i + rimSteps - 1) % rimSteps]!, values[(i + 1) % rimSteps]!]
    if (value > before || value > after) return
    let [low, high] = [(2 * Math.PI * (i - 1)) / rimSteps, (2 * Math.PI * (i + 1)) / rimSteps]
    for (let round = 0; round < 40; round++) {
      const [a, b] = [low + (high - low) * 0.381966, low + (high - low) * 0.618034]
      if (at(a) < at(b)) high = b
      else low = a
    }
    least = Math.min(least, at((low + high) / 2))
  })
  return least
}

/** A wide lens: its picture meets a rim of the disc, or what it sees of the plane lies whole between them. */
function wideSees(lens: Lens, camera: Vec3, tiltDeg: number, { atMm, radiusMm, holeMm }: Disc): boolean {
  const around = (radius: number) =>
    leastAround(
      angle =>
        outside(lens, camera, tiltDeg, [
          atMm[0] + radius * Math.cos(angle),
          atMm[1] + radius * Math.sin(angle),
          atMm[2],
        ]),
      1,
    )
  if (around(radiusMm) <= 1 || (holeMm > 0 && around(holeMm) <= 1)) return true
  // The way the lens looks: where it meets the plane of the disc.
  const [fx, fz] = [Math.cos(tiltDeg * rad), Math.sin(tiltDeg * rad)]
  const way = fz === 0 ? Infinity : (atMm[2] - camera[2]) / fz
  if (way > 0 && way < Infinity) {
    const off = Math.hypot(camera[0] + way * fx - atMm[0], camera[1] - atMm[1])
    return off <= radiusMm && off >= holeMm
  }
  return false
}

/** Steps of tilt between which an edge of a range is looked for, degrees. */
const fineStepDeg = 0.05

/**
 * All ranges of tilt from 0° to `mostDeg` at which no point of any disc is seen, each edge to a ten-thousandth of a degree.
 * Ranges narrower than `stepDeg`, a twentieth of a degree unless said, may be missed. Throws where a lens or a number is
 * out of range.
 */
export function clearTilts(
  lens: Lens,
  cameraMm: Vec3,
  discs: readonly Disc[],
  mostDeg = 70,
  stepDeg = fineStepDeg,
): ClearRange[] {
  requireLens(lens)
  for (const value of [...cameraMm, ...discs.flatMap(disc => disc.atMm)]) requireFinite('clearTilts', 'at', value)
  for (const { radiusMm, holeMm } of discs) {
    requireNotNegative('clearTilts', 'radiusMm', radiusMm)
    requireNotNegative('clearTilts', 'holeMm', holeMm)
  }
  const isClear = (deg: number) => !discs.some(disc => seesDisc(lens, cameraMm, deg, disc))
  const edge = (from: number, to: number) => {
    const before = isClear(from)
    let [low, high] = [from, to]
    while (high - low > 1e-5) {
      const middle = (low + high) / 2
      if (isClear(middle) === before) low = middle
      else high = middle
    }
    return (low + high) / 2
  }
  const steps = Math.round(mostDeg / stepDeg)
  const ranges: { fromDeg: number; toDeg: number }[] = []
  let was = false
  for (let i = 0; i <= steps; i++) {
    const deg = Math.min(i * stepDeg, mostDeg)
    const is = isClear(deg)
    if (is && !was) ranges.push({ fromDeg: i === 0 ? 0 : edge(deg - stepDeg, deg), toDeg: mostDeg })
    if (!is && was) ranges.at(-1)!.toDeg = edge(deg - stepDeg, deg)
    was = is
  }
  return ranges
}

/** The first tilt from 0° up at which no disc is seen; null where there is none. `shown` is rounded up to 0.1°. */
export function smallestTilt(
  ranges: readonly ClearRange[],
): { readonly deg: number; readonly shownDeg: number } | null {
  const first = ranges[0]
  return first ? { deg: first.fromDeg, shownDeg: Math.max(0, Math.ceil(first.fromDeg * 10 - 1e-3) / 10) } : null
}

import { requireFinite, requireNotNegative } from '../../basics/errors'
import { addEstimates, scaleEstimate, type Estimate } from '../../maths/estimate'
import { sumCompensated } from '../../maths/numbers'
import type { Piece, Vec3 } from './pieces'

/** χ² of two degrees of freedom at 95 %, its root: how many standard uncertainties the ellipse reaches. */
export const ellipseFactor95 = Math.sqrt(5.991)

/** A symmetric 3×3 matrix, by rows. */
export type Matrix3 = readonly [Vec3, Vec3, Vec3]

const axes = [0, 1, 2] as const

/** The centre of gravity of placed pieces. */
export interface Centre {
  /** The mass of what is placed, g. */
  readonly massG: number
  readonly atMm: Vec3
  /** Its covariance, mm². */
  readonly covarianceMm2: Matrix3
}

function requirePieces(where: string, pieces: readonly Piece[]): void {
  pieces.forEach(({ mass, atMm, sigmaMm, sizeMm, turnDeg, key }) => {
    requireFinite(where, `${key}.massG`, mass.valueG)
    requireFinite(where, `${key}.turnDeg`, turnDeg)
    for (const axis of axes) {
      requireFinite(where, `${key}.at`, atMm[axis])
      requireNotNegative(where, `${key}.sigma`, sigmaMm[axis])
      requireNotNegative(where, `${key}.size`, sizeMm[axis])
    }
  })
}

/**
 * Centre of gravity c = Σ mᵢpᵢ / M with its covariance, from masses and places; null where the pieces weigh nothing.
 * Masses enter as Σᵢ Cᵢ(pᵢ − c)/M by their signed causes, so that what all have in common, such as a scale’s gain, moves
 * nothing; places as mᵢσᵢ/M, those that share an error added with their signs before they are squared. Units: g and mm.
 * Throws where a number is not finite or a size or spread is negative. Source: GUM, JCGM 100:2008, 5.2.
 */
export function centreOf(pieces: readonly Piece[]): Centre | null {
  requirePieces('centreOf', pieces)
  const massG = sumCompensated(pieces.map(piece => piece.mass.valueG))
  if (!(massG > 0)) return null
  const at = (axis: 0 | 1 | 2) => sumCompensated(pieces.map(piece => piece.mass.valueG * piece.atMm[axis])) / massG
  const atMm: Vec3 = [at(0), at(1), at(2)]
  const byMass = axes.map(axis =>
    addEstimates(pieces.map(piece => scaleEstimate(piece.mass, (piece.atMm[axis] - atMm[axis]) / massG))),
  )
  const byPlace = axes.map(axis => placeVarianceMm2(pieces, massG, axis))
  const entry = (i: 0 | 1 | 2, j: 0 | 1 | 2) => inCommon(byMass[i]!, byMass[j]!) + (i === j ? byPlace[i]! : 0)
  const row = (i: 0 | 1 | 2): Vec3 => [entry(i, 0), entry(i, 1), entry(i, 2)]
  return { massG, atMm, covarianceMm2: [row(0), row(1), row(2)] }
}

function inCommon(a: Estimate, b: Estimate): number {
  let sum = 0
  for (const key in a.contributions) sum += a.contributions[key]! * (b.contributions[key] ?? 0)
  return sum
}

function placeVarianceMm2(pieces: readonly Piece[], massG: number, axis: 0 | 1 | 2): number {
  let own = 0
  const together = new Map<string, number>()
  for (const { mass, sigmaMm, placedWith } of pieces) {
    const leverMm = (mass.valueG * sigmaMm[axis]) / massG
    if (placedWith)
      together.set(placedWith.name, (together.get(placedWith.name) ?? 0) + placedWith.signs[axis] * leverMm)
    else own += leverMm ** 2
  }
  return own + [...together.values()].reduce((sum, mm) => sum + mm ** 2, 0)
}

/** Standard uncertainty of each coordinate, mm. */
export function sigmasOf({ covarianceMm2 }: Pick<Centre, 'covarianceMm2'>): Vec3 {
  return [Math.sqrt(covarianceMm2[0][0]), Math.sqrt(covarianceMm2[1][1]), Math.sqrt(covarianceMm2[2][2])]
}

/** The half axes of the 95 % ellipse of the centre seen from above, mm, and how far the longer one is turned from the nose. */
export function ellipse95({ covarianceMm2 }: Pick<Centre, 'covarianceMm2'>): {
  readonly longMm: number
  readonly shortMm: number
  readonly turnDeg: number
} {
  const [[xx, xy], [, yy]] = covarianceMm2
  const middle = (xx + yy) / 2
  const reach = Math.hypot((xx - yy) / 2, xy)
  return {
    longMm: ellipseFactor95 * Math.sqrt(middle + reach),
    shortMm: ellipseFactor95 * Math.sqrt(Math.max(0, middle - reach)),
    turnDeg: (Math.atan2(2 * xy, xx - yy) / 2) * (180 / Math.PI),
  }
}

/** A piece's own tensor about its own middle, before it is turned, g·mm²: the diagonal. */
function ownInertia({ mass: { valueG }, sizeMm: [long, wide, high], shape }: Piece): Vec3 {
  if (shape === 'box')
    return [
      (valueG * (wide ** 2 + high ** 2)) / 12,
      (valueG * (long ** 2 + high ** 2)) / 12,
      (valueG * (long ** 2 + wide ** 2)) / 12,
    ]
  const radius = long / 2
  const across = (valueG * (3 * radius ** 2 + high ** 2)) / 12
  return [across, across, (valueG * radius ** 2) / 2]
}

/**
 * The tensor of inertia about a point, g·mm²: each piece’s own, turned about the upright, and m(d²·1 − d·dᵀ). The elements
 * beside the diagonal are those of the tensor (−Σ m·x·z).
 */
export function inertiaAbout(pieces: readonly Piece[], aboutMm: Vec3): Matrix3 {
  requirePieces('inertiaAbout', pieces)
  let [xx, yy, zz, xy, xz, yz] = [0, 0, 0, 0, 0, 0]
  for (const piece of pieces) {
    const m = piece.mass.valueG
    const [ix, iy, iz] = ownInertia(piece)
    const [cos, sin] = [Math.cos((piece.turnDeg * Math.PI) / 180), Math.sin((piece.turnDeg * Math.PI) / 180)]
    const [x, y, z] = [piece.atMm[0] - aboutMm[0], piece.atMm[1] - aboutMm[1], piece.atMm[2] - aboutMm[2]]
    xx += ix * cos ** 2 + iy * sin ** 2 + m * (y ** 2 + z ** 2)
    yy += ix * sin ** 2 + iy * cos ** 2 + m * (x ** 2 + z ** 2)
    zz += iz + m * (x ** 2 + y ** 2)
    xy += (ix - iy) * cos * sin - m * x * y
    xz -= m * x * z
    yz -= m * y * z
  }
  return [
    [xx, xy, xz],
    [xy, yy, yz],
    [xz, yz, zz],
  ]
}

/** Radii of gyration in roll, pitch and yaw, mm: √(I/M). */
export function gyrationMm(inertia: Matrix3, massG: number): Vec3 {
  return [Math.sqrt(inertia[0][0] / massG), Math.sqrt(inertia[1][1] / massG), Math.sqrt(inertia[2][2] / massG)]
}

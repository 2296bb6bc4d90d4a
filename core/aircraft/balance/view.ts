import type { Build, Line } from '../../model/ledger'
import { measureOf, textOf } from '../../model/properties'
import { saidOfFrame } from '../fit'
import { clearTilts, inPicture, lensFrom, seesDisc, type ClearRange, type Disc, type Lens } from './lens'
import type { Layout } from './layout'
import type { Piece, Vec3 } from './pieces'

/** What has to be said of a lens before anything can be told of its picture. */
export type AskedOfLens = 'viewDeg' | 'viewAlong' | 'lens' | 'aspect'

/** By how much anything is changed to see no props, mm. Our choice. */
const farthestMm = 60
/** A tilt beyond this is not flown, degrees. */
export const mostTiltDeg = 70

/** What one camera sees. */
export interface CameraView {
  readonly piece: Piece
  readonly lensAtMm: Vec3
  readonly tiltDeg: number
  readonly discs: readonly Disc[]
  readonly seen:
    | {
        readonly lens: Lens
        /** Across over up. */
        readonly aspect: number
        /** Every tilt at which no prop is in the picture. */
        readonly clear: readonly ClearRange[]
      }
    /** What nobody has said of the lens. */
    | { readonly missing: readonly AskedOfLens[] }
    /** A field of view no such lens can have. */
    | { readonly impossible: true }
}

const aspects: Readonly<Record<string, number>> = { '4:3': 4 / 3, '16:9': 16 / 9, '1:1': 1 }
const alongs = { across: 'across', up: 'up', diagonal: 'diagonal' } as const

/** The lens a camera’s properties describe. */
export function lensOf(
  line: Line,
): { readonly lens: Lens; readonly aspect: number } | Exclude<CameraView['seen'], { lens: Lens }> {
  const deg = measureOf(line, 'viewDeg')
  const along = textOf(line, 'viewAlong')
  const kind = textOf(line, 'lens')
  const aspect = aspects[textOf(line, 'aspect') ?? '']
  const of = along === undefined ? undefined : alongs[along as keyof typeof alongs]
  const missing = [
    ...(deg === undefined ? ['viewDeg' as const] : []),
    ...(of === undefined ? ['viewAlong' as const] : []),
    ...(kind === undefined ? ['lens' as const] : []),
    ...(aspect === undefined ? ['aspect' as const] : []),
  ]
  if (deg === undefined || of === undefined || kind === undefined || aspect === undefined) return { missing }
  // Straight lines stay straight below half the sphere; a wide picture has at most the whole round from corner to corner.
  const corner = Math.hypot(1, aspect)
  const diagonalDeg = deg * { across: corner / aspect, up: corner, diagonal: 1 }[of]
  if (kind === 'wide' ? diagonalDeg > 360 : deg >= 180) return { impossible: true }
  return { lens: lensFrom(kind === 'wide' ? 'wide' : 'straight', { of, deg }, aspect), aspect }
}

/** Where props turn, and the rings of ducts round them. */
export function discsOfLayout(build: Build, { pieces }: Layout): Disc[] {
  const ductMm = saidOfFrame(build.lines, 'ductMm')
  return pieces
    .filter(piece => piece.slot === 'propeller')
    .flatMap(({ atMm, sizeMm }) => [
      { atMm, radiusMm: sizeMm[0] / 2, holeMm: 0 },
      ...(ductMm === undefined ? [] : [{ atMm, radiusMm: ductMm / 2 + 2, holeMm: ductMm / 2 }]),
    ])
}

/** What every camera on board sees, and payloads of which a field of view is said. */
export function cameraViews(build: Build, layout: Layout): CameraView[] {
  const lines = new Map(build.lines.map(line => [line.id, line]))
  const discs = discsOfLayout(build, layout)
  return layout.pieces
    .filter(
      ({ slot, lineId }) =>
        slot === 'camera' || (slot === 'payload' && measureOf(lines.get(lineId)!, 'viewDeg') !== undefined),
    )
    .map(piece => {
      const lensAtMm: Vec3 = [piece.atMm[0] + piece.sizeMm[0] / 2, piece.atMm[1], piece.atMm[2]]
      const found = lensOf(lines.get(piece.lineId)!)
      return {
        piece,
        lensAtMm,
        tiltDeg: piece.tiltDeg,
        discs,
        seen: 'lens' in found ? { ...found, clear: clearTilts(found.lens, lensAtMm, discs, mostTiltDeg) } : found,
      }
    })
}

/** What can be changed so that a lens sees no props: it goes forward or up, or the props get smaller, lower or farther out. */
export const clearingWays = ['forward', 'up', 'smaller', 'lower', 'wider'] as const
export type ClearingWay = (typeof clearingWays)[number]

/** A lens and discs after a change by so many mm: of `smaller` the props’ diameter, of `wider` the arms on each side. */
function changed(lensAtMm: Vec3, discs: readonly Disc[], way: ClearingWay, mm: number): [Vec3, readonly Disc[]] {
  const [x, y, z] = lensAtMm
  const each = (change: (disc: Disc) => Partial<Disc>) => discs.map(disc => ({ ...disc, ...change(disc) }))
  switch (way) {
    case 'forward':
      return [[x + mm, y, z], discs]
    case 'up':
      return [[x, y, z + mm], discs]
    case 'smaller':
      return [
        lensAtMm,
        each(({ radiusMm, holeMm }) => ({
          radiusMm: Math.max(0, radiusMm - mm / 2),
          holeMm: Math.max(0, holeMm - mm / 2),
        })),
      ]
    case 'lower':
      return [lensAtMm, each(({ atMm }) => ({ atMm: [atMm[0], atMm[1], atMm[2] - mm] }))]
    case 'wider':
      return [lensAtMm, each(({ atMm }) => ({ atMm: [atMm[0], atMm[1] + Math.sign(atMm[1]) * mm, atMm[2]] }))]
  }
}

/** By how much one thing has to change until no disc is seen at a tilt, mm; null where that is more than anybody would. */
export function clearsAfterMm(
  lens: Lens,
  lensAtMm: Vec3,
  tiltDeg: number,
  discs: readonly Disc[],
  way: ClearingWay,
): number | null {
  const isClear = (mm: number) => {
    const [at, after] = changed(lensAtMm, discs, way, mm)
    return !after.some(disc => seesDisc(lens, at, tiltDeg, disc))
  }
  if (isClear(0)) return 0
  for (let mm = 1; mm <= farthestMm; mm++) {
    if (!isClear(mm)) continue
    let [low, high] = [mm - 1, mm]
    while (high - low > 0.01) {
      const middle = (low + high) / 2
      if (isClear(middle)) high = middle
      else low = middle
    }
    return high
  }
  return null
}

/** Which way the lens looks at a point of its picture, −1 to 1 across and up; null where a wide lens has none. */
function wayOf(lens: Lens, tiltDeg: number, [across, up]: readonly [number, number]): Vec3 {
  const rad = Math.PI / 180
  let camera: Vec3
  if (lens.kind === 'straight')
    camera = [1, -across * Math.tan((lens.acrossDeg / 2) * rad), up * Math.tan((lens.upDeg / 2) * rad)]
  else {
    const diagonal = Math.sqrt(1 + lens.aspect ** 2)
    const [x, y] = [(across * lens.aspect) / diagonal, up / diagonal]
    const r = Math.hypot(x, y)
    const angle = (r * lens.diagonalDeg * rad) / 2
    camera = r === 0 ? [1, 0, 0] : [Math.cos(angle), (-x / r) * Math.sin(angle), (y / r) * Math.sin(angle)]
  }
  const [cos, sin] = [Math.cos(tiltDeg * rad), Math.sin(tiltDeg * rad)]
  return [camera[0] * cos - camera[2] * sin, camera[1], camera[0] * sin + camera[2] * cos]
}

/** The share of the picture that discs cover, 0–1, looked up at so many points across. */
export function coveredShare(lens: Lens, lensAtMm: Vec3, tiltDeg: number, discs: readonly Disc[], across = 96): number {
  const down = Math.round(across * 0.75)
  let hits = 0
  for (let i = 0; i < across; i++)
    for (let k = 0; k < down; k++) {
      const way = wayOf(lens, tiltDeg, [(2 * (i + 0.5)) / across - 1, (2 * (k + 0.5)) / down - 1])
      if (discs.some(disc => meets(lensAtMm, way, disc))) hits++
    }
  return hits / (across * down)
}
function meets(from: Vec3, way: Vec3, { atMm, radiusMm, holeMm }: Disc): boolean {
  const steps = (atMm[2] - from[2]) / way[2]
  if (!(steps > 0 && steps < Infinity)) return false
  const off = Math.hypot(from[0] + steps * way[0] - atMm[0], from[1] + steps * way[1] - atMm[1])
  return off <= radiusMm && off >= holeMm
}

/** The rim of a disc in the picture, as runs of points that can be joined; outside its edges they go on a little. */
export function rimInPicture(
  lens: Lens,
  lensAtMm: Vec3,
  tiltDeg: number,
  { atMm, radiusMm }: Disc,
  steps = 120,
): (readonly [number, number])[][] {
  const runs: (readonly [number, number])[][] = []
  let run: (readonly [number, number])[] = []
  for (let i = 0; i <= steps; i++) {
    const angle = (2 * Math.PI * i) / steps
    const point = inPicture(lens, lensAtMm, tiltDeg, [
      atMm[0] + radiusMm * Math.cos(angle),
      atMm[1] + radiusMm * Math.sin(angle),
      atMm[2],
    ])
    if (point && Math.abs(point[0]) < 4 && Math.abs(point[1]) < 4) run.push(point)
    else if (run.length > 0) {
      runs.push(run)
      run = []
    }
  }
  if (run.length > 0) runs.push(run)
  return runs
}

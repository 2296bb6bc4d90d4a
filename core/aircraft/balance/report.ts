import { requireFinite } from '../../basics/errors'
import { allLoadouts, packLines, type LineEstimates } from '../../mass/loadout'
import { packLabel, type Build, type LoadoutChoice, type Slot } from '../../model/ledger'
import { benchOf } from '../../model/properties'
import { centreOf, gyrationMm, inertiaAbout, sigmasOf, type Centre } from './centre'
import { layoutOf, trayRange, type Layout } from './layout'
import { hoverLoads, levelShare, type LoadsProblem } from './loads'
import { leastMoves, packSlide } from './moves'
import { halfReachMm, type Piece, type Vec3 } from './pieces'

/** 95 % of a normal distribution lies within so many standard uncertainties. */
const factor95 = 1.959963984540054

/** What the rotors carry at hover. */
export type Hover =
  | {
      /** By rotor, in the order of the motors, g. */
      readonly loadsG: readonly number[]
      readonly greatestG: number
      /** What is left of full throttle while it flies level, 0–1. */
      readonly levelShare: number
    }
  | { readonly problem: LoadsProblem }

/** Where the pack would have to lie. */
export interface Slide {
  /** By how much the pack goes forward (or back, below zero), mm. */
  readonly byMm: number
  readonly toMm: number
  /** The pack's front, behind the tray's front edge, mm; null while nobody has said how long the tray is. */
  readonly frontAtMm: number | null
  /** How far the pack's front may lie behind the edge, mm. */
  readonly frontRangeMm: readonly [number, number] | null
  /** By how much the tray is too short for it, mm. */
  readonly missesMm: number
  readonly remainsMm: number
  /** ± of the slide at 95 %, mm. */
  readonly spreadMm: number
}

/** How a loadout hangs. */
export interface Balance {
  readonly layout: Layout
  readonly centre: Centre | null
  /** ± at 95 % of each coordinate of the centre, mm. */
  readonly spreadMm: Vec3
  /** Everything that flies, g; what has no place of its own is in it. */
  readonly totalG: number
  /** How far the centre lies above the prop plane, mm; null without props. */
  readonly abovePropsMm: number | null
  readonly gyrationMm: Vec3 | null
  readonly hover: Hover | null
  readonly pack: Piece | null
  readonly slide: Slide | null
  /** How many pieces nobody has placed. */
  readonly assumed: number
}

/** How a build hangs in one loadout. Nothing is asked for first: what nobody has said is assumed, and its ± says so. */
export function balanceOf(build: Build, choice: LoadoutChoice, estimates: LineEstimates): Balance {
  const layout = layoutOf(build, choice, estimates)
  const { pieces, spread } = layout
  const centre = centreOf(pieces)
  const totalG = (centre?.massG ?? 0) + spread.reduce((sum, line) => sum + estimates.of(line).valueG, 0)
  const sigmas = centre ? sigmasOf(centre) : ([0, 0, 0] as const)
  const pack = pieces.find(piece => piece.slot === 'pack') ?? null
  return {
    layout,
    centre,
    spreadMm: [factor95 * sigmas[0], factor95 * sigmas[1], factor95 * sigmas[2]],
    totalG,
    abovePropsMm: centre && layout.propPlaneMm !== null ? centre.atMm[2] - layout.propPlaneMm : null,
    gyrationMm: centre ? gyrationMm(inertiaAbout(pieces, centre.atMm), centre.massG) : null,
    hover: centre ? hoverOf(build, layout, centre, totalG) : null,
    pack,
    slide: centre && pack ? slideOf(layout, centre, pack) : null,
    assumed: pieces.filter(piece => piece.isAssumed).length,
  }
}

function hoverOf(build: Build, layout: Layout, centre: Centre, totalG: number): Hover | null {
  if (layout.rotors.length === 0) return null
  const hover = hoverLoads(layout.rotors, totalG, [centre.atMm[0], centre.atMm[1]])
  if ('problem' in hover) return { problem: hover.problem }
  const byId = new Map(build.lines.map(line => [line.id, line]))
  const thrusts = layout.pieces
    .filter(piece => piece.slot === 'motor')
    .map(piece => mostThrustG(benchOf(byId.get(piece.lineId)!)))
  const known = thrusts.every(thrust => thrust !== null)
  return {
    loadsG: hover.loadsG,
    greatestG: Math.max(...hover.loadsG),
    levelShare: known ? levelShare(hover.loadsG, thrusts) : levelShare(hover.loadsG),
  }
}
function mostThrustG(bench: readonly { readonly thrustG: number | null }[] | null): number | null {
  const thrusts = (bench ?? []).flatMap(row => row.thrustG ?? [])
  return thrusts.length === 0 ? null : Math.max(...thrusts)
}

/** What is fixed to the pack goes with it: together they are what is slid. */
function slideOf({ tray, pieces }: Layout, centre: Centre, pack: Piece): Slide | null {
  const length = 2 * halfReachMm(pack)[0]
  const slidG = pieces.reduce((sum, one) => sum + (one.goesWithPack ? one.mass.valueG : 0), pack.mass.valueG)
  const range = tray ? trayRange(tray, length) : null
  const slide = packSlide({ xMm: pack.atMm[0], massG: slidG }, centre.massG, centre.atMm[0], range)
  if (!slide) return null
  const front = (xMm: number) => tray!.frontMm - (xMm + length / 2)
  return {
    byMm: slide.toMm - pack.atMm[0],
    toMm: slide.toMm,
    frontAtMm: tray ? front(slide.toMm) : null,
    frontRangeMm: range ? [front(range.mostMm), front(range.leastMm)] : null,
    missesMm: slide.missesMm,
    remainsMm: slide.remainsMm,
    spreadMm: (factor95 * sigmasOf(centre)[0] * centre.massG) / slidG,
  }
}

/**
 * By how much the centre goes along the nose when so many grams leave where a line sits (or join, below zero), mm; alike
 * from each of its pieces. Null where the line has no place in this loadout, or nothing would be left.
 */
export function centreMovesMm({ centre, layout }: Balance, lineId: string, gramsOff: number): number | null {
  requireFinite('centreMovesMm', 'gramsOff', gramsOff)
  const pieces = layout.pieces.filter(piece => piece.lineId === lineId)
  if (!centre || pieces.length === 0 || gramsOff >= centre.massG) return null
  const xMm = pieces.reduce((sum, piece) => sum + piece.atMm[0], 0) / pieces.length
  return (gramsOff * (centre.atMm[0] - xMm)) / (centre.massG - gramsOff)
}

/** What else than the pack could go where, so that the craft hangs true. */
export interface OtherWaysToHang {
  readonly moves: readonly { readonly lineId: string; readonly byMm: number }[]
  /** Where the centre then is along the nose, mm. */
  readonly leftMm: number
}

/** Lines that may be moved along the nose: not what the craft is built around, and not what goes with the pack. */
export function movableLines({ layout }: Balance): readonly { readonly lineId: string; readonly massG: number }[] {
  const byLine = new Map<string, number>()
  for (const { slot, lineId, goesWithPack, mass } of layout.pieces)
    if (!fixedSlots.includes(slot) && !goesWithPack) byLine.set(lineId, (byLine.get(lineId) ?? 0) + mass.valueG)
  return [...byLine].map(([lineId, massG]) => ({ lineId, massG })).filter(({ massG }) => massG > 0)
}
const fixedSlots: readonly Slot[] = ['frame', 'motor', 'propeller', 'guard', 'screw', 'standoff', 'pack', 'strap']

/**
 * The least moves, within how far each line may go either way (mm, above zero), that bring the centre under the middle of
 * the motors. Null without a centre. Throws where a limit is below zero or not a number.
 */
export function otherMoves(balance: Balance, limitsMm: ReadonlyMap<string, number>): OtherWaysToHang | null {
  const { centre } = balance
  if (!centre) return null
  const movable = movableLines(balance).filter(({ lineId }) => limitsMm.has(lineId))
  const { movesMm, missingGmm } = leastMoves(
    movable.map(({ lineId, massG }) => {
      const mostMm = limitsMm.get(lineId)!
      return { massG, weight: 1, leastMm: -mostMm, mostMm }
    }),
    -centre.massG * centre.atMm[0],
  )
  return {
    moves: movable.map(({ lineId }, i) => ({ lineId, byMm: movesMm[i]! })),
    leftMm: -missingGmm / centre.massG,
  }
}

/** Where one pack sits with one set-up. */
export interface SlideCell {
  readonly choice: LoadoutChoice
  readonly slide: Slide | null
}
/** A pack with its slide in every set-up. */
export interface SlideRow {
  readonly packLineId: string
  readonly label: string
  readonly massG: number
  readonly cells: readonly SlideCell[]
}

/** The slide of one loadout, without all else that is told of how it hangs. */
function slideIn(build: Build, choice: LoadoutChoice, estimates: LineEstimates): Slide | null {
  const layout = layoutOf(build, choice, estimates)
  const centre = centreOf(layout.pieces)
  const pack = layout.pieces.find(piece => piece.slot === 'pack')
  return centre && pack ? slideOf(layout, centre, pack) : null
}

/** Where each pack sits, for every set-up it may be flown with. */
export function slideTable(build: Build, estimates: LineEstimates): SlideRow[] {
  const choices = allLoadouts(build)
  return packLines(build).map(line => ({
    packLineId: line.id,
    label: packLabel(line),
    massG: estimates.of(line).valueG,
    cells: choices
      .filter(choice => choice.packLineId === line.id)
      .map(choice => ({ choice, slide: slideIn(build, choice, estimates) })),
  }))
}

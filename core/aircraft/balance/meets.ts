import { blankPlaces, packLabel, type Build, type LoadoutChoice, type PlacesPlan, type Slot } from '../../model/ledger'
import type { LineEstimates } from '../../mass/loadout'
import type { CheckOutcome } from '../fit'
import { fixed } from '../../text/display'
import { layoutOf, type Layout } from './layout'
import { halfReachMm, type Piece } from './pieces'

/** Pieces that nothing else goes through. A mount or a canopy holds others in it, a strap and a pad lie on them. */
const solidSlots: readonly Slot[] = [
  'board',
  'speed controller',
  'power distribution',
  'capacitor',
  'camera',
  'video transmitter',
  'receiver',
  'navigation',
  'sounder',
  'payload',
  'pack',
]
/** Overlaps smaller than this are of the drawing, not of the craft, mm. Our choice. */
const touchMm = 1

/** Two pieces that are in each other’s way, with how deep, mm. */
export interface Collision {
  readonly kind: 'in the props' | 'through each other'
  readonly pieces: readonly [Piece, Piece]
  readonly byMm: number
}

/** How far two pieces go through each other, at the least of their three directions, mm; 0 or less where they do not. */
function overlapMm(a: Piece, b: Piece): number {
  const [ra, rb] = [halfReachMm(a), halfReachMm(b)]
  return Math.min(...[0, 1, 2].map(axis => ra[axis]! + rb[axis]! - Math.abs(a.atMm[axis]! - b.atMm[axis]!)))
}

/** How far a piece goes into the disc of a prop, mm; 0 or less where it stays out of it. */
function intoDiscMm(piece: Piece, prop: Piece): number {
  const [long, wide, high] = piece.sizeMm
  const up = high / 2 + prop.sizeMm[2] / 2 - Math.abs(piece.atMm[2] - prop.atMm[2])
  const angle = piece.shape === 'box' ? (piece.turnDeg * Math.PI) / 180 : 0
  const [dx, dy] = [prop.atMm[0] - piece.atMm[0], prop.atMm[1] - piece.atMm[1]]
  // In the piece’s own directions: from its side to the middle of the disc.
  const [ownX, ownY] = [dx * Math.cos(angle) + dy * Math.sin(angle), dy * Math.cos(angle) - dx * Math.sin(angle)]
  const off =
    piece.shape === 'box'
      ? Math.hypot(Math.max(Math.abs(ownX) - long / 2, 0), Math.max(Math.abs(ownY) - wide / 2, 0))
      : Math.hypot(dx, dy) - long / 2
  return Math.min(up, prop.sizeMm[0] / 2 - off)
}

/**
 * What is in the way of what. Only pieces whose place somebody has said are looked at, and through each other only where
 * their sizes are said as well: what is assumed proves nothing.
 */
export function meetingsOf({ pieces }: Layout): Collision[] {
  const props = pieces.filter(piece => piece.slot === 'propeller')
  const solid = pieces.filter(piece => solidSlots.includes(piece.slot) && !piece.isAssumed)
  const inProps = solid.flatMap(piece =>
    props
      .map(prop => ({ prop, byMm: intoDiscMm(piece, prop) }))
      .filter(({ byMm }) => byMm > touchMm)
      .map(({ prop, byMm }): Collision => ({ kind: 'in the props', pieces: [piece, prop], byMm })),
  )
  const through = solid.flatMap((a, i) =>
    solid
      .slice(i + 1)
      .filter(b => !a.isSizeAssumed && !b.isSizeAssumed && overlapMm(a, b) > touchMm)
      .map((b): Collision => ({ kind: 'through each other', pieces: [a, b], byMm: overlapMm(a, b) })),
  )
  return [...inProps, ...through]
}

/**
 * By how much the pack is the lowest of all that flies, mm; null where something else meets the ground first. Straps and
 * pads round it, and props, keep nothing off the ground.
 */
export function packLowestMm({ pieces }: Layout): { readonly pack: Piece; readonly byMm: number } | null {
  const foot = (piece: Piece) => piece.atMm[2] - halfReachMm(piece)[2]
  const pack = pieces.find(piece => piece.slot === 'pack')
  const others = pieces.filter(piece => !['pack', 'strap', 'pad', 'propeller'].includes(piece.slot))
  if (!pack || others.length === 0) return null
  const byMm = Math.min(...others.map(foot)) - foot(pack)
  return byMm > touchMm ? { pack, byMm } : null
}

/** A pack under the craft lands first: what would keep it off the ground, in Fit. */
function landingOutcomes({ packSide }: PlacesPlan, layout: Layout): { check: string; outcome: CheckOutcome }[] {
  const lowest = packSide === 'below' ? packLowestMm(layout) : null
  if (!lowest) return []
  const { pack, byMm } = lowest
  return [
    {
      check: 'placed-lands',
      outcome: {
        kind: 'finding',
        severity: 'check',
        lineIds: [pack.lineId],
        title: `It lands on ${pack.name}`,
        sentence: `Nothing reaches lower than the pack. A pack that is hit or dented can burn.`,
        ways: [
          { words: `Legs that reach ${fixed(byMm, 0)} mm lower than the craft does now`, gramsG: null, move: null },
          { words: 'The pack above', gramsG: null, move: null },
        ],
      },
    },
  ]
}

/** The same as findings of Fit, each pair of lines once. */
export function placeOutcomes(
  build: Build,
  choice: LoadoutChoice,
  estimates: LineEstimates,
): { readonly check: string; readonly outcome: CheckOutcome }[] {
  const names = new Map(build.lines.map(line => [line.id, line.slot === 'pack' ? packLabel(line) : line.name]))
  const deepest = new Map<string, Collision>()
  const layout = layoutOf(build, choice, estimates)
  for (const meeting of meetingsOf(layout)) {
    const key = `${meeting.kind}:${meeting.pieces.map(piece => piece.lineId).join('+')}`
    if (meeting.byMm > (deepest.get(key)?.byMm ?? 0)) deepest.set(key, meeting)
  }
  const met = [...deepest.values()].map(({ kind, pieces: [a, b], byMm }): { check: string; outcome: CheckOutcome } => {
    const [one, other] = [names.get(a.lineId)!, names.get(b.lineId)!]
    const isProp = kind === 'in the props'
    return {
      check: isProp ? 'placed-in-props' : 'placed-through',
      outcome: {
        kind: 'finding',
        severity: isProp ? 'clash' : 'check',
        lineIds: [a.lineId, b.lineId],
        title: isProp ? `${one} is in the props` : `${one} and ${other} are in one place`,
        sentence: isProp
          ? `Where it sits the props would hit it, ${fixed(byMm, 1)} mm deep. Balance shows where.`
          : `They go through each other by ${fixed(byMm, 1)} mm. Balance shows where.`,
        ways: [
          { words: isProp ? 'Move it, or props on the other side' : 'Move one of them', gramsG: null, move: null },
        ],
      },
    }
  })
  return [...met, ...landingOutcomes(build.places ?? blankPlaces, layout)]
}

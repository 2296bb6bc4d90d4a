import type { Line } from '../../model/ledger'
import { measureOf, textOf } from '../../model/properties'
import { frameWith } from '../fit'

/** How much longer along the nose than across the motors stand, by how the arms lie. Our choice, where only the diagonal is said. */
const longerThanWide: Readonly<Record<string, number>> = { X: 1, stretched: 1.15, hybrid: 0.9, wide: 0.75 }
/** The motors' square of a craft of which nobody has said the size of anything, mm. Our choice: props of 2.5 inch. */
const usualSideMm = 95
/** Neighbouring discs leave so much of their diameter between them. Our choice. */
const betweenDiscs = 1.08

/** Half the distances between motors, along the nose and across, mm. */
export interface Arms {
  readonly forwardMm: number
  readonly sidewaysMm: number
  /** How well that is known, mm: what was said is as good as it was measured; the rest is guessed. */
  readonly sigmaMm: number
  readonly isAssumed: boolean
}

/** Where the motors stand, from what the frame says of itself; failing that from the props; failing that as usual. */
export function armsOf(lines: readonly Line[]): Arms {
  const told = (key: string) => {
    const frame = frameWith(lines, key)
    return frame && measureOf(frame, key)
  }
  const [along, across] = [told('spacingForwardMm'), told('spacingSidewaysMm')]
  const layout = lines.flatMap(line => (line.slot === 'frame' ? (textOf(line, 'armLayout') ?? []) : []))[0]
  const ratio = longerThanWide[layout ?? 'X'] ?? 1
  if (along !== undefined || across !== undefined)
    return {
      forwardMm: (along ?? across! * ratio) / 2,
      sidewaysMm: (across ?? along! / ratio) / 2,
      sigmaMm: along !== undefined && across !== undefined ? 0.3 : 3,
      isAssumed: along === undefined || across === undefined,
    }
  const wheelbaseMm = told('wheelbaseMm')
  if (wheelbaseMm !== undefined) {
    const sidewaysMm = wheelbaseMm / 2 / Math.hypot(1, ratio)
    const isSaid = layout !== undefined
    return { forwardMm: sidewaysMm * ratio, sidewaysMm, sigmaMm: isSaid ? 0.3 : 2, isAssumed: !isSaid }
  }
  const prop = lines.find(line => line.slot === 'propeller')
  const discMm = told('ductMm') ?? (prop && measureOf(prop, 'diameterMm')) ?? told('propMaxMm')
  const sideMm = discMm === undefined ? usualSideMm : discMm * betweenDiscs
  return { forwardMm: sideMm / 2, sidewaysMm: sideMm / 2, sigmaMm: discMm === undefined ? 10 : 4, isAssumed: true }
}

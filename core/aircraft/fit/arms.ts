import type { Line } from '../../model/ledger'
import { measureOf, textOf } from '../../model/properties'
import { saidOfFrame } from './frame-with'

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
}

/** Where the motors stand, from what the frame says of itself; null where it says nothing. */
export function armsSaid(lines: readonly Line[]): Arms | null {
  const [along, across] = [saidOfFrame(lines, 'spacingForwardMm'), saidOfFrame(lines, 'spacingSidewaysMm')]
  const layout = lines.flatMap(line => (line.slot === 'frame' ? (textOf(line, 'armLayout') ?? []) : []))[0]
  const ratio = longerThanWide[layout ?? 'X'] ?? 1
  if (along !== undefined || across !== undefined)
    return {
      forwardMm: (along ?? across! * ratio) / 2,
      sidewaysMm: (across ?? along! / ratio) / 2,
      sigmaMm: along !== undefined && across !== undefined ? 0.3 : 3,
    }
  const wheelbaseMm = saidOfFrame(lines, 'wheelbaseMm')
  if (wheelbaseMm === undefined) return null
  const sidewaysMm = wheelbaseMm / 2 / Math.hypot(1, ratio)
  return { forwardMm: sidewaysMm * ratio, sidewaysMm, sigmaMm: layout === undefined ? 2 : 0.3 }
}

/** Where the motors stand: as the frame says; failing that by the props, failing that as usual. */
export function armsOf(lines: readonly Line[]): Arms {
  const said = armsSaid(lines)
  if (said) return said
  const prop = lines.find(line => line.slot === 'propeller')
  const discMm =
    saidOfFrame(lines, 'ductMm') ?? (prop && measureOf(prop, 'diameterMm')) ?? saidOfFrame(lines, 'propMaxMm')
  const halfMm = (discMm === undefined ? usualSideMm : discMm * betweenDiscs) / 2
  return { forwardMm: halfMm, sidewaysMm: halfMm, sigmaMm: discMm === undefined ? 10 : 4 }
}

import { CoreInputError } from '../../basics/errors'
import { screwForms, type ScrewForm } from './facts'
import { requireMeasure } from './validate'

export function screwForm(thread: string, head: string): ScrewForm {
  const form = screwForms.find(f => f.thread === thread && f.head === head)
  if (!form)
    throw new CoreInputError('screwForm', 'thread', `${thread} ${head}`, {
      is: 'one of',
      what: 'a thread and head of the list',
    })
  return form
}

/** Nominal diameter of a metric thread, mm: "M2.5" is 2.5. */
export function nominalDiameterMm(thread: string): number {
  const diameter = Number(thread.replace(/^M/, ''))
  requireMeasure('nominalDiameterMm', 'thread', diameter, 20)
  return diameter
}

/**
 * Grams of one screw: shank at the pitch diameter over its length, head by its shape, less the hex socket. A countersunk
 * screw's length includes its head. Length in mm, density in g/cm³.
 *
 * @example screwG(screwForm('M2', 'socket cap'), 8, 7.85) // 0.31212
 */
export function screwG(form: ScrewForm, lengthMm: number, densityGPerCm3: number): number {
  requireMeasure('screwG', 'lengthMm', lengthMm, 200)
  requireMeasure('screwG', 'densityGPerCm3', densityGPerCm3, 25)
  const { headDiameterMm: dk, headHeightMm: k, socketMm, socketDepthMm, pitchMm } = form
  const d = nominalDiameterMm(form.thread)
  const sunk = form.head === 'countersunk'
  if (sunk && lengthMm < k) throw new CoreInputError('screwG', 'lengthMm', lengthMm, { is: 'in range', least: k })
  const pitchDiameterMm = d - 0.649519 * pitchMm
  const shankMm3 = ((Math.PI * pitchDiameterMm ** 2) / 4) * (sunk ? lengthMm - k : lengthMm)
  const cylinderMm3 = ((Math.PI * dk ** 2) / 4) * k
  const headMm3 = sunk
    ? (Math.PI * k * (dk ** 2 + dk * d + d ** 2)) / 12
    : form.head === 'socket cap'
      ? cylinderMm3
      : 0.65 * cylinderMm3
  const socketMm3 = (Math.sqrt(3) / 2) * socketMm ** 2 * socketDepthMm
  return ((shankMm3 + headMm3 - socketMm3) * densityGPerCm3) / 1000
}

/** A joint: what is clamped, how much thread it wants to hold, and what is free before the next thing is touched, all mm. */
export interface Joint {
  readonly clampedMm: number
  readonly engagementMm: number
  readonly freeDepthMm: number
}

/** Shortest and longest safe screw for a joint, mm; no length fits when `longest` is below `shortest`. */
export function safeLengths({ clampedMm, engagementMm, freeDepthMm }: Joint): {
  readonly shortestMm: number
  readonly longestMm: number
} {
  requireMeasure('safeLengths', 'clampedMm', clampedMm, 200)
  requireMeasure('safeLengths', 'engagementMm', engagementMm, 200)
  requireMeasure('safeLengths', 'freeDepthMm', freeDepthMm, 200)
  return { shortestMm: clampedMm + engagementMm, longestMm: clampedMm + freeDepthMm }
}

/** What a screw does in a joint. */
export function screwVerdict(joint: Joint, lengthMm: number): 'fits' | 'too short' | 'too long' {
  const { shortestMm, longestMm } = safeLengths(joint)
  requireMeasure('screwVerdict', 'lengthMm', lengthMm, 200)
  if (lengthMm > longestMm + 1e-9) return 'too long'
  return lengthMm < shortestMm - 1e-9 ? 'too short' : 'fits'
}

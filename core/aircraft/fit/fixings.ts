import { figure } from '../../text/display'
import {
  materialNamed,
  materialsFor,
  nominalDiameterMm,
  safeLengths,
  screwForms,
  screwG,
  screwVerdict,
} from '../../mass/mass-calculators'
import { measureOf, textOf } from '../../model/properties'
import type { Line } from '../../model/ledger'
import { frameWith } from './frame-with'
import { isSaidJoint, type JointPlan, type SaidJoint } from '../../model/data'

/** Lengths screws are sold in, mm. */
export const screwLengthsMm = [2, 2.5, 3, 4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 18, 20, 22, 25, 30, 35, 40] as const

export interface MaterialChoice {
  readonly material: string
  readonly massG: number
  readonly savesG: number
  readonly note: string
}

/** What a joint asks of its screws. */
export interface JointRow {
  readonly joint: SaidJoint
  readonly shortestMm: number
  readonly longestMm: number
  readonly verdict: 'fits' | 'too short' | 'too long' | 'not chosen'
  /** The best length that is sold; null when none lies between shortest and longest. */
  readonly soldMm: number | null
  /** Grams of all screws of the joint at the chosen length, or at the sold one. */
  readonly massG: number | null
  readonly materials: readonly MaterialChoice[]
  /** Washer height or protruding nut that lets the next longer screw be used; null when not needed. */
  readonly washerMm: number | null
  readonly words: string
  readonly notes: readonly string[]
}

const soft = /alumin|brass|plastic|nylon|peek|print|carbon/i
const weak = /alumin|nylon|peek/i

/**
 * One joint: safe lengths, the verdict on the screw chosen, the length to buy, grams by material and what a swap saves.
 * `atHandMm` are the lengths of this thread in the drawer; with none given every sold length counts.
 */
export function fixingRow(joint: SaidJoint, atHandMm: readonly number[] = []): JointRow {
  const { shortestMm, longestMm } = safeLengths(joint)
  const lengths: readonly number[] = screwLengthsMm
  const fitting = lengths.filter(length => length >= shortestMm - 1e-9 && length <= longestMm + 1e-9)
  const soldMm = fitting.find(length => atHandMm.includes(length)) ?? fitting[0] ?? null
  const verdict = joint.lengthMm === null ? 'not chosen' : screwVerdict(joint, joint.lengthMm)
  const length = joint.lengthMm ?? soldMm
  const massIn = (material: string): number | null => {
    const form = screwForms.find(f => f.thread === joint.thread && f.head === joint.head)
    const found = materialNamed(material)
    if (!form || !found || length === null || (form.head === 'countersunk' && length < form.headHeightMm)) return null
    return joint.count * screwG(form, length, found.densityGPerCm3)
  }
  const massG = massIn(joint.material)
  return {
    joint,
    shortestMm,
    longestMm,
    verdict,
    soldMm,
    massG,
    materials:
      massG === null
        ? []
        : materialsFor('screw')
            .filter(m => m.name !== joint.material)
            .map(m => ({ material: m.name, massG: massIn(m.name)!, savesG: massG - massIn(m.name)!, note: m.note })),
    washerMm: washer(joint, shortestMm, longestMm, atHandMm, soldMm),
    words: wordsOf(joint, verdict, shortestMm, longestMm, soldMm),
    notes: notesOf(joint),
  }
}

/** With no right length at hand, a washer or nut under the head of the next longer one. */
function washer(
  joint: SaidJoint,
  shortestMm: number,
  longestMm: number,
  atHandMm: readonly number[],
  soldMm: number | null,
): number | null {
  if (soldMm !== null && (atHandMm.length === 0 || atHandMm.includes(soldMm))) return null
  const longer = [...(atHandMm.length > 0 ? atHandMm : screwLengthsMm)]
    .sort((a, b) => a - b)
    .find(length => length > longestMm)
  return longer === undefined ? null : Number((longer - longestMm).toFixed(2))
}

function wordsOf(
  joint: SaidJoint,
  verdict: JointRow['verdict'],
  shortestMm: number,
  longestMm: number,
  soldMm: number | null,
): string {
  const range = `${mm(shortestMm)} to ${mm(longestMm)} mm is safe`
  const buy = soldMm === null ? 'no length that is sold lies between' : `${joint.thread} × ${mm(soldMm)} fits`
  if (shortestMm > longestMm + 1e-9)
    return `No length is safe: holding ${mm(joint.engagementMm)} mm of thread would go past the ${mm(joint.freeDepthMm)} mm that are free.`
  switch (verdict) {
    case 'too long':
      return (
        `${mm(joint.lengthMm)} mm would touch ${touched(joint)}: ${mm(joint.lengthMm)} through ` +
        `${mm(joint.clampedMm)} leaves ${mm(joint.lengthMm! - joint.clampedMm)}, and ${mm(joint.freeDepthMm)} ` +
        `are free. ${capital(buy)}.`
      )
    case 'too short':
      return (
        `${mm(joint.lengthMm)} mm holds too few threads: ` +
        `${mm(Math.max(0, joint.lengthMm! - joint.clampedMm))} mm of the ${mm(joint.engagementMm)} mm ` +
        `wanted. ${capital(buy)}.`
      )
    case 'fits':
      return `${mm(joint.lengthMm)} mm fits: ${range}.`
    case 'not chosen':
      return `${capital(range)}; ${buy}.`
  }
}
const mm = (value: number | null) => figure(value ?? 0, 2)
const touched = (joint: JointPlan) =>
  joint.beyond === 'windings' ? 'the windings' : joint.beyond === 'nothing' ? 'what lies beyond' : joint.beyond
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

function notesOf(joint: SaidJoint): string[] {
  const bitesMetal = !/plastic|nylon|print|wood/i.test(joint.into)
  return [
    ...(weak.test(joint.material) ? ['Soft screw: gentle torque, it strips or shears easily.'] : []),
    ...(soft.test(joint.into) ? [`Gentle torque: ${joint.into} strips.`] : []),
    ...(joint.into !== '' && bitesMetal && joint.beyond !== 'a cell'
      ? ['Metal in metal: a drop of thread-lock, away from plastic.']
      : []),
    ...(joint.engagementMm < nominalDiameterMm(joint.thread) && joint.into !== '' && bitesMetal
      ? [`Less than one diameter of thread (${nominalDiameterMm(joint.thread)} mm) holds weakly.`]
      : []),
  ]
}

/**
 * The whole schedule of the joints that are wholly said, with the grams of all their screws; those with something still
 * to say are open.
 */
export function fixingsSchedule(
  joints: readonly JointPlan[],
  atHand: (thread: string) => readonly number[] = () => [],
): { rows: readonly JointRow[]; open: readonly JointPlan[]; massG: number; clashes: number } {
  const rows = joints.filter(isSaidJoint).map(joint => fixingRow(joint, atHand(joint.thread)))
  return {
    rows,
    open: joints.filter(joint => !isSaidJoint(joint)),
    massG: rows.reduce((sum, row) => sum + (row.massG ?? 0), 0),
    clashes: rows.filter(row => row.verdict === 'too long' || row.verdict === 'too short').length,
  }
}

/**
 * A joint to begin with: that of the motors on the arms while there is none, with what frame and motors say; else one
 * of which nothing is said.
 */
export function newJoint(id: string, joints: readonly JointPlan[], lines: readonly Line[]): JointPlan {
  const blank: JointPlan = {
    id,
    name: 'New joint',
    holds: null,
    count: null,
    thread: null,
    head: null,
    material: null,
    clampedMm: null,
    engagementMm: null,
    freeDepthMm: null,
    beyond: null,
    into: '',
    lengthMm: null,
    lineId: null,
    said: true,
  }
  const motor = lines.find(line => line.slot === 'motor')
  if (!motor || joints.some(joint => joint.holds === 'motors')) return blank
  const frame = frameWith(lines, 'armThicknessMm')
  return {
    ...blank,
    name: 'Motors on the arms',
    holds: 'motors',
    thread: textOf(motor, 'screwThread') ?? null,
    clampedMm: (frame && measureOf(frame, 'armThicknessMm')) ?? null,
    freeDepthMm: measureOf(motor, 'screwDepthMm') ?? null,
    beyond: 'windings',
  }
}

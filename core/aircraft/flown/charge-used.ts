import { requireFinite, requireNotNegative } from '../../basics/errors'
import type { Chemistry } from '../../model/data'
import { cellCurve, chargeAtV, type PackModel } from '../power'

/** Volts a pack was landed with. */
export interface Landing {
  /** Volts of one cell. */
  readonly cellV: number
  /** Amps it gave meanwhile, and the resistance of one cell, milliohms, with its standard uncertainty; null where it rested. */
  readonly load: { readonly amps: number; readonly cellMohm: number; readonly uCellMohm: number } | null
  /** Read in the first minute after landing, while the cells still recover. */
  readonly isFresh: boolean
}

/** What is known of the charge one flight used. */
export interface ChargeEvidence {
  /** Put back by the charger until the pack was as full as it had been, mAh. */
  readonly putBackMah: number | null
  /** Counted on board, mAh: a log's figure and the same one typed are one. */
  readonly loggedMah: number | null
  readonly landing: Landing | null
  /** Those volts already made the pack's usable charge: they are no second evidence. */
  readonly isLandingSpent: boolean
}

export const chargeSources = ['put back', 'logged', 'landing volts', 'assumed'] as const
export type ChargeSource = (typeof chargeSources)[number]

/** One statement of a flight's charge, with its standard uncertainty, mAh. */
export interface ChargeDatum {
  readonly source: ChargeSource
  readonly mah: number
  readonly uMah: number
}

/** The charge of a flight as it is believed. */
export interface ChargeUsed {
  readonly mah: number
  readonly uMah: number
  /** What it rests on, surest first. */
  readonly from: readonly ChargeDatum[]
  /** What disagrees with the surest, and was left out. */
  readonly against: readonly ChargeDatum[]
}

/** A charger puts back a little more than was used: what heats the cells is lost. Our choice, by lithium cells' usual losses. */
const chargedShare = 0.99
const uPutBack = 0.015
const uLogged = 0.025
/** How well landing volts are read, V a cell: at rest, and while the cells recover. */
const uRestedV = 0.02
const uFreshV = 0.05
/** Without any evidence a flight is taken to have ended at this charge; how well that is known. Shares of a full pack. */
const assumedLeft = 0.2
const uAssumed = 0.08
/** Two statements agree up to so many standard uncertainties between them. */
const agreesZ = 2

/** The charge at some resting volts, the curve going on beyond its ends as steeply as it ended there. */
function chargeBeyond(chemistry: Chemistry, cellV: number): number {
  const curve = cellCurve(chemistry)
  const on = (i: number, k: number) =>
    curve[i]!.charge +
    ((cellV - curve[i]!.openV) * (curve[k]!.charge - curve[i]!.charge)) / (curve[k]!.openV - curve[i]!.openV)
  if (cellV < curve[0]!.openV) return on(0, 1)
  if (cellV > curve.at(-1)!.openV) return on(curve.length - 1, curve.length - 2)
  return chargeAtV(chemistry, cellV)
}

/**
 * The charge a pack was landed with, 0 to 1, and its standard uncertainty. The doubt of the volts is taken to both sides, so
 * that a corner of the curve counts both. Under load the volts lost in the cells are added first. Throws for what is not finite.
 *
 * @example chargeLeft('LiPo', { cellV: 3.45, load: { amps: 22, cellMohm: 8.8, uCellMohm: 0 }, isFresh: false }) // 7.1 % left
 */
export function chargeLeft(
  chemistry: Chemistry,
  { cellV, load, isFresh }: Landing,
): { readonly charge: number; readonly u: number } {
  requireFinite('chargeLeft', 'cellV', cellV)
  if (load) {
    requireNotNegative('chargeLeft', 'amps', load.amps)
    requireNotNegative('chargeLeft', 'cellMohm', load.cellMohm)
    requireNotNegative('chargeLeft', 'uCellMohm', load.uCellMohm)
  }
  const openV = cellV + (load ? (load.amps * load.cellMohm) / 1000 : 0)
  const uV = Math.hypot(isFresh ? uFreshV : uRestedV, load ? (load.amps * load.uCellMohm) / 1000 : 0)
  return {
    charge: chargeAtV(chemistry, openV),
    u: (chargeBeyond(chemistry, openV + uV) - chargeBeyond(chemistry, openV - uV)) / 2,
  }
}

/** Everything said of the charge, or what is assumed where nothing is. `usable` is the pack's charge from full to empty, mAh. */
function dataOf(
  chemistry: Chemistry,
  usable: { readonly mah: number; readonly uMah: number },
  startCharge: number,
  { putBackMah, loggedMah, landing, isLandingSpent }: ChargeEvidence,
): ChargeDatum[] {
  const data: ChargeDatum[] = []
  if (putBackMah !== null) {
    requireNotNegative('chargeUsed', 'putBackMah', putBackMah)
    const mah = putBackMah * chargedShare
    data.push({ source: 'put back', mah, uMah: mah * uPutBack })
  }
  if (loggedMah !== null) {
    requireNotNegative('chargeUsed', 'loggedMah', loggedMah)
    data.push({ source: 'logged', mah: loggedMah, uMah: loggedMah * uLogged })
  }
  if (landing && !isLandingSpent) {
    const left = chargeLeft(chemistry, landing)
    const share = Math.max(0, startCharge - left.charge)
    data.push({
      source: 'landing volts',
      mah: usable.mah * share,
      uMah: Math.hypot(usable.mah * left.u, usable.uMah * share),
    })
  }
  if (data.length > 0) return data
  const share = Math.max(0, startCharge - assumedLeft)
  return [{ source: 'assumed', mah: usable.mah * share, uMah: Math.hypot(usable.mah * uAssumed, usable.uMah * share) }]
}

/**
 * The charge of a flight, mAh: what agrees with the surest is combined by inverse variance, the rest is left out and named.
 * `usable` is the pack's charge from full to empty with its standard uncertainty, `startCharge` 0 to 1. Throws for negative
 * charges and what is not finite.
 */
export function chargeUsed(
  { chemistry }: Pick<PackModel, 'chemistry'>,
  usable: { readonly mah: number; readonly uMah: number },
  startCharge: number,
  evidence: ChargeEvidence,
): ChargeUsed {
  const data = dataOf(chemistry, usable, startCharge, evidence).sort((a, b) => a.uMah - b.uMah)
  const [surest] = data
  const agrees = (one: ChargeDatum) =>
    one === surest || Math.abs(one.mah - surest!.mah) <= agreesZ * Math.hypot(one.uMah, surest!.uMah)
  const from = data.filter(agrees)
  const against = data.filter(one => !agrees(one))
  if (surest!.uMah === 0) return { mah: surest!.mah, uMah: 0, from, against }
  const weight = from.reduce((sum, { uMah }) => sum + uMah ** -2, 0)
  const mah = from.reduce((sum, one) => sum + one.mah * one.uMah ** -2, 0) / weight
  return { mah, uMah: weight ** -0.5, from, against }
}

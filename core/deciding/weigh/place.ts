import { applyCommand, type WeighedAs } from '../../changes/commands'
import { sigmaG } from '../../maths/estimate'
import { lineEstimate } from '../../mass/evidence'
import type { Basis, Build, Line, Mass } from '../../model/ledger'
import type { ListingBiasTable } from '../../mass/listings'
import { allLoadouts, loadoutMasses, type LineEstimates } from '../../mass/loadout'

/**
 * By no more than this factor may a first weighing widen a loadout: what its listing had in common with others of its
 * kind is forgotten with it.
 */
const mostWidening = 1.03

/** Whether what goes on the pan is taken for the part as it came: it is where its listing means that, until a weighing says otherwise. */
export function usualBasis({ mass, listing }: Line): Basis {
  return mass?.evidence === 'weighed' ? mass.basis : listing ? 'as supplied' : 'as fitted'
}

/** As {@link placeOf}, without looking at what it does to loadouts. */
export function quickPlaceOf(mass: Mass, line: Line, honesty: ListingBiasTable): WeighedAs {
  if (mass.weighing?.method === 'by difference') return 'another piece'
  if (!line.mass) return 'estimate'
  if (line.mass.evidence === 'weighed') return mass.basis === line.mass.basis ? 'further' : 'another piece'
  if (mass.basis !== line.mass.basis) return 'estimate'
  return sigmaG(lineEstimate({ ...line, mass }, honesty)) < sigmaG(lineEstimate(line, honesty)) ? 'estimate' : 'further'
}

/**
 * What a weighing of a line becomes: its estimate where it is surer than one that was never on a scale; one more
 * observation beside its estimate where it was weighed before, is less sure than its listing, or would widen a loadout by
 * more than 3 %. Another basis than the one weighed before (leads cut, case off) and a difference are another piece.
 */
export function placeOf(
  mass: Mass,
  line: Line,
  build: Build,
  estimates: LineEstimates,
  honesty: ListingBiasTable,
): WeighedAs {
  const quick = quickPlaceOf(mass, line, honesty)
  return quick === 'estimate' && line.mass?.basis === mass.basis && widens(build, line, mass, estimates)
    ? 'further'
    : quick
}

function widens(build: Build, line: Line, mass: Mass, estimates: LineEstimates): boolean {
  const loadouts = allLoadouts(build)
  const next = applyCommand(build, { type: 'line.weigh', id: line.id, mass, as: 'estimate' })
  const before = loadoutMasses(build, loadouts, estimates)
  return loadoutMasses(next, loadouts, estimates.forBuild(next)).some(
    (after, i) => after.sigmaG > mostWidening * before[i]!.sigmaG,
  )
}

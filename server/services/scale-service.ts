import { admitCheck, type Placing, type ScaleCheck } from '../../core/mass/scale'
import type { ReferenceFields, ScaleFields, ScalesReply, Tare } from '../../shared/schemas/scales'
import type { scalesRepository } from '../db/scales-repository'
import { DomainProblem } from '../problems'

/** The use cases of scales: the scales, what they are checked with, the checks, and named tares. */
export function scaleService(repository: ReturnType<typeof scalesRepository>, now: () => string) {
  function requireScale(id: string) {
    const scale = repository.scales().find(s => s.id === id)
    if (!scale) throw new DomainProblem('not-found', 'There is no such scale here.')
    return scale
  }
  return {
    all: (): ScalesReply => ({
      scales: repository.scales(),
      references: repository.references(),
      checks: repository.checks(),
      tares: repository.tares(),
    }),
    putScale: (id: string, fields: ScaleFields) => {
      repository.putScale({ id, ...fields }, now())
    },
    /** A scale that was ever checked stays: past weighings rest on it. */
    removeScale(id: string) {
      requireScale(id)
      if (repository.checks().some(check => check.scaleId === id))
        throw new DomainProblem(
          'refused',
          'This scale has checks that weighings rest on, so it stays. Rename it if it is gone.',
        )
      repository.removeScale(id)
    },
    putReference: (id: string, fields: ReferenceFields) => {
      repository.putReference({ id, ...fields }, now())
    },
    removeReference(id: string) {
      if (!repository.removeReference(id)) throw new DomainProblem('not-found', 'There is no such reference mass.')
    },
    /** Keeps a check as it was, or anew after it was taken back. */
    putCheck(check: ScaleCheck, there: boolean) {
      if (there) throw new DomainProblem('refused', 'A check stays as it was taken. Take another one.')
      admitCheck(requireScale(check.scaleId), check.placings)
      repository.addCheck(check)
    },
    /** A check that a weighing rests on stays. */
    removeCheck(id: string) {
      if (repository.restsOnCheck(id))
        throw new DomainProblem('refused', 'A weighing rests on this check, so it stays.')
      repository.removeCheck(id)
    },
    putTare(tare: Tare, there: boolean) {
      requireScale(tare.scaleId)
      if (there) repository.removeTare(tare.id)
      repository.addTare(tare)
    },
    /** Keeps a check, after the core has agreed that it says something. */
    addCheck(id: string, scaleId: string, takenAt: string, placings: Placing[]) {
      admitCheck(requireScale(scaleId), placings)
      if (repository.checks().some(check => check.id === id))
        throw new DomainProblem('refused', 'This check is kept already.')
      repository.addCheck({ id, scaleId, takenAt, placings })
    },
    addTare(tare: Tare) {
      requireScale(tare.scaleId)
      repository.addTare(tare)
    },
    removeTare(id: string) {
      if (!repository.removeTare(id)) throw new DomainProblem('not-found', 'There is no such tray.')
    },
  }
}
export type ScaleService = ReturnType<typeof scaleService>

import {
  learnSundries,
  outcomeOf,
  plannedLines,
  sundriesFor,
  teachesSundries,
  type Outcome,
} from '../../core/comparing/outcomes'
import { lineGrams } from '../../core/mass/evidence'
import type { Line } from '../../core/model/ledger'
import { typicalSundries, withLearntSundries } from '../../core/parts/catalogue'
import type { OutcomesReply } from '../../shared/schemas/outcomes'
import type { BuildService } from './build-service'

interface Dependencies {
  readonly builds: BuildService
  readonly newId: () => string
}

/** How plans came out, by build and by line, and what that teaches plans to come. */
export function outcomeService({ builds, newId }: Dependencies) {
  const finished = (): { readonly id: string; readonly outcome: Outcome }[] => {
    const honesty = builds.honesty()
    return builds.everyBuild().flatMap(build => {
      const outcome = outcomeOf(build, honesty)
      return outcome ? [{ id: build.id, outcome }] : []
    })
  }
  /** What was learnt of sundries for a build of a class, the build itself left out. */
  function learntFor(craftClass: string, withoutId: string | null) {
    const prior = typicalSundries(craftClass)
    const shares = finished()
      .filter(({ id, outcome }) => id !== withoutId && teachesSundries(outcome, prior.tau))
      .map(({ outcome }) => outcome.share)
    return { prior, ...learnSundries(prior, shares) }
  }
  return {
    learntFor,
    all(): OutcomesReply {
      const honesty = builds.honesty()
      const outcomes = new Map(finished().map(({ id, outcome }) => [id, outcome]))
      return {
        builds: builds
          .everyBuild()
          .filter(({ reference }) => reference === null)
          .map(build => {
            const { prior, mu, sigma, builds: count } = learntFor(build.craftClass, build.id)
            const outcome = outcomes.get(build.id) ?? null
            return {
              id: build.id,
              name: build.name,
              outcome: outcome && { ...outcome, teaches: teachesSundries(outcome, prior.tau) },
              learnt: { mu, sigma, builds: count },
              lines: plannedLines(build, builds.versions(build.id), honesty),
            }
          }),
      }
    },
    /** The lines of a class with what plans leave out as it was learnt; as they are where nothing was. */
    planned(craftClass: string, lines: readonly Line[]): Line[] {
      const learnt = learntFor(craftClass, null)
      if (learnt.builds === 0) return [...lines]
      const bookedG = lines
        .filter(({ slot, role }) => slot !== 'other' && slot !== 'pack' && role !== 'payload')
        .reduce((sum, { mass, quantity }) => sum + (mass ? lineGrams(mass, quantity) : 0), 0)
      return withLearntSundries(lines, { ...sundriesFor(bookedG, learnt), builds: learnt.builds }, newId)
    },
  }
}
export type OutcomeService = ReturnType<typeof outcomeService>

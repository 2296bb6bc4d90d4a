import type { Highs } from 'highs'
import { linearText, type SolveResult, type LinearSolver } from '../../core/deciding/shave'

/**
 * With a gap of nothing and its usual tolerance the solver has called worse plans optimal where they lie near the
 * boundary; with a finer one it does not.
 */
export const exact = { mip_rel_gap: 0, mip_abs_gap: 0, mip_feasibility_tolerance: 1e-9 } as const

/** The solver HiGHS, loaded by whoever has it (a worker, a test), as the optimiser wants it: exact, one thread, with a time. */
export function exactSolver(highs: Highs): LinearSolver {
  return (program, seconds): SolveResult => {
    const answer = highs.solve(linearText(program), {
      ...exact,
      time_limit: Math.max(0.05, seconds),
      output_flag: false,
    })
    const values = () =>
      new Map(Object.entries(answer.Columns).map(([name, column]) => [name, 'Primal' in column ? column.Primal : 0]))
    switch (answer.Status) {
      case 'Optimal':
        return { status: 'optimal', objective: answer.ObjectiveValue, values: values() }
      case 'Infeasible':
        return { status: 'infeasible' }
      // At its time the solver gives back the best it has, if it has any: whole numbers then.
      default:
        return { status: 'stopped', values: isWhole(program.binaries, values()) ? values() : null }
    }
  }
}

/** Whether a stopped answer is a plan at all: every yes or no is one. */
function isWhole(binaries: readonly string[], values: ReadonlyMap<string, number>): boolean {
  return binaries.every(name => {
    const value = values.get(name)
    return value !== undefined && Math.min(Math.abs(value), Math.abs(value - 1)) < 1e-6
  })
}

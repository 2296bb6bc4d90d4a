import type { Highs } from 'highs'
import { linearText, type LinearAnswer, type LinearSolver } from '../../core/shave'

/** The solver HiGHS, loaded by whoever has it (a worker, a test), as the optimiser wants it: exact, one thread, with a time. */
export function exactSolver(highs: Highs): LinearSolver {
  return (program, seconds): LinearAnswer => {
    const answer = highs.solve(linearText(program), { mip_rel_gap: 0, mip_abs_gap: 0, time_limit: Math.max(0.05, seconds), output_flag: false })
    const values = () => new Map(Object.entries(answer.Columns).map(([name, column]) => [name, 'Primal' in column ? column.Primal : 0]))
    switch (answer.Status) {
      case 'Optimal': return { status: 'optimal', objective: answer.ObjectiveValue, values: values() }
      case 'Infeasible': return { status: 'infeasible' }
      default: return { status: 'stopped', values: null, bound: -Infinity }
    }
  }
}

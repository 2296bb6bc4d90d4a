/** A mixed-integer program in the plain text that solvers of linear programs read, with what comes back. */
export interface LinearRow {
  readonly coefficients: ReadonlyMap<string, number>
  readonly least?: number
  readonly most?: number
}
export interface LinearProgram {
  readonly goal: 'least' | 'most'
  readonly objective: ReadonlyMap<string, number>
  readonly rows: readonly LinearRow[]
  readonly binaries: readonly string[]
  /** Variables that are not binary, with their bounds. */
  readonly continuous: readonly { readonly name: string; readonly least: number; readonly most: number }[]
}

export type SolveResult =
  | { readonly status: 'optimal'; readonly objective: number; readonly values: ReadonlyMap<string, number> }
  | { readonly status: 'infeasible' }
  /** The solver stopped at its time, with the best found, if any. */
  | { readonly status: 'stopped'; readonly values: ReadonlyMap<string, number> | null }

/** Solves a program exactly (gap 0); given up after `seconds`. Which solver does it is the caller's affair. */
export type LinearSolver = (program: LinearProgram, seconds: number) => SolveResult

const number = (value: number) => {
  const text = String(Number(value.toPrecision(15)))
  return text
}
function sum(coefficients: ReadonlyMap<string, number>): string {
  const terms: string[] = []
  for (const [name, value] of coefficients)
    if (value !== 0) terms.push(`${value < 0 ? '-' : '+'} ${number(Math.abs(value))} ${name}`)
  // Lines of the format are of limited length.
  return terms.length === 0 ? '' : terms.map((term, i) => (i % 8 === 7 ? `${term}\n` : term)).join(' ')
}

/** The program without its whole numbers: quickly solved, and nothing whole can be better. */
export function lpRelaxation(program: LinearProgram): LinearProgram {
  return {
    ...program,
    binaries: [],
    continuous: [...program.continuous, ...program.binaries.map(name => ({ name, least: 0, most: 1 }))],
  }
}

/** The program in CPLEX LP format, as HiGHS and others read it. A program has at least one variable. */
export function linearText({ goal, objective, rows, binaries, continuous }: LinearProgram): string {
  const [first] = [...binaries, ...continuous.map(c => c.name)]
  const lines = [goal === 'least' ? 'Minimize' : 'Maximize', ` obj: ${sum(objective) || `0 ${first}`}`, 'Subject To']
  rows.forEach(({ coefficients, least, most }, i) => {
    const text = sum(coefficients) || `0 ${first}`
    if (least !== undefined) lines.push(` l${i}: ${text} >= ${number(least)}`)
    if (most !== undefined) lines.push(` m${i}: ${text} <= ${number(most)}`)
  })
  if (continuous.length > 0)
    lines.push('Bounds', ...continuous.map(c => ` ${number(c.least)} <= ${c.name} <= ${number(c.most)}`))
  if (binaries.length > 0)
    lines.push(
      'Binary',
      ...Array.from(
        { length: Math.ceil(binaries.length / 20) },
        (_, i) => ` ${binaries.slice(i * 20, i * 20 + 20).join(' ')}`,
      ),
    )
  return [...lines, 'End', ''].join('\n')
}

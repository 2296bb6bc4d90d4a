/**
 * Plans of 60 and of 200 shavings with groups and needs: what they take against the bare solver calls they make; and for the
 * case without spread against a dynamic program over bins of 0.01 g, which must find the same cost.
 */
import loadHighs from 'highs'
import {
  bestPlan,
  minimiseFirst,
  type LinearSolver,
  type ShavingItem,
  type ShavingProblem,
} from '../core/deciding/shave'
import { exactSolver } from '../shared/solver/highs'
import { seeded } from './measure'

const solve = exactSolver(await loadHighs())

/** What a change does to the causes of the weight: its own come and go, and it moves one of a few that are shared. */
function shared(i: number, random: () => number): Record<string, number> {
  return { [`new${i}`]: 0.25 * random(), [`own${i}`]: -0.1 * random(), [`kind${i % 5}`]: 0.2 * (random() - 0.5) }
}
/** The hard case: every change brings a guard of its own, and nothing is shared. */
function independent(i: number, random: () => number): Record<string, number> {
  return { [`new${i}`]: 0.2 + 0.3 * random() }
}

function problemOf(count: number, seed: number, spread: boolean, causesOf = shared, loadouts = 1): ShavingProblem {
  const random = seeded(seed)
  const items = Array.from({ length: count }, (_, i): ShavingItem => {
    const grams = Math.round((0.1 + random() * 3) * 100) / 100
    return {
      id: `s${i}`,
      gramsG: Array<number>(loadouts).fill(grams),
      changes: Array(loadouts).fill(spread ? causesOf(i, random) : {}),
      lock: null,
      forGood: random() < 0.3,
      // Dear ones take more off, as in life: the hard case for a solver.
      cents: Math.round(grams * 400 * (0.7 + random() * 0.6)),
      minutes: Math.floor(random() * 60),
      loss: Math.floor(random() * 6),
    }
  })
  const all = items.reduce((sum, item) => sum + item.gramsG[0]!, 0)
  return {
    items,
    targets: Array.from({ length: loadouts }, (_, t) => ({
      massG: 250 + t,
      contributions: spread ? { rest: 0.85, ...Object.fromEntries(items.map((_, i) => [`own${i}`, 0.1])) } : {},
      goalG: Math.round((250 + t - all * 0.3) * 100) / 100,
      guard: spread ? 1.6448536269514722 : 0,
    })),
    spare: { ...minimiseFirst('cents'), minutes: 0, loss: 0, changes: 0, forGood: 0 },
    caps: {},
    groups: spread
      ? Array.from({ length: Math.floor(count / 10) }, (_, g) => [0, 1, 2].map(k => `s${g * 10 + k}`))
      : [],
    needs: spread
      ? Array.from({ length: Math.floor(count / 12) }, (_, g) => [`s${g * 12 + 5}`, `s${g * 12 + 6}`] as const)
      : [],
  }
}

/** A plan with the time its bare solver calls took. */
function timed(problem: ShavingProblem, seconds = 20) {
  let [calls, bareMs] = [0, 0]
  const counting: LinearSolver = (program, limit) => {
    const from = performance.now()
    const answer = solve(program, limit)
    bareMs += performance.now() - from
    calls++
    return answer
  }
  const from = performance.now()
  const answer = bestPlan(problem, counting, { seconds, elapsed: () => (performance.now() - from) / 1000 })
  return { answer, ms: performance.now() - from, calls, bareMs }
}
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

for (const [count, limitMs] of [
  [60, 1000],
  [200, 4000],
] as const) {
  const runs = Array.from({ length: 20 }, (_, seed) => timed(problemOf(count, seed + 1, true)))
  const ms = runs.map(run => run.ms)
  console.log(
    `plan of ${count} shavings, 20 seeds: median ${median(ms).toFixed(0)} ms ` +
      `(${median(ms) < limitMs ? 'under' : 'NOT under'} ${limitMs / 1000} s), slowest ` +
      `${Math.max(...ms).toFixed(0)} ms; ${median(runs.map(run => run.ms / run.bareMs)).toFixed(2)} ` +
      `times its ${median(runs.map(run => run.calls))} bare solver calls; proven best in ` +
      `${runs.filter(run => run.answer.status === 'best').length} of 20`,
  )
}

{
  const runs = Array.from({ length: 10 }, (_, seed) => timed(problemOf(60, seed + 1, true, independent, 2)))
  const ms = runs.map(run => run.ms)
  console.log(
    `plan of 60 shavings, two loadouts, every guard a cause of its own, prices with grams, 10 seeds: ` +
      `median ${median(ms).toFixed(0)} ms, slowest ${Math.max(...ms).toFixed(0)} ms ` +
      `(${Math.max(...ms) < 5000 ? 'under' : 'NOT under'} 5 s); ${median(runs.map(run => run.calls))} ` +
      `bare solver calls; proven best in ${runs.filter(run => run.answer.status === 'best').length} of ` +
      `10`,
  )
}

{
  const base = problemOf(60, 3, true)
  const all = base.items.reduce((sum, item) => sum + item.gramsG[0]!, 0)
  const from = performance.now()
  for (let i = 1; i <= 40; i++)
    timed({ ...base, targets: [{ massG: 250, contributions: {}, goalG: 250 - (all * 0.7 * i) / 40, guard: 0 }] }, 5)
  const ms = performance.now() - from
  console.log(
    `frontier of 40 points over 60 shavings: ${(ms / 1000).toFixed(1)} s (${ms < 15_000 ? 'under' : 'NOT under'} 15 s)`,
  )
}

/** The least cents for so many hundredths of a gram off, bin by bin. */
function binned(problem: ShavingProblem): number {
  const wanted = Math.round((problem.targets[0]!.massG - problem.targets[0]!.goalG) * 100)
  let least = new Float64Array(wanted + 1).fill(Infinity)
  least[0] = 0
  for (const item of problem.items) {
    const next = least.slice()
    const off = Math.round(item.gramsG[0]! * 100)
    for (let bin = 0; bin <= wanted; bin++) {
      const to = Math.min(wanted, bin + off)
      if (least[bin]! + item.cents < next[to]!) next[to] = least[bin]! + item.cents
    }
    least = next
  }
  return least[wanted]!
}
const ratios = Array.from({ length: 10 }, (_, seed) => {
  const problem = problemOf(60, seed + 100, false)
  const from = performance.now()
  const cents = binned(problem)
  const binnedMs = performance.now() - from
  const { answer, ms } = timed(problem)
  if (answer.status !== 'best' || Math.abs(answer.cost - cents) > 1e-6)
    throw new Error(
      `seed ${seed}: ${answer.status === 'best' ? answer.cost : answer.status} against ${cents} of the bins`,
    )
  return ms / binnedMs
})
console.log(
  `without spread, 60 shavings, 10 seeds: the same cost as a dynamic program over 0.01 g bins each ` +
    `time; median ${median(ratios).toFixed(1)} times its time`,
)

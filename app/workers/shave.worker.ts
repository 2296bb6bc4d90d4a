import loadHighs from 'highs'
import wasmUrl from 'highs/runtime?url'
import { HonestyTable, listingObservations, type ListingObservation } from '#core/listings'
import type { Build, LoadoutChoice } from '#core/ledger'
import { estimatesOf } from '#core/loadout'
import type { RuleCard } from '#core/rules'
import { bestPlan, poseProblem, reachesGoal, shownPlan, type LinearSolver, type PlanningSetting, type ShavingGoal, type ShownPlan } from '#core/shave'
import { exactSolver } from '#shared/solver/highs'

/** A plan wanted for a build; `frontier` asks besides for the least cost of every so many grams. */
export interface ShaveRequest { readonly number: number, readonly build: Build, readonly choice: LoadoutChoice, readonly cards: readonly RuleCard[], readonly honestyElsewhere: readonly ListingObservation[], readonly goal: ShavingGoal, readonly seconds: number, readonly frontier: boolean }
/** A point of the frontier: so many grams off cost at least so much, by this plan. */
export interface FrontierPoint { readonly gramsG: number, readonly plan: ShownPlan }
export type ShaveReply
  = | { readonly kind: 'ready' }
    | { readonly kind: 'plan', readonly number: number, readonly plan: ShownPlan }
    | { readonly kind: 'other', readonly number: number, readonly plan: ShownPlan }
    | { readonly kind: 'point', readonly number: number, readonly point: FrontierPoint, readonly done: number, readonly of: number }
    | { readonly kind: 'done', readonly number: number }
    | { readonly kind: 'failed', readonly number: number, readonly sentence: string }

const say = (reply: ShaveReply) => postMessage(reply)
let wanted = 0
/** Loaded and warmed at once: the first solve takes longest, and should not be the one somebody waits for. */
const solver: Promise<LinearSolver> = loadHighs({ locateFile: () => wasmUrl }).then((highs) => {
  const solve = exactSolver(highs)
  solve({ goal: 'most', objective: new Map([['x0', 1], ['x1', 2]]), rows: [{ coefficients: new Map([['x0', 1], ['x1', 1]]), most: 1 }], binaries: ['x0', 'x1'], continuous: [] }, 5)
  say({ kind: 'ready' })
  return solve
})
solver.catch(() => undefined)

const others = 3
const points = 24

addEventListener('message', ({ data }: MessageEvent<ShaveRequest>) => {
  wanted = data.number
  answer(data).catch(() => say({ kind: 'failed', number: data.number, sentence: 'The plan could not be worked out: the solver did not start or gave up. The list is as it was.' }))
})
const pause = () => new Promise(done => setTimeout(done))

async function answer({ number, build, choice, cards, honestyElsewhere, goal, seconds, frontier }: ShaveRequest) {
  const solve = await solver
  const setting: PlanningSetting = { build, choice, cards, goal, estimates: estimatesOf(build, new HonestyTable([...honestyElsewhere, ...listingObservations(build.lines)])) }
  const posed = poseProblem(setting)
  const byId = new Map(posed.shavings.map(shaving => [shaving.id, shaving]))
  const from = performance.now()
  const elapsed = () => (performance.now() - from) / 1000
  const notAgain: string[][] = []
  for (let i = 0; i <= others; i++) {
    await pause()
    if (number !== wanted) return
    const found = bestPlan(posed.problem, solve, { seconds: i === 0 ? seconds : Math.min(seconds, elapsed() + 2), elapsed, notAgain, isClear: items => reachesGoal(setting, items.map(item => byId.get(item.id)!)) })
    const plan = shownPlan(setting, found)
    if (i === 0) say({ kind: 'plan', number, plan })
    else if (found.status === 'best') say({ kind: 'other', number, plan })
    if (found.status !== 'best' || found.items.length === 0) break
    notAgain.push(found.items.map(item => item.id))
  }
  if (frontier) await drawFrontier(number, setting, solve)
  if (number === wanted) say({ kind: 'done', number })
}

/** The least cost of every so many grams off, from nothing to everything; points are told as they are found. */
async function drawFrontier(number: number, setting: PlanningSetting, solve: LinearSolver) {
  const most = poseProblem({ ...setting, goal: { kind: 'grams', gramsG: 0 } }).problem.items.reduce((sum, item) => sum + (item.lock === 'out' ? 0 : Math.max(0, item.gramsG[0]!)), 0)
  for (let i = 1; i <= points; i++) {
    await pause()
    if (number !== wanted) return
    const gramsG = most * i / points
    const at: PlanningSetting = { ...setting, goal: { kind: 'grams', gramsG } }
    const from = performance.now()
    const found = bestPlan(poseProblem(at).problem, solve, { seconds: 2, elapsed: () => (performance.now() - from) / 1000 })
    if (found.status === 'none') { say({ kind: 'done', number }); return }
    if (found.status === 'best') say({ kind: 'point', number, point: { gramsG, plan: shownPlan(at, found) }, done: i, of: points })
  }
}

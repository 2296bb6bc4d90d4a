import loadHighs from 'highs'
import wasmUrl from 'highs/runtime?url'
import { ListingBiasTable, listingObservations, type ListingObservation } from '#core/mass/listings'
import type { Build, LoadoutChoice } from '#core/model/ledger'
import { estimatesOf } from '#core/mass/loadout'
import type { RuleCard } from '#core/limits/rules'
import {
  bestPlan,
  openLinesOf,
  planHeldBy,
  PlanSearch,
  poseProblem,
  reachesGoal,
  shavedG,
  shaveListOf,
  shownPlan,
  type LinearSolver,
  type PlanningSetting,
  type ShavingGoal,
  type ShownPlan,
} from '#core/deciding/shave'
import { exactSolver } from '#shared/solver/highs'

/** What all questions about a build's shavings carry. */
interface ShaveQuestion {
  readonly number: number
  readonly build: Build
  readonly choice: LoadoutChoice
  readonly cards: readonly RuleCard[]
  readonly honestyElsewhere: readonly ListingObservation[]
  readonly goal: ShavingGoal
  readonly slipFactor: number
  readonly seconds: number
}
export type ShaveRequest =
  /** A plan wanted; `frontier` asks besides for the least cost of every so many grams. */
  | (ShaveQuestion & { readonly kind: 'plan'; readonly frontier: boolean })
  /** What the plan would be with one shaving forced in or left out. */
  | (ShaveQuestion & { readonly kind: 'turned'; readonly id: string; readonly lock: 'in' | 'out' })
  /** The search that ran out of time goes on where it was. */
  | { readonly kind: 'go on'; readonly number: number; readonly seconds: number }
/** A point of the frontier: so many grams off cost at least so much, by this plan. */
export interface FrontierPoint {
  readonly gramsG: number
  readonly plan: ShownPlan
}
export type ShaveReply =
  | { readonly kind: 'ready' }
  | { readonly kind: 'plan'; readonly number: number; readonly plan: ShownPlan }
  | { readonly kind: 'other'; readonly number: number; readonly plan: ShownPlan }
  | {
      readonly kind: 'point'
      readonly number: number
      readonly point: FrontierPoint
      readonly done: number
      readonly of: number
    }
  | { readonly kind: 'turned'; readonly number: number; readonly id: string; readonly plan: ShownPlan }
  | { readonly kind: 'done'; readonly number: number }
  | { readonly kind: 'failed'; readonly number: number; readonly sentence: string }

const say = (reply: ShaveReply) => postMessage(reply)
let wanted = 0
/** Loaded and warmed at once: the first solve takes longest, and should not be the one somebody waits for. */
const solver: Promise<LinearSolver> = loadHighs({ locateFile: () => wasmUrl }).then(highs => {
  const solve = exactSolver(highs)
  solve(
    {
      goal: 'most',
      objective: new Map([
        ['x0', 1],
        ['x1', 2],
      ]),
      rows: [
        {
          coefficients: new Map([
            ['x0', 1],
            ['x1', 1],
          ]),
          most: 1,
        },
      ],
      binaries: ['x0', 'x1'],
      continuous: [],
    },
    5,
  )
  say({ kind: 'ready' })
  return solve
})
solver.catch(() => undefined)

const others = 3
const points = 24

/** The first search of the last question, kept so that it can go on. */
let last: { readonly search: PlanSearch; readonly setting: PlanningSetting } | null = null

addEventListener('message', ({ data }: MessageEvent<ShaveRequest>) => {
  wanted = data.number
  const answered =
    data.kind === 'plan' ? answer(data) : data.kind === 'turned' ? turned(data) : goOn(data.number, data.seconds)
  answered.catch(() =>
    say({
      kind: 'failed',
      number: data.number,
      sentence: 'The plan could not be worked out: the solver did not start or gave up. The list is as it was.',
    }),
  )
})
const pause = () => new Promise(done => setTimeout(done))
function stopwatch() {
  const from = performance.now()
  return () => (performance.now() - from) / 1000
}
function settingOf({ build, choice, cards, honestyElsewhere, goal, slipFactor }: ShaveQuestion): PlanningSetting {
  return {
    build,
    choice,
    cards,
    goal,
    slipFactor,
    estimates: estimatesOf(build, new ListingBiasTable([...honestyElsewhere, ...listingObservations(build.lines)])),
  }
}
function searchOf(
  setting: PlanningSetting,
  solve: LinearSolver,
  notAgain: readonly (readonly string[])[] = [],
): PlanSearch {
  const posed = poseProblem(setting)
  const byId = new Map(posed.shavings.map(shaving => [shaving.id, shaving]))
  return new PlanSearch(posed.problem, solve, {
    notAgain,
    isClear: items =>
      reachesGoal(
        setting,
        items.map(item => byId.get(item.id)!),
      ),
  })
}

async function answer(question: ShaveQuestion & { readonly frontier: boolean }) {
  const { number, seconds, frontier } = question
  const solve = await solver
  const setting = settingOf(question)
  const open = openLinesOf(setting)
  if (open.length > 0) {
    say({ kind: 'plan', number, plan: planHeldBy(open) })
    say({ kind: 'done', number })
    return
  }
  const elapsed = stopwatch()
  const notAgain: string[][] = []
  for (let i = 0; i <= others; i++) {
    await pause()
    if (number !== wanted) return
    const search = searchOf(setting, solve, notAgain)
    if (i === 0) last = { search, setting }
    const found = search.run({ seconds: i === 0 ? seconds : Math.min(seconds, elapsed() + 2), elapsed })
    const plan = shownPlan(setting, found)
    if (i === 0) say({ kind: 'plan', number, plan })
    else if (found.status === 'best') say({ kind: 'other', number, plan })
    if (found.status !== 'best' || found.items.length === 0) break
    notAgain.push(found.items.map(item => item.id))
  }
  if (frontier) await drawFrontier(number, setting, solve)
  if (number === wanted) say({ kind: 'done', number })
}

async function goOn(number: number, seconds: number) {
  if (!last) throw new Error('There is no search to go on with')
  say({ kind: 'plan', number, plan: shownPlan(last.setting, last.search.run({ seconds, elapsed: stopwatch() })) })
  say({ kind: 'done', number })
}

async function turned(question: ShaveQuestion & { readonly id: string; readonly lock: 'in' | 'out' }) {
  const { number, id, lock, build, seconds } = question
  const solve = await solver
  const list = shaveListOf(build)
  const setting = settingOf({
    ...question,
    build: {
      ...build,
      shave: { ...list, shavings: list.shavings.map(shaving => (shaving.id === id ? { ...shaving, lock } : shaving)) },
    },
  })
  say({
    kind: 'turned',
    number,
    id,
    plan: shownPlan(setting, searchOf(setting, solve).run({ seconds, elapsed: stopwatch() })),
  })
}

/** The least cost of every so many grams off, from nothing to everything; points are told as they are found. */
async function drawFrontier(number: number, setting: PlanningSetting, solve: LinearSolver) {
  const most = poseProblem({ ...setting, goal: { kind: 'grams', gramsG: 0 } }).problem.items.reduce(
    (sum, item) => sum + (item.lock === 'out' ? 0 : Math.max(0, item.gramsG[0]!)),
    0,
  )
  for (let i = 1; i <= points; i++) {
    await pause()
    if (number !== wanted) return
    const gramsG = (most * i) / points
    const at: PlanningSetting = { ...setting, goal: { kind: 'grams', gramsG: gramsG + shavedG(setting.build) } }
    const found = bestPlan(poseProblem(at).problem, solve, { seconds: 2, elapsed: stopwatch() })
    if (found.status === 'none') {
      say({ kind: 'done', number })
      return
    }
    if (found.status === 'best')
      say({ kind: 'point', number, point: { gramsG, plan: shownPlan(at, found) }, done: i, of: points })
  }
}

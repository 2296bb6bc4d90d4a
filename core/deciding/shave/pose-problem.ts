import { applyCommand } from '../../changes/commands'
import { sigmaG, subtractEstimates, type Estimate } from '../../maths/estimate'
import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { allowedLoadouts, countedLines, dryLines, loadoutMasses, type LineEstimates } from '../../mass/loadout'
import { normalQuantile, sumCompensated } from '../../maths/numbers'
import { chosenCards, loadoutVerdicts } from '../../mass/report'
import { limitG, type RuleCard } from '../../limits/rules'
import { judge, type Comparator } from '../../limits/verdict'
import { effectOf, massAfter } from '../../making/shave-effect'
import type { PlanAnswer } from './plan-search'
import {
  minimiseFirst,
  maximiseBenefit,
  type LineBudget,
  type ShavingItem,
  type ShavingProblem,
  type ShavingTarget,
} from './problem'
import { blankShaveList, type Shaving, type ShaveList } from '../../model/data'

/**
 * What a plan is to reach: Clear under the chosen cards with the reserve kept free; a dry mass of so many grams; so
 * many grams off, those done already counted; or the most that can be put on while it stays Clear.
 */
export type ShavingGoal =
  | { readonly kind: 'clear' }
  | { readonly kind: 'put on' }
  | { readonly kind: 'dry'; readonly gramsG: number }
  | { readonly kind: 'grams'; readonly gramsG: number }

export interface PlanningSetting {
  readonly build: Build
  /** The loadout looked at; the list may ask for every one that is flown. */
  readonly choice: LoadoutChoice
  readonly cards: readonly RuleCard[]
  readonly estimates: LineEstimates
  readonly goal: ShavingGoal
  /** What the likelihood of a slip is multiplied by: the builder's own hand. */
  readonly slipFactor: number
}

export const shaveListOf = (build: Build): ShaveList => build.shave ?? blankShaveList

/** Plans are made for no day in particular. */
const noDay = '2000-01-01'

/** The build after a shaving, as doing it would leave it; the build itself where it cannot be done. */
export function afterShaving(build: Build, shaving: Shaving, estimates: LineEstimates): Build {
  const effect = effectOf(build, shaving)
  if (effect.kind === 'none' || shaving.state === 'done') return build
  const mass = massAfter(
    build,
    shaving,
    line => estimates.before(line),
    { gramsG: shaving.gramsG, spreadG: shaving.spreadG, weighed: false, on: noDay },
    earlier => `shaved-${shaving.id}-${earlier}`,
  )
  const listed = build.shave?.shavings.some(s => s.id === shaving.id)
    ? build
    : { ...build, shave: { ...shaveListOf(build), shavings: [...shaveListOf(build).shavings, shaving] } }
  return applyCommand(listed, { type: 'shaving.do', id: shaving.id, mass, realG: null, on: noDay })
}

/** Shavings a plan may choose from: neither done nor refused, and such as do something; what is put on only where that is asked. */
export function openShavings(build: Build, goal: ShavingGoal['kind'] = 'clear'): Shaving[] {
  return shaveListOf(build).shavings.filter(
    s =>
      s.state !== 'done' &&
      s.state !== 'refused' &&
      (s.kind === 'put on') === (goal === 'put on') &&
      hasGrams(build, s),
  )
}

/** Whether it is known what a shaving takes off: the ledger knows of lines; of what is cut somebody has to say. */
export function hasGrams(build: Build, shaving: Shaving): boolean {
  const { kind } = effectOf(build, shaving)
  return kind !== 'none' && (shaving.gramsG !== 0 || (kind !== 'grams' && kind !== 'new line'))
}

/** What the shavings that are done took off together, grams: by the scale where it has said, else by their forecast. */
export function shavedG(build: Build): number {
  return sumCompensated(
    shaveListOf(build)
      .shavings.filter(s => s.state === 'done')
      .map(s => s.realG ?? s.gramsG),
  )
}

/** Whether somebody has said what a shaving costs: it, or the part it fits. */
export function isPriced(build: Build, shaving: Shaving): boolean {
  if (shaving.cents !== null) return true
  const effect = effectOf(build, shaving)
  if (effect.kind === 'pack' || effect.kind === 'on') return true
  return build.lines.find(line => line.id === shaving.candidateId)?.priceEachCents != null
}

/**
 * What a shaving costs in whole cents, the price of the part it may ruin by its likelihood and the builder's hand
 * included. A price nobody has said counts as nothing: see {@link isPriced}.
 */
export function shavingCents(build: Build, shaving: Shaving, slipFactor: number): number {
  const touched = build.lines.find(line => line.id === (shaving.candidateId ?? shaving.lineId))
  const own = effectOf(build, shaving).kind === 'pack'
  const bought =
    shaving.candidateId === null || (shaving.cents ?? 0) > 0 || own
      ? 0
      : (touched?.priceEachCents ?? 0) * (touched?.quantity ?? 1)
  const ruined = build.lines.find(line => line.id === shaving.lineId)
  return (
    (shaving.cents ?? 0) +
    bought +
    Math.round((ruined?.priceEachCents ?? 0) * Math.min(1, (shaving.slipPercent * slipFactor) / 100))
  )
}

/** One loadout under one card that has to come down. A card that looks at the declared maximum watches every loadout allowed. */
interface Watched {
  readonly choice: LoadoutChoice
  readonly card: RuleCard
}

function watchedOf(setting: PlanningSetting): Watched[] {
  const { build, cards } = setting
  const judging = chosenCards(build, cards).filter(card => limitG(card) !== null && card.comparator !== 'none')
  const allowed = allowedLoadouts(build)
  return judging.flatMap(card =>
    (card.counts === 'maximum-take-off' && allowed.length > 0 ? allowed : choicesOf(setting)).map(choice => ({
      choice,
      card,
    })),
  )
}

/** The lines a card counts in a loadout. */
function linesUnder(build: Build, { choice, card }: Watched): Line[] {
  const counted = countedLines(build, choice)
  return card.counts === 'airframe-and-pack' ? counted.filter(line => !line.removable) : counted
}
/** The weight a card looks at with all its causes, from the whole ledger. */
function weightUnder(build: Build, at: Watched, estimates: LineEstimates): Estimate {
  return estimates.sum(linesUnder(build, at))
}

/** Lines without grams that count where a plan is to be Clear: while there are any, none is. */
export function openLinesOf(setting: PlanningSetting): Line[] {
  if (setting.goal.kind === 'grams' || setting.goal.kind === 'dry') return []
  const open = new Set(watchedOf(setting).flatMap(at => linesUnder(setting.build, at).filter(line => !line.mass)))
  return setting.build.lines.filter(line => open.has(line))
}

/** What the build weighs dry by its means: without pack and payload, as its own goal is said. */
function dryG(build: Build, estimates: LineEstimates, choice: LoadoutChoice): number {
  return estimates.sum(dryLines(build, choice)).valueG
}

function choicesOf({ build, choice }: PlanningSetting): LoadoutChoice[] {
  return shaveListOf(build).everyLoadout ? allowedLoadouts(build) : [choice]
}
/** What a shaving takes off one loadout by the whole ledger, grams: nothing where it touches what does not fly in it. */
export function takesOffG(build: Build, shaving: Shaving, choice: LoadoutChoice, estimates: LineEstimates): number {
  const after = afterShaving(build, shaving, estimates)
  return (
    loadoutMasses(build, [choice], estimates)[0]!.massG -
    loadoutMasses(after, movedChoices([choice], build, after), estimates.forBuild(after))[0]!.massG
  )
}
/** A pack that is swapped takes its place in the loadouts with it. */
function movedChoices(choices: readonly LoadoutChoice[], before: Build, after: Build): LoadoutChoice[] {
  return choices.map(choice => {
    const pack = after.lines.find(line => line.id === choice.packLineId)
    if (choice.packLineId === null || pack?.state === 'fitted') return choice
    const instead =
      after.lines.find(line => line.id === pack?.insteadOf && line.state === 'fitted') ??
      after.lines.find(
        line =>
          line.slot === 'pack' &&
          line.state === 'fitted' &&
          before.lines.find(l => l.id === line.id)?.state !== 'fitted',
      )
    return { ...choice, packLineId: instead?.id ?? null }
  })
}

/** The problem the optimiser solves for a build, and the shavings its items stand for. */
export interface PosedProblem {
  readonly problem: ShavingProblem
  readonly shavings: readonly Shaving[]
}

type MassGoal = Extract<PlanningSetting['goal'], { readonly gramsG: number }>

/** What a plan is measured by: grams of the loadout or of the dry craft, or the headroom under every card watched. */
interface Yardstick {
  readonly targets: ShavingTarget[]
  /** By how much each of them changes where a build becomes another one. */
  readonly differences: (after: Build) => Pick<Estimate, 'valueG' | 'contributions'>[]
}

function byMassAlone({ build, estimates, choice }: PlanningSetting, goal: MassGoal): Yardstick {
  const massG = (of: Build) =>
    goal.kind === 'dry'
      ? dryG(of, estimates, choice)
      : loadoutMasses(of, movedChoices([choice], build, of), estimates)[0]!.massG
  const nowG = massG(build)
  const goalG = goal.kind === 'dry' ? goal.gramsG : nowG - (goal.gramsG - shavedG(build))
  return {
    targets: [{ massG: nowG, contributions: {}, goalG, guard: 0 }],
    differences: after => [{ valueG: massG(after) - nowG, contributions: {} }],
  }
}

/** "Less than" asks for a hair more than "at most", grams. */
const hairG = 1e-8

function byCards(setting: PlanningSetting): Yardstick {
  const { build, estimates } = setting
  const watched = watchedOf(setting)
  const now = watched.map(at => weightUnder(build, at, estimates))
  const guard = normalQuantile(build.aim.confidence)
  return {
    targets: watched.map(({ card }, i) => ({
      massG: now[i]!.valueG,
      contributions: now[i]!.contributions,
      goalG: limitG(card)! - build.aim.reserveG - (card.comparator === '<' ? hairG : 0),
      guard,
    })),
    differences: after =>
      watched.map((at, i) => {
        const choice = movedChoices([at.choice], build, after)[0]!
        return subtractEstimates(weightUnder(after, { ...at, choice }, estimates), now[i]!)
      }),
  }
}

function itemOf({ build, estimates, slipFactor }: PlanningSetting, shaving: Shaving, by: Yardstick): ShavingItem {
  const differences = by.differences(afterShaving(build, shaving, estimates))
  const { id, minutes, loss, forGood, gain } = shaving
  return {
    id,
    lock: shaving.lock ?? (shaving.state === 'planned' ? 'in' : null),
    cents: shavingCents(build, shaving, slipFactor),
    minutes,
    loss,
    forGood,
    gain,
    gramsG: differences.map(difference => 0 - difference.valueG),
    changes: differences.map(difference => difference.contributions),
  }
}

export function poseProblem(
  setting: PlanningSetting,
  notLater: readonly Shaving[] = openShavings(setting.build, setting.goal.kind),
): PosedProblem {
  const { build, estimates, goal } = setting
  const by = goal.kind === 'grams' || goal.kind === 'dry' ? byMassAlone(setting, goal) : byCards(setting)
  const ids = new Set(notLater.map(s => s.id))
  const { spare, caps } = shaveListOf(build)
  const { cents, minutes, loss } = caps
  return {
    shavings: notLater,
    problem: {
      items: notLater.map(shaving => itemOf(setting, shaving, by)),
      targets: by.targets,
      groups: groupsOf(build, notLater),
      needs: notLater.flatMap(s => s.needs.filter(id => ids.has(id)).map(id => [s.id, id] as const)),
      lines: lineBudgets(build, notLater, estimates),
      spare: goal.kind === 'put on' ? maximiseBenefit(spare) : minimiseFirst(spare),
      caps: {
        ...(cents !== null ? { cents } : {}),
        ...(minutes !== null ? { minutes } : {}),
        ...(loss !== null ? { loss } : {}),
      },
    },
  }
}

/** What the shavings of each line take off it, and what it weighs: only lines that could be overdrawn. */
function lineBudgets(build: Build, shavings: readonly Shaving[], estimates: LineEstimates): LineBudget[] {
  const trimming = shavings.filter(shaving => effectOf(build, shaving).kind === 'grams')
  return build.lines.flatMap(line => {
    const mine = trimming.filter(shaving => shaving.lineId === line.id && shaving.gramsG > 0)
    const mostG = mine.length > 0 ? estimates.before(line).valueG : 0
    return mine.reduce((sum, shaving) => sum + shaving.gramsG, 0) > mostG
      ? [{ ids: mine.map(s => s.id), gramsG: mine.map(s => s.gramsG), mostG }]
      : []
  })
}

/** Pairs that exclude each other: said so, or because one takes away the line the other works on. */
function groupsOf(build: Build, shavings: readonly Shaving[]): string[][] {
  const pairs: string[][] = []
  const gone = (shaving: Shaving) => {
    const effect = effectOf(build, shaving)
    return effect.kind === 'off' || effect.kind === 'pack'
      ? effect.lineId
      : effect.kind === 'swap'
        ? (build.lines.find(l => l.id === effect.candidateId)?.insteadOf ?? null)
        : null
  }
  shavings.forEach((a, i) => {
    for (const b of shavings.slice(i + 1)) {
      const [goneA, goneB] = [gone(a), gone(b)]
      const touches = (shaving: Shaving, lineId: string | null) =>
        lineId !== null && (shaving.lineId === lineId || gone(shaving) === lineId)
      if (a.excludes.includes(b.id) || b.excludes.includes(a.id) || touches(b, goneA) || touches(a, goneB))
        pairs.push([a.id, b.id])
    }
  })
  return pairs
}

/** The build after several shavings, one after another. */
export function afterAll(build: Build, shavings: readonly Shaving[], estimates: LineEstimates): Build {
  return shavings.reduce((at, shaving) => afterShaving(at, shaving, estimates), build)
}

/** Whether the whole ledger, with these shavings done, reaches the goal: what the optimiser asks last. */
export function reachesGoal(setting: PlanningSetting, shavings: readonly Shaving[]): boolean {
  const { build, goal, choice } = setting
  const after = afterAll(build, shavings, setting.estimates)
  const estimates = setting.estimates.forBuild(after)
  if (goal.kind === 'dry') return dryG(after, estimates, choice) <= goal.gramsG + 1e-9
  if (goal.kind === 'grams')
    return (
      loadoutMasses(build, [choice], setting.estimates)[0]!.massG -
        loadoutMasses(after, movedChoices([choice], build, after), estimates)[0]!.massG >=
      goal.gramsG - shavedG(build) - 1e-9
    )
  const { confidence, reserveG } = build.aim
  return watchedOf(setting).every(at => {
    const moved = { ...at, choice: movedChoices([at.choice], build, after)[0]! }
    if (linesUnder(after, moved).some(line => !line.mass)) return false
    const weight = weightUnder(after, moved, estimates)
    const { word, headroomG, guardG } = judge({
      massG: weight.valueG,
      sigmaG: sigmaG(weight),
      limitG: limitG(at.card)!,
      comparator: at.card.comparator as Comparator,
      confidence,
    })
    return word === 'Clear' && headroomG - guardG >= reserveG - 1e-9
  })
}

/** One step of a plan, with what the loadout looked at comes to after it. */
export interface PlanStep {
  readonly shaving: Shaving
  readonly cents: number
  readonly priced: boolean
  readonly offG: number
  readonly massG: number
  readonly sigmaG: number
  readonly word: string | null
  readonly probability: number | null
  readonly enough: boolean
  readonly binding: { readonly headroomG: number; readonly guardG: number } | null
}

/** The changes of a plan in the order to do them: what others need first, then what can be undone, then the most grams. */
export function planSteps(setting: PlanningSetting, chosen: readonly Shaving[]): PlanStep[] {
  const { build, cards, estimates, choice } = setting
  const left = [...chosen]
  const order: Shaving[] = []
  const offOf = new Map(
    poseProblem({ ...setting, goal: { kind: 'grams', gramsG: 0 } }, chosen).problem.items.map(item => [
      item.id,
      item.gramsG[0]!,
    ]),
  )
  while (left.length > 0) {
    const ready = left.filter(s => s.needs.every(id => !left.some(other => other.id === id)))
    const next = (ready.length > 0 ? ready : left).toSorted(
      (a, b) => Number(a.forGood) - Number(b.forGood) || offOf.get(b.id)! - offOf.get(a.id)!,
    )[0]!
    order.push(next)
    left.splice(left.indexOf(next), 1)
  }
  let at = build
  const judging = chosenCards(build, cards)
  let before = loadoutVerdicts(build, [choice], judging, estimates)[0]!
  return order.map((shaving, i): PlanStep => {
    at = afterShaving(at, shaving, estimates)
    const now = loadoutVerdicts(at, movedChoices([choice], build, at), judging, estimates.forBuild(at))[0]!
    const verdict = now.binding?.verdict ?? null
    const step: PlanStep = {
      shaving,
      cents: shavingCents(build, shaving, setting.slipFactor),
      priced: isPriced(build, shaving),
      offG: before.massG - now.massG,
      massG: now.massG,
      sigmaG: now.sigmaG,
      word: verdict?.word ?? null,
      probability: verdict?.probability ?? null,
      enough: reachesGoal(setting, order.slice(0, i + 1)),
      binding: verdict && { headroomG: verdict.headroomG, guardG: verdict.guardG },
    }
    before = now
    return step
  })
}

/** What came of asking for a plan, as it travels from the worker to the page. */
export interface ShownPlan {
  readonly status: PlanAnswer['status'] | 'nothing to do' | 'open lines'
  readonly steps: readonly PlanStep[]
  readonly cents: number
  /** Steps whose price nobody has said: it costs at least `cents`. */
  readonly unpriced: number
  readonly minutes: number
  readonly loss: number
  /** Grams the best still misses; only where there is no plan. */
  readonly shortfallG: number
  /** What contradicts itself, where nothing can be had together. */
  readonly between?: 'locks' | 'caps'
  /** Names of the lines nobody has said the grams of, where they keep every plan from being Clear. */
  readonly openLines?: readonly string[]
  /** How much dearer than the best possible it may be, in what is spared; only where it is not proven. */
  readonly dearerBy: number
}

export function shownPlan(setting: PlanningSetting, answer: PlanAnswer): ShownPlan {
  const byId = new Map(shaveListOf(setting.build).shavings.map(s => [s.id, s]))
  const items =
    answer.status === 'given up' || answer.status === 'contradiction'
      ? []
      : answer.status === 'none'
        ? answer.nearest
        : answer.items
  const steps = planSteps(
    setting,
    items.map(item => byId.get(item.id)!),
  )
  const sum = (of: (step: PlanStep) => number) => steps.reduce((total, step) => total + of(step), 0)
  return {
    status: answer.status === 'best' && steps.length === 0 ? 'nothing to do' : answer.status,
    steps,
    cents: sum(s => s.cents),
    unpriced: steps.filter(s => !s.priced).length,
    minutes: sum(s => s.shaving.minutes),
    loss: sum(s => s.shaving.loss),
    shortfallG: answer.status === 'none' ? answer.shortfallG : 0,
    dearerBy: answer.status === 'unproven' ? Math.max(0, answer.cost - answer.bound) : 0,
    ...(answer.status === 'contradiction' ? { between: answer.between } : {}),
  }
}

/** No plan at all: lines nobody has said the grams of count in it. */
export function planHeldBy(open: readonly Line[]): ShownPlan {
  return {
    status: 'open lines',
    steps: [],
    cents: 0,
    unpriced: 0,
    minutes: 0,
    loss: 0,
    shortfallG: 0,
    dearerBy: 0,
    openLines: open.map(line => line.name),
  }
}

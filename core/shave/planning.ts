import { applyCommand } from '../commands'
import type { Build, LoadoutChoice } from '../ledger'
import { allowedLoadouts, dryLines, type LineEstimates } from '../loadout'
import { normalQuantile } from '../numbers'
import { chosenCards, loadoutVerdicts, type LoadoutJudgement, type LoadoutVerdicts } from '../report'
import { limitG, type RuleCard } from '../rules'
import { effectOf, massAfter } from './effect'
import type { PlanAnswer } from './plan'
import { spareFirst, wantMost, type ShavingItem, type ShavingProblem, type ShavingTarget } from './problem'
import { blankShaveList, type Shaving, type ShaveList } from './types'

/** What a plan is to reach: Clear under the chosen cards with the reserve kept free; a dry mass of so many grams; so many grams off; or the most that can be put on while it stays Clear. */
export type ShavingGoal = { readonly kind: 'clear' } | { readonly kind: 'put on' } | { readonly kind: 'dry', readonly gramsG: number } | { readonly kind: 'grams', readonly gramsG: number }

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
  const mass = massAfter(build, shaving, line => estimates.before(line), { gramsG: shaving.gramsG, spreadG: shaving.spreadG, weighed: false, on: noDay }, earlier => `shaved-${shaving.id}-${earlier}`)
  const listed = build.shave?.shavings.some(s => s.id === shaving.id) ? build : { ...build, shave: { ...shaveListOf(build), shavings: [...shaveListOf(build).shavings, shaving] } }
  return applyCommand(listed, { type: 'shaving.do', id: shaving.id, mass, realG: null, on: noDay })
}

/** Shavings a plan may choose from: neither done nor refused, and such as do something; what is put on only where that is asked. */
export function openShavings(build: Build, goal: ShavingGoal['kind'] = 'clear'): Shaving[] {
  return shaveListOf(build).shavings.filter(s => s.state !== 'done' && s.state !== 'refused' && (s.kind === 'put on') === (goal === 'put on') && effectOf(build, s).kind !== 'none')
}

/** What a shaving costs in whole cents, the price of the part it may ruin by its likelihood and the builder's hand included. */
export function shavingCents(build: Build, shaving: Shaving, slipFactor: number): number {
  const touched = build.lines.find(line => line.id === (shaving.candidateId ?? shaving.lineId))
  const bought = shaving.candidateId === null || shaving.cents > 0 ? 0 : (touched?.priceEachCents ?? 0) * (touched?.quantity ?? 1)
  const ruined = build.lines.find(line => line.id === shaving.lineId)
  return shaving.cents + bought + Math.round((ruined?.priceEachCents ?? 0) * Math.min(1, shaving.slipPercent * slipFactor / 100))
}

/** One loadout under one card that has to come down. */
interface Watched { readonly choice: LoadoutChoice, readonly cardId: string }
const judgedOf = (verdicts: readonly LoadoutVerdicts[], { choice, cardId }: Watched): LoadoutJudgement =>
  verdicts.find(v => v.choice.setupId === choice.setupId && v.choice.packLineId === choice.packLineId)!.judgements.find(j => j.card.id === cardId)!

/** What the build weighs dry by its means: without pack and payload, as its own goal is said. */
function dryG(build: Build, estimates: LineEstimates, choice: LoadoutChoice): number {
  return dryLines(build, choice).reduce((sum, line) => sum + estimates.of(line).valueG, 0)
}

function choicesOf({ build, choice }: PlanningSetting): LoadoutChoice[] {
  return shaveListOf(build).everyLoadout ? allowedLoadouts(build) : [choice]
}
/** A pack that is swapped takes its place in the loadouts with it. */
function movedChoices(choices: readonly LoadoutChoice[], before: Build, after: Build): LoadoutChoice[] {
  return choices.map((choice) => {
    const pack = after.lines.find(line => line.id === choice.packLineId)
    if (choice.packLineId === null || pack?.state === 'fitted') return choice
    const instead = after.lines.find(line => line.slot === 'pack' && line.state === 'fitted' && before.lines.find(l => l.id === line.id)?.state !== 'fitted')
    return { ...choice, packLineId: instead?.id ?? null }
  })
}

/** The problem the optimiser solves for a build, and what its targets stand for. */
export interface PosedProblem { readonly problem: ShavingProblem, readonly shavings: readonly Shaving[], readonly watched: readonly Watched[] }

export function poseProblem(setting: PlanningSetting, notLater: readonly Shaving[] = openShavings(setting.build, setting.goal.kind)): PosedProblem {
  const { build, cards, estimates, goal } = setting
  const choices = choicesOf(setting)
  const judging = chosenCards(build, cards).filter(card => limitG(card) !== null && card.comparator !== 'none')
  const verdicts = loadoutVerdicts(build, choices, judging, estimates)
  const byMassAlone = goal.kind === 'grams' || goal.kind === 'dry'
  const massOf = (of: Build) => goal.kind === 'dry' ? dryG(of, estimates, setting.choice) : null
  const watched: Watched[] = byMassAlone ? [] : choices.flatMap(choice => judging.map(card => ({ choice, cardId: card.id })))
  const guard = normalQuantile(build.aim.confidence)
  const nowG = massOf(build) ?? verdicts[0]!.massG
  const targets: ShavingTarget[] = byMassAlone
    ? [{ massG: nowG, varianceG2: 0, goalG: goal.kind === 'dry' ? goal.gramsG : nowG - goal.gramsG, guard: 0 }]
    : watched.map((at) => {
        const judged = judgedOf(verdicts, at)
        // "Less than" asks for a hair more than "at most".
        return { massG: judged.massG, varianceG2: judged.sigmaG ** 2, goalG: judged.limitG! - build.aim.reserveG - (judged.card.comparator === '<' ? 1e-8 : 0), guard }
      })
  const items = notLater.map((shaving): ShavingItem => {
    const after = afterShaving(build, shaving, estimates)
    const later = loadoutVerdicts(after, movedChoices(choices, build, after), judging, estimates)
    const masses = byMassAlone ? [{ massG: massOf(after) ?? later[0]!.massG, sigmaG: 0 }] : watched.map((at, i) => later[Math.floor(i / judging.length)]!.judgements.find(j => j.card.id === at.cardId)!)
    return {
      id: shaving.id, lock: shaving.lock ?? (shaving.state === 'planned' ? 'in' : null), cents: shavingCents(build, shaving, setting.slipFactor), minutes: shaving.minutes, loss: shaving.loss, forGood: shaving.forGood, gain: shaving.gain,
      gramsG: masses.map((mass, i) => targets[i]!.massG - mass.massG), varianceG2: masses.map((mass, i) => mass.sigmaG ** 2 - targets[i]!.varianceG2),
    }
  })
  const ids = new Set(notLater.map(s => s.id))
  const { spare, caps } = shaveListOf(build)
  const needs = notLater.flatMap(s => s.needs.filter(id => ids.has(id)).map(id => [s.id, id] as const))
  return {
    shavings: notLater, watched,
    problem: {
      items, targets, groups: groupsOf(build, notLater), needs, spare: goal.kind === 'put on' ? wantMost(spare) : spareFirst(spare),
      caps: { ...(caps.cents !== null ? { cents: caps.cents } : {}), ...(caps.minutes !== null ? { minutes: caps.minutes } : {}), ...(caps.loss !== null ? { loss: caps.loss } : {}) },
    },
  }
}

/** Pairs that exclude each other: said so, or because one takes away the line the other works on. */
function groupsOf(build: Build, shavings: readonly Shaving[]): string[][] {
  const pairs: string[][] = []
  const gone = (shaving: Shaving) => {
    const effect = effectOf(build, shaving)
    return effect.kind === 'off' ? effect.lineId : effect.kind === 'swap' ? build.lines.find(l => l.id === effect.candidateId)?.insteadOf ?? null : null
  }
  shavings.forEach((a, i) => {
    for (const b of shavings.slice(i + 1)) {
      const [goneA, goneB] = [gone(a), gone(b)]
      const touches = (shaving: Shaving, lineId: string | null) => lineId !== null && (shaving.lineId === lineId || gone(shaving) === lineId)
      if (a.excludes.includes(b.id) || b.excludes.includes(a.id) || touches(b, goneA) || touches(a, goneB)) pairs.push([a.id, b.id])
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
  const { build, cards, estimates, goal } = setting
  const after = afterAll(build, shavings, estimates)
  if (goal.kind === 'dry') return dryG(after, estimates, setting.choice) <= goal.gramsG + 1e-9
  const choices = choicesOf(setting)
  const judging = chosenCards(build, cards).filter(card => limitG(card) !== null && card.comparator !== 'none')
  const verdicts = loadoutVerdicts(after, movedChoices(choices, build, after), judging, estimates)
  if (goal.kind === 'grams') return loadoutVerdicts(build, choices, [], estimates)[0]!.massG - verdicts[0]!.massG >= goal.gramsG - 1e-9
  return verdicts.every(v => v.judgements.every(j => j.verdict!.word === 'Clear' && j.verdict!.headroomG - j.verdict!.guardG >= build.aim.reserveG - 1e-9))
}

/** One step of a plan, with what the loadout looked at comes to after it. */
export interface PlanStep { readonly shaving: Shaving, readonly cents: number, readonly offG: number, readonly massG: number, readonly sigmaG: number, readonly word: string | null, readonly probability: number | null, readonly enough: boolean }

/** The changes of a plan in the order to do them: what others need first, then what can be undone, then the most grams. */
export function planSteps(setting: PlanningSetting, chosen: readonly Shaving[]): PlanStep[] {
  const { build, cards, estimates, choice } = setting
  const left = [...chosen]
  const order: Shaving[] = []
  const offOf = new Map(poseProblem({ ...setting, goal: { kind: 'grams', gramsG: 0 } }, chosen).problem.items.map(item => [item.id, item.gramsG[0]!]))
  while (left.length > 0) {
    const ready = left.filter(s => s.needs.every(id => !left.some(other => other.id === id)))
    const next = (ready.length > 0 ? ready : left).toSorted((a, b) => Number(a.forGood) - Number(b.forGood) || offOf.get(b.id)! - offOf.get(a.id)!)[0]!
    order.push(next)
    left.splice(left.indexOf(next), 1)
  }
  let at = build
  const judging = chosenCards(build, cards)
  let before = loadoutVerdicts(build, [choice], judging, estimates)[0]!
  return order.map((shaving, i): PlanStep => {
    at = afterShaving(at, shaving, estimates)
    const now = loadoutVerdicts(at, movedChoices([choice], build, at), judging, estimates)[0]!
    const step = { shaving, cents: shavingCents(build, shaving, setting.slipFactor), offG: before.massG - now.massG, massG: now.massG, sigmaG: now.sigmaG, word: now.binding?.verdict?.word ?? null, probability: now.binding?.verdict?.probability ?? null, enough: reachesGoal(setting, order.slice(0, i + 1)) }
    before = now
    return step
  })
}

/** What came of asking for a plan, as it travels from the worker to the page. */
export interface ShownPlan {
  readonly status: PlanAnswer['status'] | 'nothing to do'
  readonly steps: readonly PlanStep[]
  readonly cents: number
  readonly minutes: number
  readonly loss: number
  /** Grams the best still misses; only where there is no plan. */
  readonly missG: number
  /** How much dearer than the best possible it may be, in what is spared; only where it is not proven. */
  readonly dearerBy: number
}

export function shownPlan(setting: PlanningSetting, answer: PlanAnswer): ShownPlan {
  const byId = new Map(shaveListOf(setting.build).shavings.map(s => [s.id, s]))
  const items = answer.status === 'given up' ? [] : answer.status === 'none' ? answer.nearest : answer.items
  const steps = planSteps(setting, items.map(item => byId.get(item.id)!))
  const sum = (of: (step: PlanStep) => number) => steps.reduce((total, step) => total + of(step), 0)
  return {
    status: answer.status === 'best' && steps.length === 0 ? 'nothing to do' : answer.status, steps, cents: sum(s => s.cents), minutes: sum(s => s.shaving.minutes), loss: sum(s => s.shaving.loss),
    missG: answer.status === 'none' ? answer.missG : 0, dearerBy: answer.status === 'unproven' ? Math.max(0, answer.cost - answer.bound) : 0,
  }
}

import { blankFit, type Assembly, type AssemblyStep, type OwnStep, type StepPart } from '../../model/data'
import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { countedLines } from '../../mass/loadout'
import { inOrder, type Ordered } from './order'
import { assemblyOf } from './progress'
import { boardIn, dryFit, frame, motors } from './rules/airframe'
import { contextOf, type StepDraft, type Rule } from './rules/context'
import { camera, devices, power, radio, stack, video } from './rules/devices'
import { close, coat, last, packOn, props, setUp } from './rules/finish'

/** Each rule looks at the build and writes the steps it has a reason for; in the order they are usually done. */
const rules: readonly Rule[] = [
  dryFit,
  frame,
  motors,
  boardIn,
  power,
  stack,
  radio,
  video,
  camera,
  devices,
  setUp,
  coat,
  close,
  props,
  packOn,
  last,
]

const blankStep = {
  need: [],
  parts: [],
  uses: [],
  facts: [],
  cautions: [],
  test: null,
  proves: [],
  after: [],
  over: [],
  own: false,
} as const
const made = (draft: StepDraft): AssemblyStep => ({ ...blankStep, ...draft })

function ownStep({ id, title, words, phase, after, minutes }: OwnStep): AssemblyStep {
  return { ...blankStep, id, title, phase, why: words, after, minutes, own: true }
}

/**
 * The steps of one build in one loadout, in no order yet. Every piece of every line that flies comes on board in exactly one
 * step: what no rule takes goes on with the closing.
 */
export function stepsOf(
  build: Build,
  choice: LoadoutChoice,
  own: readonly OwnStep[] = assemblyOf(build).own,
): AssemblyStep[] {
  const lines = countedLines(build, choice)
  const context = contextOf(build, choice, lines, build.fit ?? blankFit)
  const steps = rules.flatMap(rule => rule(context)).map(made)
  return [...allotted(steps, lines), ...own.map(ownStep)]
}

/** Steps that put on board what there is: no more pieces than a line has, first come first served, and the rest with the closing. */
function allotted(steps: readonly AssemblyStep[], lines: readonly Line[]): AssemblyStep[] {
  const left = new Map(lines.map(line => [line.id, line.quantity]))
  const served = steps.map(step => {
    const parts = step.parts.flatMap(({ lineId, pieces }): StepPart[] => {
      const given = Math.min(pieces, left.get(lineId) ?? 0)
      left.set(lineId, (left.get(lineId) ?? 0) - given)
      return given > 0 ? [{ lineId, pieces: given }] : []
    })
    return { ...step, parts }
  })
  const rest = [...left].flatMap(([lineId, pieces]) => (pieces > 0 ? [{ lineId, pieces }] : []))
  return served.map(step => (step.id === 'close' ? { ...step, parts: [...step.parts, ...rest] } : step))
}

/** The steps in the order of the builder's school, template and own wishes. */
export function sequenceOf(build: Build, choice: LoadoutChoice, assembly: Assembly = assemblyOf(build)): Ordered {
  return inOrder(stepsOf(build, choice, assembly.own), assembly.school, assembly.order)
}

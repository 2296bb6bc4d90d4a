import { blankFit } from '../fit/plan'
import type { Build, LoadoutChoice } from '../ledger'
import { countedLines } from '../loadout'
import { inOrder, type Ordered } from './order'
import { assemblyOf } from './progress'
import { boardIn, dryFit, frame, motors } from './rules/airframe'
import { contextOf, type Draft, type Rule } from './rules/context'
import { camera, devices, power, radio, stack, video } from './rules/devices'
import { close, coat, last, packOn, props, setUp } from './rules/finish'
import type { Assembly, AssemblyStep, OwnStep } from './types'

/** Each rule looks at the build and writes the steps it has a reason for; in the order they are usually done. */
const rules: readonly Rule[] = [dryFit, frame, motors, boardIn, power, stack, radio, video, camera, devices, setUp, coat, close, props, packOn, last]

const blankStep = { need: [], parts: [], uses: [], facts: [], cautions: [], test: null, proves: [], after: [], over: [], own: false } as const
const made = (draft: Draft): AssemblyStep => ({ ...blankStep, ...draft })

function ownStep({ id, title, words, phase, after, minutes }: OwnStep): AssemblyStep {
  return { ...blankStep, id, title, phase, why: words, after, minutes, own: true }
}

/**
 * The steps of one build in one loadout, in no order yet. Every piece of every line that flies comes on board in exactly one
 * step: what no rule takes goes on with the closing.
 */
export function stepsOf(build: Build, choice: LoadoutChoice, own: readonly OwnStep[] = assemblyOf(build).own): AssemblyStep[] {
  const lines = countedLines(build, choice)
  const context = contextOf(build, choice, lines, build.fit ?? blankFit)
  const steps = rules.flatMap(rule => rule(context)).map(made)
  const taken = new Set(steps.flatMap(step => step.parts.map(part => part.lineId)))
  const rest = lines.filter(line => !taken.has(line.id)).map(line => ({ lineId: line.id, pieces: line.quantity }))
  const withRest = rest.length === 0 ? steps : steps.map(step => step.id === 'close' ? { ...step, parts: [...step.parts, ...rest] } : step)
  return [...withRest, ...own.map(ownStep)]
}

/** The steps in the order of the builder's school, template and own wishes. */
export function sequenceOf(build: Build, choice: LoadoutChoice, assembly: Assembly = assemblyOf(build)): Ordered {
  return inOrder(stepsOf(build, choice, assembly.own), assembly.school, assembly.order)
}

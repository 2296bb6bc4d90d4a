import { z } from 'zod'
import { assemblyOf, recordOf, sequenceOf } from '../../making/assembly'
import { blankAssembly, type Assembly, type OwnStep, type StepRecord } from '../../model/data'
import type { Build } from '../../model/ledger'
import { itemChanges, joined, picked, told, type BuildSlice } from '../contract'
import { recordStep, setAssembly } from './commands'
import { assemblySchema, assemblyShape, mostOwnSteps, mostRecords, ownStepSchema, stepRecordSchema } from './schema'

export * from './schema'

declare module '../../model/data/build' {
  interface Build {
    /** How it is put together and what was done of it; null while nobody has begun. */
    readonly assembly: Assembly | null
  }
}

type AssemblyCommand =
  | { readonly type: 'assembly.set'; readonly fields: Partial<Omit<Assembly, 'records'>> }
  /** What became of a step: only the fields named change, so that two people at one step do not undo each other. */
  | { readonly type: 'assembly.record'; readonly stepId: string; readonly fields: Partial<Omit<StepRecord, 'stepId'>> }

const named = (steps: readonly OwnStep[]) => steps.map(({ title, ...step }) => ({ ...step, name: title }))
function settingWords({ school, order, own }: Partial<Omit<Assembly, 'records'>>, was: Assembly): string {
  return joined([
    ...(school === undefined || school === was.school ? [] : [`way of building ${was.school} → ${school}`]),
    ...(order === undefined || order.join() === was.order.join() ? [] : ['steps in another order']),
    ...(own === undefined ? [] : itemChanges(named(was.own), named(own)).map(words => `step ${words}`)),
  ])
}
/** How it is put together, and what was done of it. */
export const assemblySlice: BuildSlice<'assembly', AssemblyCommand> = {
  name: 'assembly',
  title: 'Assemble',
  version: 1,
  upcasts: [],
  fields: {
    assembly: {
      kind: 'part',
      schema: assemblySchema.nullable(),
      blank: () => null,
      empty: blankAssembly,
      shape: assemblySchema.shape,
      lists: {
        own: { item: ownStepSchema, keyOf: ({ id }: OwnStep) => id, most: mostOwnSteps },
        records: { item: stepRecordSchema, keyOf: ({ stepId }: StepRecord) => stepId, most: mostRecords },
      },
    },
  },
  commands: {
    'assembly.set': {
      shape: { fields: z.strictObject(assemblyShape).partial() },
      apply: (build, { fields }) => setAssembly(build, fields),
      describe: ({ fields }, before) => told(`Assemble: ${settingWords(fields, before.assembly ?? blankAssembly)}`),
      asIn: (command, build) => ({ ...command, fields: picked(build.assembly ?? blankAssembly, command.fields) }),
    },
    'assembly.record': {
      shape: {
        stepId: stepRecordSchema.shape.stepId,
        fields: stepRecordSchema.omit({ stepId: true }).partial(),
      },
      apply: (build, { stepId, fields }) => recordStep(build, stepId, fields),
      describe: ({ stepId, fields }, before) => told(`Assemble: ${recordWords(before, stepId, fields)}`),
      asIn(command, build) {
        const record = build.assembly?.records.find(r => r.stepId === command.stepId)
        return { ...command, fields: record ? picked(record, command.fields) : command.fields }
      },
    },
  },
  references: [],
  merging: { whole: ['order'], sets: ['photoIds'] },
}

/** What changed in the record of a step, in words. */
function recordWords(before: Build, stepId: string, fields: Partial<Omit<StepRecord, 'stepId'>>): string {
  const was = recordOf(assemblyOf(before), stepId)
  const sorted = sequenceOf(before, before.flies)
  const title = ('steps' in sorted ? sorted.steps.find(step => step.id === stepId)?.title : undefined) ?? stepId
  return `“${title}” ${changeWords(was, { ...was, ...fields })}`
}

function changeWords(was: StepRecord, is: StepRecord): string {
  if (is.test !== was.test && is.test !== null) return `test ${is.test}`
  if (is.overriddenWhy !== was.overriddenWhy) return 'failed test gone past'
  if (is.skippedWhy !== was.skippedWhy) return is.skippedWhy === null ? 'no longer skipped' : 'skipped'
  if (is.doneAt !== was.doneAt) return is.doneAt === null ? 'not done any more' : 'done'
  return is.photoIds.length === was.photoIds.length ? 'noted' : 'photo'
}

import { z } from 'zod'
import { blankShaveList, type ShaveList, type Shaving } from '../../model/data'
import type { Build } from '../../model/ledger'
import { daySchema, idSchema } from '../../text/schemas'
import {
  bookedG,
  changesOf,
  isReplaced,
  joined,
  picked,
  told,
  type BuildSlice,
  type Description,
  type Patch,
} from '../contract'
import { askedMassSchema } from '../lines'
import { deleteShaving, doShaving, planShavings, putShaving, type ShaveCommand } from './commands'
import { leadMmSchema, mostShavings, shaveSchema, shaveShape, shavingSchema } from './schema'

export * from './schema'

declare module '../../model/data/build' {
  interface Build {
    /** What could take grams off it; null while nothing is written down. */
    readonly shave: ShaveList | null
  }
}

const { shavings: _shavings, ...goal } = shaveShape

/** What could take grams off. */
export const shaveSlice: BuildSlice<'shave', ShaveCommand> = {
  name: 'shave',
  title: 'Shave',
  version: 1,
  upcasts: [],
  fields: {
    shave: {
      kind: 'part',
      schema: shaveSchema.nullable(),
      blank: () => null,
      empty: blankShaveList,
      shape: shaveShape,
      lists: { shavings: { item: shavingSchema, keyOf: ({ id }: Shaving) => id, most: mostShavings } },
    },
  },
  commands: {
    'shave.set': {
      shape: { fields: z.strictObject(goal).partial() },
      apply: (build, { fields }) => ({ ...build, shave: { ...(build.shave ?? blankShaveList), ...fields } }),
      describe: ({ fields }, before) =>
        told(`Shave: ${joined(changesOf(picked(before.shave ?? blankShaveList, fields), fields))}`),
      asIn: (command, build) => ({ ...command, fields: picked(build.shave ?? blankShaveList, command.fields) }),
    },
    'shaving.put': {
      shape: { shaving: shavingSchema },
      apply: (build, { shaving }) => putShaving(build, shaving),
      describe({ shaving }, before) {
        const was = shavingOf(before, shaving.id)
        return told(
          was ? `Shaving “${was.what}”: ${joined(changesOf(was, shaving))}` : `Shaving “${shaving.what}” added`,
        )
      },
      asIn: (command, build) => ({ ...command, shaving: shavingOf(build, command.shaving.id) ?? command.shaving }),
    },
    'shaving.delete': {
      shape: { id: idSchema },
      apply: (build, { id }) => deleteShaving(build, id),
      describe: ({ id }, before) => told(`Shaving ${quoted(before, id)} deleted`),
    },
    'shavings.plan': {
      shape: { ids: z.array(idSchema).max(mostShavings) },
      apply: (build, { ids }) => planShavings(build, ids),
      describe: ({ ids }, before) =>
        told(
          ids.length === 0
            ? 'Shave: nothing planned any more'
            : `Shave: planned ${ids.map(id => quoted(before, id)).join(', ')}`,
        ),
    },
    'shaving.do': {
      shape: {
        id: idSchema,
        mass: askedMassSchema.nullable(),
        realG: shavingSchema.shape.realG,
        on: daySchema,
        gramsG: shavingSchema.shape.gramsG.optional(),
        leadMm: leadMmSchema.optional(),
      },
      apply: doShaving,
      describe: ({ id }, before, patch) => doneWords(shavingOf(before, id)?.what ?? '', patch),
    },
  },
  // A shaving is about the very part it names: it stays with that one where another takes its place, and fits again when
  // it comes back. One that is done is history and keeps its names.
  references: [
    {
      to: 'lines',
      at: ['shave', 'shavings'],
      ids: ({ lineId, candidateId, state }: Shaving) => (state === 'done' ? [] : [lineId, candidateId]),
      loses: (shaving: Shaving, gone): Shaving => ({
        ...shaving,
        lineId: shaving.lineId && gone.has(shaving.lineId) ? null : shaving.lineId,
        candidateId: shaving.candidateId && gone.has(shaving.candidateId) ? null : shaving.candidateId,
      }),
    },
  ],
  merging: { sets: ['excludes', 'needs'] },
}

const shavingOf = (build: Build, id: string) => build.shave?.shavings.find(s => s.id === id)
const quoted = (build: Build, id: string) => `“${shavingOf(build, id)?.what ?? ''}”`

function doneWords(what: string, { lines }: Patch): Description {
  const replaced = lines.find(isReplaced) ?? lines.find(c => c.before?.state === 'fitted')
  const fitted =
    lines.find(c => c.after?.state === 'fitted' && c.before?.state !== 'fitted') ??
    lines.find(c => c.after?.state === 'fitted')
  return {
    ...told(`Shaved: ${what}`),
    gramsBeforeG: bookedG(replaced?.before),
    gramsAfterG: bookedG(fitted?.after),
  }
}

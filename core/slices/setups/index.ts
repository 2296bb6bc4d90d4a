import { z } from 'zod'
import type { Build, Setup } from '../../model/ledger'
import { idSchema, nameSchema } from '../../text/schemas'
import { CommandRefused, joined, nameOf, told, type BuildSlice } from '../contract'

declare module '../../model/data/build' {
  interface Build {
    readonly setups: readonly Setup[]
  }
}

export const mostSetups = 100

export const setupSchema = z.strictObject({
  id: idSchema,
  name: nameSchema('The set-up’s name'),
  lineIds: z
    .array(idSchema)
    .max(2000)
    .refine(ids => new Set(ids).size === ids.length, 'A set-up names a line twice.'),
}) satisfies z.ZodType<Setup>

type SetupCommand =
  | { readonly type: 'setup.put'; readonly setup: Setup }
  | { readonly type: 'setup.delete'; readonly id: string }
  | { readonly type: 'setup.move'; readonly id: string; readonly beforeId: string | null }

/** Named choices of the optional lines. */
export const setupsSlice: BuildSlice<'setups', SetupCommand> = {
  name: 'setups',
  title: 'Set-ups',
  version: 1,
  upcasts: [],
  fields: {
    setups: {
      kind: 'list',
      schema: z.array(setupSchema).min(1, 'A build needs at least one set-up.').max(mostSetups),
      blank: ({ id }) => [{ id: `${id.slice(0, 50)}-as-built`, name: 'as built', lineIds: [] }],
      list: {
        item: setupSchema,
        keyOf: ({ id }: Setup) => id,
        most: mostSetups,
        none: 'A build needs at least one set-up.',
        twice: 'Two set-ups have the same id.',
      },
    },
  },
  commands: {
    'setup.put': {
      shape: { setup: setupSchema },
      apply: (build, { setup }) => putSetup(build, setup),
      describe: ({ setup }, before) => told(setupWords(setup, before)),
      asIn: (command, build) => ({
        ...command,
        setup: build.setups.find(s => s.id === command.setup.id) ?? command.setup,
      }),
    },
    'setup.move': {
      shape: { id: idSchema, beforeId: idSchema.nullable() },
      apply: (build, { id, beforeId }) => moveSetup(build, id, beforeId),
      describe: ({ id }, before) => told(`Set-up “${before.setups.find(s => s.id === id)?.name ?? ''}” moved`),
    },
    'setup.delete': {
      shape: { id: idSchema },
      apply(build, { id }, references) {
        if (build.setups.length <= 1) throw new CommandRefused('A build keeps at least one set-up.', 'id')
        const gone = build.setups.filter(s => s.id === id)
        const left = { ...build, setups: build.setups.filter(s => s.id !== id) }
        return references.clear(left, 'setups', new Map(gone.map(setup => [setup.id, setup])))
      },
      describe: ({ id }, before) => told(`Set-up “${before.setups.find(s => s.id === id)?.name ?? ''}” deleted`),
    },
  },
  references: [
    {
      to: 'lines',
      at: ['setups'],
      ids: ({ lineIds }: Setup) => lineIds,
      follows: (setup: Setup, replaced, by): Setup => ({
        ...setup,
        lineIds: setup.lineIds.map(id => (id === replaced.id ? by.id : id)),
      }),
      loses: (setup: Setup, gone): Setup => ({ ...setup, lineIds: setup.lineIds.filter(id => !gone.has(id)) }),
      missing: { sentence: 'A set-up names a line that is not there.', field: 'lineIds' },
    },
  ],
  merging: { sets: ['lineIds'] },
}

/** Puts a set-up before another one, or last; what is not there any more leaves all where they are. */
function moveSetup(build: Build, id: string, beforeId: string | null): Build {
  const setup = build.setups.find(s => s.id === id)
  if (!setup) throw new CommandRefused('That set-up is not there any more.', 'id')
  const staying = build.setups.filter(s => s.id !== id)
  const found = staying.findIndex(s => s.id === beforeId)
  const at = found < 0 ? staying.length : found
  return { ...build, setups: [...staying.slice(0, at), setup, ...staying.slice(at)] }
}

function putSetup(build: Build, setup: Setup): Build {
  const known = new Set(build.lines.map(line => line.id))
  if (setup.lineIds.some(id => !known.has(id)))
    throw new CommandRefused('The set-up names a line this build does not have.', 'lineIds')
  if (setup.name.trim() === '') throw new CommandRefused('A set-up needs a name.', 'name')
  const exists = build.setups.some(s => s.id === setup.id)
  return {
    ...build,
    setups: exists ? build.setups.map(s => (s.id === setup.id ? setup : s)) : [...build.setups, setup],
  }
}

function setupWords(setup: Setup, before: Build): string {
  const was = before.setups.find(s => s.id === setup.id)
  if (!was) return `Set-up “${setup.name}” added`
  const names = (ids: readonly string[]) => ids.map(id => nameOf(before, id)).join(', ')
  const on = setup.lineIds.filter(id => !was.lineIds.includes(id))
  const off = was.lineIds.filter(id => !setup.lineIds.includes(id))
  const changes = [
    ...(was.name === setup.name ? [] : [`now “${setup.name}”`]),
    ...(on.length > 0 ? [`with ${names(on)}`] : []),
    ...(off.length > 0 ? [`without ${names(off)}`] : []),
  ]
  return `Set-up “${was.name}”: ${joined(changes)}`
}

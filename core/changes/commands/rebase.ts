import { blankAssembly, blankFit, blankFlightPlan, blankShaveList } from '../../model/data'
import type { Build, FurtherWeighing } from '../../model/ledger'
import { mergeByField, type Meeting, type MergeRules } from '../../basics/merge'
import { applyCommand } from './apply'
import type { Command } from './types'

/** Lists of names that are sets: what one side adds and the other takes away do not meet. */
const sets = new Set(['lineIds', 'photoIds', 'cardIds', 'places', 'alsoCardIds', 'excludes', 'needs'])

function keyOfItem(item: unknown): string {
  const { id, stepId, finding, setupId, packLineId } = item as Partial<Record<string, string | null>>
  return id ?? stepId ?? finding ?? `${setupId}.${packLineId}`
}
const hasKey = (item: unknown) =>
  typeof item === 'object' &&
  item !== null &&
  ['id', 'stepId', 'finding', 'setupId'].some(name => Object.hasOwn(item, name))

/**
 * How builds are merged: grams, listings, feeds and weighings are one value each; lines, set-ups, shavings and the like
 * are told apart by id.
 */
export const buildMergeRules: MergeRules = {
  whole: new Set([
    'mass',
    'listing',
    'feed',
    'contributions',
    'subjects',
    'displaysG',
    'patterns',
    'outputs',
    'bench',
    'provides',
    'order',
  ]),
  keyOf(list, path) {
    if (sets.has(path.at(-1) ?? '')) return String
    if (path.at(-1) === 'further') return item => (item as FurtherWeighing).mass.versionId
    return list.length > 0 && list.every(hasKey) ? keyOfItem : null
  },
}

/** Parts nobody has said anything about count as blank, so that two who begin one do not meet. */
function withBlanks(build: Build): Build {
  return {
    ...build,
    fit: build.fit ?? blankFit,
    flying: build.flying ?? blankFlightPlan,
    shave: build.shave ?? blankShaveList,
    assembly: build.assembly ?? blankAssembly,
  }
}

/** What one side made of a build on top of what the other made of it. Where both changed a field, `mine` is kept and the field named. */
export function mergeBuilds(
  was: Build,
  mine: Build,
  theirs: Build,
): { readonly merged: Build; readonly meetings: readonly Meeting[] } {
  return mergeByField(withBlanks(was), withBlanks(mine), withBlanks(theirs), buildMergeRules)
}

/**
 * A command that was made on `seen`, as it must be given to `now` so that it changes only what it changed there: whole
 * objects it carries take up what has become of their other fields. `meetings` names the fields both changed; nothing
 * should be carried out then unless the builder says so.
 * Throws {@link CommandRefused} when the command does not fit `seen`.
 */
export function rebaseCommand(
  command: Command,
  seen: Build,
  now: Build,
): { readonly command: Command; readonly meetings: readonly Meeting[] } {
  if (seen === now) return { command, meetings: [] }
  const { merged, meetings } = mergeBuilds(seen, applyCommand(seen, command), now)
  return { command: withPayload(command, merged), meetings }
}

const picked = <T extends object>(from: T, fields: Partial<T>): Partial<T> =>
  Object.fromEntries(Object.keys(fields).map(key => [key, from[key as keyof T]])) as Partial<T>

/** The command with the objects it carries as they stand in a build. */
function withPayload(command: Command, build: Build): Command {
  switch (command.type) {
    case 'build.set': {
      const { aim, ...fields } = command.fields
      return { ...command, fields: { ...picked(build, fields), ...(aim ? { aim: picked(build.aim, aim) } : {}) } }
    }
    case 'lines.change':
      return {
        ...command,
        changes: command.changes.map(change => {
          const line = build.lines.find(l => l.id === change.id)
          return line ? { ...change, fields: picked(line, change.fields) } : change
        }),
      }
    case 'setup.put':
      return { ...command, setup: build.setups.find(s => s.id === command.setup.id) ?? command.setup }
    case 'observation.put':
      return {
        ...command,
        observation: build.observations.find(o => o.id === command.observation.id) ?? command.observation,
      }
    case 'shaving.put':
      return { ...command, shaving: build.shave?.shavings.find(s => s.id === command.shaving.id) ?? command.shaving }
    case 'fit.set':
      return { ...command, fields: picked(build.fit ?? blankFit, command.fields) }
    case 'flying.set':
      return { ...command, fields: picked(build.flying ?? blankFlightPlan, command.fields) }
    case 'shave.set':
      return { ...command, fields: picked(build.shave ?? blankShaveList, command.fields) }
    case 'assembly.set':
      return { ...command, fields: picked(build.assembly ?? blankAssembly, command.fields) }
    case 'assembly.record': {
      const record = build.assembly?.records.find(r => r.stepId === command.stepId)
      return { ...command, fields: record ? picked(record, command.fields) : command.fields }
    }
    case 'lines.add':
    case 'line.weigh':
    case 'weighings.correct':
    case 'line.another':
    case 'line.same':
    case 'lines.move':
    case 'lines.delete':
    case 'line.fit':
    case 'setup.delete':
    case 'observation.delete':
    case 'shaving.delete':
    case 'shavings.plan':
    case 'shaving.do':
    case 'loadout.fly':
    case 'loadout.never':
      return command
  }
}

import { mergeByField, type Meeting, type MergeRules } from '../../basics/merge'
import type { Build, FurtherWeighing } from '../../model/ledger'
import { applyCommand, commandRules } from './apply'
import { buildParts, everySlice } from './fields'
import type { Command } from './slices'

const merging = (kind: 'whole' | 'sets') => new Set(everySlice.flatMap(slice => slice.merging?.[kind] ?? []))
/** Lists of names that are sets: what one side adds and the other takes away do not meet. */
const sets = merging('sets')

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
  whole: merging('whole'),
  keyOf(list, path) {
    if (sets.has(path.at(-1) ?? '')) return String
    if (path.at(-1) === 'further') return item => (item as FurtherWeighing).mass.versionId
    return list.length > 0 && list.every(hasKey) ? keyOfItem : null
  },
}

/** Parts nobody has said anything about count as blank, so that two who begin one do not meet. */
function withBlanks(build: Build): Build {
  const missing = buildParts.filter(({ name }) => build[name as keyof Build] === null)
  return { ...build, ...Object.fromEntries(missing.map(({ name, field }) => [name, field.empty])) }
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
  return { command: commandRules[command.type]!.asIn?.(command, merged) ?? command, meetings }
}

import {
  applyPatch,
  buildMergeRules,
  meetingWords,
  rebaseCommand,
  type Command,
  type MeetingWords,
} from '../../../core/changes/commands'
import type { Build } from '../../../core/model/ledger'
import { mergeByField } from '../../../core/basics/merge'
import type { JournalRecord } from '../../../shared/schemas/journal'

/** Entries since a revision, oldest first, with the keys of the writes they came from. */
export type Since = readonly { readonly key: string | null; readonly record: JournalRecord }[]

/** Where a write was typed: the part of its key before the dot. Null for what carries no key. */
export const originOf = (key: string | null): string | null =>
  key === null ? null : key.slice(0, Math.max(key.indexOf('.'), 0)) || null

/**
 * The build as whoever wrote with this origin believes it to be: as it was at the revision seen, with what came from the
 * same origin since. Null where nobody else has written: then it is the build as it is.
 */
export function believedBuild(now: Build, since: Since, origin: string | null): Build | null {
  const own = ({ key }: Since[number]) => origin !== null && originOf(key) === origin
  if (since.every(own)) return null
  const states = [now]
  for (const { record } of [...since].reverse())
    states.unshift(applyPatch(states[0]!, record.patch, record.kind === 'undo' ? 'forwards' : 'backwards'))
  let believed = states[0]!
  since.forEach((entry, i) => {
    if (own(entry)) believed = mergeByField(states[i]!, states[i + 1]!, believed, buildMergeRules).merged
  })
  return believed
}

/** A command made on `believed` as it must be carried out on `now`, or the fields that both sides changed, in words. */
export function onTopOf(
  command: Command,
  believed: Build | null,
  now: Build,
): { readonly command: Command } | { readonly meetings: readonly MeetingWords[] } {
  if (!believed) return { command }
  const rebased = rebaseCommand(command, believed, now)
  return rebased.meetings.length === 0
    ? { command: rebased.command }
    : { meetings: meetingWords(rebased.meetings, believed, now) }
}

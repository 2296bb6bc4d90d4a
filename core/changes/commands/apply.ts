import type { Build } from '../../model/ledger'
import { CommandRefused, referencesOf, type CommandRule, type Description, type Patch } from '../../slices/contract'
import { everySlice } from './fields'
import type { Command } from './slices'

/** Everything that can be done to a build, by its name. */
export const commandRules: Readonly<Record<string, CommandRule<Command>>> = Object.assign(
  {},
  ...everySlice.map(slice => slice.commands),
)

/** Every id in a build that names a line or a set-up. */
export const references = referencesOf(everySlice.flatMap(slice => slice.references))

/**
 * The build after a command. Pure: the given build is untouched, and everything that did not change is the same
 * object afterwards. Throws {@link CommandRefused} with a sentence when the command does not fit the build.
 */
export function applyCommand(build: Build, command: Command): Build {
  return commandRules[command.type]!.apply(build, command, references)
}

/** The build after a command that is only thought of, or may no longer fit; null where it would be refused. */
export function applyUnlessRefused(build: Build, command: Command): Build | null {
  try {
    return applyCommand(build, command)
  } catch (error) {
    if (error instanceof CommandRefused) return null
    throw error
  }
}

/** Describes a command that has been carried out, in the builder's words. */
export function describeCommand(command: Command, before: Build, patch: Patch): Description {
  return commandRules[command.type]!.describe(command, before, patch)
}

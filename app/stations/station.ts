import type { Balance } from '#core/aircraft/balance'
import type { LoadoutCell } from '#core/aircraft/flight'
import type { FitReport } from '#core/aircraft/fit'
import type { Overview } from '#core/mass/report'
import type { Build, LoadoutChoice } from '#core/model/ledger'
import type { StationPage } from './views'

/** What the stations tell their status from: the open build, and what has been worked out of it. */
export interface Desk {
  readonly build: Build
  readonly overview: Overview
  readonly choice: LoadoutChoice
  /** Null while it is worked out, and where there is nothing to fit. */
  readonly fit: FitReport | null
  /** How the loadout on view hangs; null while it is worked out. */
  readonly balance: Balance | null
  /** Every loadout of the build's own packs. */
  readonly loadouts: readonly LoadoutCell[]
  /** How often it was flown, and how many findings are open; null while they are read. */
  readonly flown: { readonly flights: number; readonly open: number } | null
  /** Titles of what would be taken back. */
  readonly lastChange: string | null
}

export interface StationStatus {
  readonly line: string
  readonly tone: 'good' | 'mid' | 'bad' | 'quiet'
}

/** A station of the work on a build: the list of stations, the keys, Find and the help are made of these. */
export interface Station {
  /** Its place in the order of work, and the number it shows. */
  readonly number: number
  /** The key that opens it. */
  readonly key: string
  readonly name: string
  /** Its page below the build's. */
  readonly page: StationPage
  readonly question: string
  /** What it is for, in one sentence. */
  readonly purpose: string
  /** What is still missing there, in a few words each; nothing where all is there. */
  readonly missing: (desk: Desk) => readonly string[]
  /** The line under its name; undefined while it is being worked out. */
  readonly status: (desk: Desk) => StationStatus | undefined
  /** Whether it has nothing to say for a build: then it is folded away, and can be called back. */
  readonly foldsAway: (build: Build) => boolean
}

/** “1 line”, “3 lines”. */
export const several = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`

/** A ready-made craft known only as a whole has no parts to work on. */
export const withoutParts = (build: Build): boolean => build.reference !== null
export const never = (): boolean => false

import type { Build, FurtherWeighing, Line, Setup } from '../../model/ledger'
import type { ItemChange, ListChange } from './item-lists'

/** The fields of a build that are neither lines nor set-ups. */
export type BuildHead = Omit<Build, 'id' | 'lines' | 'setups'>

/** A line of a patch. Its weighings beside the estimate are left out where the line is there before and after. */
export type PatchedLine = Omit<Line, 'further'> & Partial<Pick<Line, 'further'>>

/** One line before and after; null where it did not or does not exist. */
export interface LineChange extends ItemChange<PatchedLine> {
  /** What became of its weighings beside the estimate, where it is there before and after and they changed. */
  readonly further?: ListChange<FurtherWeighing> | undefined
}

/** What is kept of a line that is there before and after: its id, its listing where it has one, and the fields that changed. */
export type KeptLine = Partial<PatchedLine> & Pick<Line, 'id'>

/** One line before and after as the journal keeps it: whole where it came or went, or its listing changed. */
export interface KeptLineChange extends ItemChange<KeptLine> {
  readonly further?: ListChange<FurtherWeighing> | undefined
}

/** Some fields of something, by name. */
export type Fields = Readonly<Record<string, unknown>>

/** Fields of one part of a build that changed, its lists apart. */
export interface PartChange {
  readonly part: string
  readonly before: Fields
  readonly after: Fields
}

/** Items of one list of a build that changed. */
export interface NamedListChange extends ListChange<unknown> {
  readonly list: string
}

/**
 * What a command changed, with its before and after: enough to undo and redo it. It holds what changed and nothing
 * else, so that a journal grows in a straight line.
 */
export interface Patch {
  /**
   * Fields of the build itself, and parts that came or went. Patches from before lists were kept item by item hold
   * lists here as a whole.
   */
  readonly head: { readonly before: Partial<BuildHead>; readonly after: Partial<BuildHead> } | null
  readonly lines: readonly LineChange[]
  /** All set-ups, in patches from before lists were kept item by item; null since. */
  readonly setups: { readonly before: readonly Setup[]; readonly after: readonly Setup[] } | null
  /** Ids in ledger order, when lines changed places. */
  readonly order: { readonly before: readonly string[]; readonly after: readonly string[] } | null
  readonly parts?: readonly PartChange[] | undefined
  readonly lists?: readonly NamedListChange[] | undefined
}

/** A patch as the journal keeps it: of lines that stayed only what changed, in patches from before that they stand whole. */
export interface KeptPatch extends Omit<Patch, 'lines'> {
  readonly lines: readonly KeptLineChange[]
}

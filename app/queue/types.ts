import type { MeetingWords } from '#core/changes/commands'

/** One change that was typed and has not been acknowledged: all that is needed to send it, from any tab, at any time. */
export interface QueuedEdit {
  /** Where it was typed and which it is, with a dot between; the server does it once, however often it is sent. */
  readonly key: string
  /** What it changes: `build:<id>` or the name of what is kept outside the builds. */
  readonly document: string
  readonly documentName: string
  /** The revision of the document it was typed on. */
  readonly base: number
  readonly payload: unknown
  /** What it would do, for the builder. */
  readonly words: string
  /** The data it was typed on; absent of edits that earlier versions left. */
  readonly data?: string
  /** Edits of a document are sent in this order. */
  readonly order: number
}

/** A change that was refused: kept with the reason until the builder tries it again or lets it go. */
export interface SetAsideEdit extends QueuedEdit {
  readonly sentence: string
}

/** Why edits are not sent at the moment. */
export type WaitReason = 'no answer' | 'signed out' | 'server busy' | 'server trouble'

/** What became of edits that were sent together. */
export type SendOutcome =
  | { readonly kind: 'accepted'; readonly reply: unknown }
  | { readonly kind: 'wait'; readonly why: WaitReason; readonly afterMs?: number }
  | { readonly kind: 'refused'; readonly sentence: string }
  | {
      readonly kind: 'met'
      readonly sentence: string
      readonly meetings: readonly MeetingWords[]
      readonly onTop: QueuedEdit
    }

/** An edit that met somebody else’s change: nothing of its document is sent until the builder has chosen. */
export interface MetEdit {
  readonly edit: QueuedEdit
  readonly sentence: string
  readonly meetings: readonly MeetingWords[]
  /** The same edit as it is sent when the builder puts it on top of what is there. */
  readonly onTop: QueuedEdit
}

/** Where edits outlive the page. Every promise resolves when it is on disk. */
export interface EditStorage {
  all(): Promise<readonly QueuedEdit[]>
  of(document: string): Promise<readonly QueuedEdit[]>
  put(edits: readonly QueuedEdit[]): Promise<void>
  remove(keys: readonly string[]): Promise<void>
  /** Takes an edit out of the queue and keeps it with the reason, as one step. */
  setAside(edit: SetAsideEdit): Promise<void>
  asides(): Promise<readonly SetAsideEdit[]>
  removeAside(key: string): Promise<void>
  /** Puts an edit that was set aside back into the queue, as one step. */
  putBack(edit: QueuedEdit): Promise<void>
}

/** Runs work while no other tab runs work of the same name. */
export type Exclusively = <T>(name: string, work: () => Promise<T>) => Promise<T>

import type { Build } from '../../../core/model/ledger'
import type { ToldEntry } from '../../../shared/schemas/journal'
import { mostFileBytes } from '../../../shared/files/largest'
import type { BuildsRepository } from '../../db/builds-repository'
import { DomainProblem } from '../../problems'
import type { HeldBuild } from './held-build'

/** Part of the largest file that new changes leave free, so that what was done can still be taken back. */
const keptForTakingBack = 0.05
/** A change stands in the journal with what was before and after, and once more in the build and its versions of grams. */
const timesInFile = 2
const besidePatch = 2000

/** Keeps the file of a build below the largest that is taken in: whatever can be made can be brought in again. */
export class RoomInFile {
  constructor(private readonly builds: BuildsRepository) {}

  /** Refuses a write after which the build's file could be over the largest; its patch as it will be written. */
  takeEntry(entry: HeldBuild, { kind, note }: ToldEntry, patchText: string): void {
    const most = kind === 'do' ? mostFileBytes * (1 - keptForTakingBack) : mostFileBytes
    this.take(entry, Buffer.byteLength(patchText) * timesInFile + bytesOf(note) + besidePatch, most)
  }

  /** Refuses a note of the journal after which the build's file could be over the largest. */
  takeNote(entry: HeldBuild, note: string): void {
    this.take(entry, bytesOf(note), mostFileBytes * (1 - keptForTakingBack))
  }

  private take(entry: HeldBuild, added: number, most: number): void {
    entry.fileBytes ??= this.bytesOf(entry.build)
    // What was counted on top is more than what it came to: it is looked up again before anything is refused.
    if (entry.fileBytes + added > most) entry.fileBytes = this.bytesOf(entry.build)
    if (entry.fileBytes + added > most) throw full(entry.build.name)
    entry.fileBytes += added
  }

  private bytesOf(build: Build): number {
    return bytesOf(build) + this.builds.fileBytes(build.id)
  }
}

const bytesOf = (data: unknown): number => Buffer.byteLength(JSON.stringify(data))
const full = (name: string) =>
  new DomainProblem(
    'refused',
    `The history of “${name}” fills the largest build file there can be, ${mostFileBytes / 1e6} MB. Nothing was written. ` +
      `Export it, which keeps its history, and start a copy of it to go on with.`,
  )

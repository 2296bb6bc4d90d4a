import { randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import type { Writable } from 'node:stream'
import {
  checkArchive,
  clearUnnamed,
  copiesToDrop,
  dropChecked,
  unnamedFiles,
  writeArchive,
  type Checked,
  type Manifest,
} from '../archive'
import type { Db, Migration } from '../db/open-database'
import { DomainProblem } from '../problems'

interface Dependencies {
  readonly folder: string
  readonly db: Db
  readonly migrations: readonly Migration[]
  readonly now: () => string
}

export interface KeptCopy {
  readonly name: string
  readonly madeAt: string
  readonly bytes: number
}

const copyName = /^jolly-gram-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2})\.zip$/
const dayMs = 86_400_000

/** Everything in one file; copies made by themselves; an archive checked and laid ready. */
export function archiveService({ folder, db, migrations, now }: Dependencies) {
  const copiesFolder = join(folder, 'copies')
  let writing: Promise<unknown> | null = null
  let checked: Checked | null = null
  let failure: { readonly at: string; readonly words: string } | null = null

  async function copies(): Promise<KeptCopy[]> {
    const names = await readdir(copiesFolder).catch(() => [])
    const found = await Promise.all(
      names.map(async (name): Promise<KeptCopy | null> => {
        const at = copyName.exec(name)?.[1]
        const file = at ? await stat(join(copiesFolder, name)).catch(() => null) : null
        return at && file
          ? { name, madeAt: `${at.slice(0, 10)}T${at.slice(11).replaceAll('-', ':')}.000Z`, bytes: file.size }
          : null
      }),
    )
    return found.flatMap(copy => copy ?? []).sort((a, b) => b.madeAt.localeCompare(a.madeAt))
  }
  const freeBytes = async () => {
    const { bavail, bsize } = await statfs(folder)
    return bavail * bsize
  }
  const write = (output: Writable): Promise<Manifest> => writeArchive({ folder, db, now }, output)

  /** Makes a copy beside the data and thins the older ones; a copy that is not whole is never among them. */
  async function makeCopy(): Promise<KeptCopy> {
    await mkdir(copiesFolder, { recursive: true, mode: 0o700 })
    const before = await copies()
    const room = await freeBytes()
    if (before[0] && room < 2 * before[0].bytes)
      throw new DomainProblem(
        'refused',
        `No copy was made: ${Math.floor(room / 1e6)} MB are free, and the last copy had ${Math.ceil(before[0].bytes / 1e6)} MB.`,
      )
    const name = `jolly-gram-${now().slice(0, 19).replaceAll(':', '-')}.zip`
    const part = join(copiesFolder, `${randomUUID()}.part`)
    try {
      await write(createWriteStream(part, { mode: 0o600, flush: true }))
      await rename(part, join(copiesFolder, name))
    } finally {
      await rm(part, { force: true })
    }
    const all = await copies()
    for (const { name: gone } of copiesToDrop(all)) await rm(join(copiesFolder, gone), { force: true })
    return all.find(copy => copy.name === name)!
  }

  /** One at a time: whoever asks meanwhile gets the same copy. */
  function makeOneCopy(): Promise<KeptCopy> {
    const made = (writing as Promise<KeptCopy> | null) ?? makeCopy()
    writing = made
    void made
      .then(
        () => (failure = null),
        () => undefined,
      )
      .finally(() => {
        writing = null
      })
    return made
  }
  /** Whether the newest copy is a day old, or there is none. */
  async function isCopyDue(): Promise<boolean> {
    const [newest] = await copies()
    return !newest || Date.parse(now()) - Date.parse(newest.madeAt) >= dayMs
  }

  return {
    folder,
    write,
    copies,
    freeBytes,
    copiesFolder,
    makeCopy: makeOneCopy,
    isCopyDue,
    /** A copy made by itself: nobody waits for it, so what went wrong is kept until one was made. */
    async makeCopyIfDue(): Promise<void> {
      try {
        if (await isCopyDue()) await makeOneCopy()
      } catch (error) {
        failure = { at: now(), words: error instanceof Error ? error.message : String(error) }
      }
    },
    lastFailure: () => failure,
    unnamed: () => unnamedFiles(folder),
    clearUnnamed: () => clearUnnamed(folder),
    copyFile(name: string): string {
      if (!copyName.test(name)) throw new DomainProblem('not-found', 'There is no such copy.')
      return join(copiesFolder, name)
    },
    /** Checks an archive and lays it ready in the place of one that was laid ready before. */
    async check(file: string): Promise<Checked> {
      if (checked) dropChecked(folder, checked.id)
      checked = null
      checked = await checkArchive(folder, file, migrations)
      return checked
    },
  }
}
export type ArchiveService = ReturnType<typeof archiveService>

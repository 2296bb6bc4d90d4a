import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { databaseName, keptFolders } from './layout'

/**
 * What was laid out takes the place of what is here by renaming, entry by entry. That it shall is written down first: from
 * then on it is carried to its end by whoever opens the folder next, however often it was broken off; before that nothing
 * has happened. What it takes the place of is kept whole in a folder of its own.
 */
const noteName = 'restore.json'
const stagePrefix = 'restore-'
const entries = [databaseName, `${databaseName}-wal`, `${databaseName}-shm`, ...keptFolders]

const noteSchema = z.strictObject({
  stage: z.string().regex(/^restore-[\w-]{1,60}$/),
  keptAs: z.string().regex(/^replaced\/[\w.-]{1,60}$/),
})

export const stageIn = (folder: string, id: string): string => join(folder, `${stagePrefix}${id}`)

function synced(folder: string): void {
  const directory = openSync(folder, 'r')
  try {
    fsyncSync(directory)
  } finally {
    closeSync(directory)
  }
}

/** From here on the restore happens. `day` names what is kept of the data that were here. */
export function commitRestore(folder: string, id: string, day: string): { keptAs: string } {
  const taken = new Set(existsSync(join(folder, 'replaced')) ? readdirSync(join(folder, 'replaced')) : [])
  let name = day
  for (let n = 2; taken.has(name); n++) name = `${day}-${n}`
  const note = { stage: `${stagePrefix}${id}`, keptAs: `replaced/${name}` }
  const path = join(folder, `${noteName}.part`)
  const file = openSync(path, 'w', 0o600)
  try {
    writeSync(file, JSON.stringify(note))
    fsyncSync(file)
  } finally {
    closeSync(file)
  }
  for (const laid of readdirSync(stageIn(folder, id), { recursive: true, withFileTypes: true }))
    if (laid.isDirectory()) synced(join(laid.parentPath, laid.name))
  synced(stageIn(folder, id))
  renameSync(path, join(folder, noteName))
  synced(folder)
  return note
}

/** Carries a restore that was decided to its end, and clears away one that was not. Call before the data are opened. */
export function finishRestore(folder: string): void {
  if (!existsSync(folder)) return
  const notePath = join(folder, noteName)
  if (existsSync(notePath)) {
    const { stage, keptAs } = noteSchema.parse(JSON.parse(readFileSync(notePath, 'utf8')))
    const [fresh, kept] = [join(folder, stage), join(folder, keptAs)]
    mkdirSync(kept, { recursive: true, mode: 0o700 })
    for (const entry of entries) {
      const [here, there, old] = [join(folder, entry), join(fresh, entry), join(kept, entry)]
      // What lies here is the old one as long as the new one waits, or none is to come and none was kept.
      const waits = existsSync(there)
      if (existsSync(here) && !existsSync(old) && (waits || !isLaid(fresh, entry))) renameSync(here, old)
      if (waits) {
        markLaid(fresh, entry)
        renameSync(there, here)
      }
    }
    synced(kept)
    synced(folder)
    // The note goes first: without the marks beside it, what was laid could be taken for what was here.
    rmSync(notePath)
    synced(folder)
  }
  clearAway(folder)
}

/** An archive that another program is writing has its desk here, too: only one that was left long ago goes. */
const leftAfterMs = 86_400_000
function clearAway(folder: string): void {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name)
    const isLeft = name.startsWith('archive-') && Date.now() - statSync(path).mtimeMs > leftAfterMs
    if (/^restore-[\w-]+$/.test(name) || name === `${noteName}.part` || isLeft)
      rmSync(path, { recursive: true, force: true })
  }
}

const laidName = (fresh: string, entry: string) => join(fresh, `laid-${entry}`)
const isLaid = (fresh: string, entry: string) => existsSync(laidName(fresh, entry))
/** Said before it is laid, so that it is not taken for an old one afterwards. */
function markLaid(fresh: string, entry: string): void {
  closeSync(openSync(laidName(fresh, entry), 'w', 0o600))
  synced(fresh)
}

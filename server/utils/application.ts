import { existsSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { decideRestore, finishRestore, requireReady } from '../archive'
import { DataProblem, dataProblemOf } from '../db/data-problem'
import { FolderHeld, ownFolder, type Ownership } from '../db/owner'
import { inThisThread, inWorkerThread } from '../services/report-runner'
import migrations from '#migrations'
import { makeApplication, type Application } from '../services/application'

interface Running {
  readonly application: Application
  readonly path: string
  readonly inode: number
  readonly ownership: Ownership
}

let running: Promise<Running> | null = null
let lastLookMs = -Infinity
let lastTrouble: DataProblem | null = null
/** How often it is looked whether the data are still there, and whether those that could not be opened can be now. */
const lookEveryMs = 400

const inodeOf = (path: string): number | null => statSync(path, { throwIfNoEntry: false })?.ino ?? null

/**
 * The application of this process, opened at the first use. `JOLLY_GRAM_DATA` names its data folder. Throws a
 * {@link DataProblem} while the data cannot be opened or have gone; opens them by itself when that is mended.
 */
export async function useApplication(): Promise<Application> {
  const now = performance.now()
  const due = now - lastLookMs > lookEveryMs
  if (lastTrouble && !due) throw lastTrouble
  if (due) {
    lastLookMs = now
    try {
      await lookAfter()
    } catch (error) {
      lastTrouble = dataProblemOf(error)
      throw error
    }
  }
  running ??= open()
  try {
    const { application } = await running
    lastTrouble = null
    return application
  } catch (error) {
    running = null
    lastTrouble = dataProblemOf(error)
    throw lastTrouble ?? error
  }
}

/** Data that were deleted or put in the place of others under the running application are let go, not written to. */
async function lookAfter(): Promise<void> {
  const present = await running?.catch(() => null)
  if (!present) return
  const inode = inodeOf(present.path)
  if (inode === present.inode) return
  if (inode === null) throw new DataProblem('gone')
  present.application.close()
  present.ownership.release()
  running = null
}

const dataFolder = () => resolve(process.env.JOLLY_GRAM_DATA ?? '.data/own')

/** An archive that was checked takes the place of the data here; whoever asks meanwhile waits. */
export async function replaceData(id: string): Promise<{ keptAs: string }> {
  const { application, ownership } = await (running ??= open())
  const folder = dataFolder()
  // Nothing is closed for one that does not lie ready.
  requireReady(folder, id)
  application.close()
  endStreams()
  try {
    return decideRestore(folder, id)
  } finally {
    running = open(ownership)
    await running
  }
}
async function open(owned: Ownership | null = null): Promise<Running> {
  // Everything kept is for this user alone.
  process.umask(0o077)
  const folder = dataFolder()
  const ownership = owned ?? takeFolder(folder)
  const path = join(folder, 'jolly-gram.sqlite')
  try {
    finishRestore(folder)
    return {
      application: makeApplication(path, migrations, () => new Date().toISOString(), reportRunner()),
      path,
      inode: inodeOf(path)!,
      ownership,
    }
  } catch (error) {
    ownership.release()
    throw error
  }
}

/** Reports are worked out by a thread of their own, which the build puts beside the server; in development there is none. */
function reportRunner() {
  const script = new URL('./workers/report.mjs', pathToFileURL(process.argv[1] ?? ''))
  return existsSync(script) ? inWorkerThread(script) : inThisThread
}

/** A second start on one data folder says so and ends. */
function takeFolder(folder: string): Ownership {
  try {
    return ownFolder(folder, process.env.NITRO_PORT ?? process.env.PORT ?? '3000')
  } catch (error) {
    if (!(error instanceof FolderHeld)) throw error
    console.error(error.message)
    process.exit(3)
  }
}

import { spawn } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build } from 'esbuild'
import Database from 'better-sqlite3'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { makeBuild } from '../../core/changes/commands'
import { makeApplication } from '../services/application'
import { migrationsOnDisk } from '../testing'
import { finishRestore } from './index'

/** More of them on request: a hundred take some three minutes. */
const kills = Number(process.env.ARCHIVE_KILLS ?? 20)
const program = join(import.meta.dirname, `kill-loop.${process.pid}.bundle.mjs`)
const migrationFolder = join(import.meta.dirname, '../db/migrations')
let folder: string
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'killed-'))
  await build({
    entryPoints: [join(import.meta.dirname, 'kill-loop.ts')],
    outfile: program,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  })
}, 60_000)
afterAll(() => {
  rmSync(program, { force: true })
  rmSync(folder, { recursive: true, force: true })
})

interface Said {
  readonly ack: number
  /** The edit that comes next. */
  readonly next: number
  readonly restoring: { readonly archived: number; readonly had: number } | null
  /** How often its restore touched the disk. */
  readonly steps: number
}
/** Until when the program runs: so long after it is ready, to a word of its own, or to before a step of its restore. */
type Until = { readonly ms: number } | { readonly word: string } | { readonly step: number }

/** Runs the program so far and no further; what it had said by then. */
function killed(until: Until, from: number): Promise<Said> {
  return new Promise((done, fail) => {
    const step = 'step' in until ? [String(until.step)] : []
    const child = spawn(process.execPath, [program, folder, String(from), migrationFolder, ...step])
    let said = ''
    let wrong = ''
    child.stderr.on('data', (text: Buffer) => (wrong += text.toString()))
    child.stdout.on('data', (text: Buffer) => {
      const word = 'ms' in until ? 'ready' : 'word' in until ? until.word : null
      const isFirst = word !== null && !said.includes(word)
      said += text.toString()
      if (isFirst && said.includes(word)) setTimeout(() => child.kill('SIGKILL'), 'ms' in until ? until.ms : 0)
    })
    child.once('exit', (_code, signal) => {
      if (signal === 'SIGKILL') done(readSaid(said, from))
      else fail(new Error(wrong || said))
    })
  })
}
function readSaid(said: string, from: number): Said {
  let result: Said = { ack: 0, next: from + 1, restoring: null, steps: 0 }
  // What was not said to its end was not said.
  for (const line of said.split('\n').slice(0, -1)) {
    const [what, first, second] = line.split(' ')
    if (what === 'ack') result = { ...result, ack: Number(first), next: Number(first) + 1 }
    if (what === 'restoring') result = { ...result, restoring: { archived: Number(first), had: Number(second) } }
    if (what === 'restored')
      result = { ack: Number(first), next: result.restoring!.had + 1, restoring: null, steps: Number(second) }
  }
  return result
}
const classOf = (path: string): number => {
  const db = new Database(path, { readonly: true })
  try {
    expect(db.pragma('integrity_check')).toEqual([{ integrity_check: 'ok' }])
    const text = db.prepare(`SELECT craft_class FROM builds WHERE id = 'b'`).pluck().get() as string
    return Number(text.replace('class ', ''))
  } finally {
    db.close()
  }
}
const newestReplaced = () => {
  const names = readdirSync(join(folder, 'replaced'))
  const number = (name: string) => Number(name.split('-')[3] ?? 1)
  return join(folder, 'replaced', names.sort((a, b) => number(b) - number(a))[0]!)
}

it(`killed at any moment of an archive or a restore: never a half state, never a lost acknowledged write (${kills} times)`, async () => {
  const first = makeApplication(join(folder, 'jolly-gram.sqlite'), migrationsOnDisk())
  await first.builds.insert(
    makeBuild({ id: 'b', name: 'b', craftClass: 'class 0', lines: [], setups: [{ id: 's', name: 's', lineIds: [] }] }),
    [],
    [],
  )
  first.close()
  const hits = { whileRestoring: 0, old: 0, fresh: 0 }
  const { ack: archived, steps } = await killed({ word: 'restored' }, 0)
  expect(steps).toBeGreaterThan(20)
  let present = archived
  for (let i = 0; i < kills; i++) {
    const from = Math.max(present, i * 1000)
    const { ack, next, restoring } = await killed(
      i % 2 === 0 ? { ms: 5 + ((i * 37) % 400) } : { step: Math.floor((i / kills) * steps) },
      from,
    )
    finishRestore(folder)
    const app = makeApplication(join(folder, 'jolly-gram.sqlite'), migrationsOnDisk())
    const now = Number(app.builds.read('b').build.craftClass.replace('class ', ''))
    app.close()
    classOf(join(folder, 'jolly-gram.sqlite'))
    if (restoring) {
      hits.whileRestoring++
      if (now === restoring.archived) {
        hits.fresh++
        // What it took the place of is kept with the last write that was acknowledged.
        expect(classOf(join(newestReplaced(), 'jolly-gram.sqlite'))).toBe(restoring.had)
      } else {
        hits.old++
        expect(now).toBeGreaterThanOrEqual(restoring.had)
      }
    } else if (ack > 0) {
      // An edit may have been written and not have been answered yet.
      expect([ack, next]).toContain(now)
    }
    const photos = readdirSync(join(folder, 'photos/b'))
      .filter(name => name.endsWith('.jpg'))
      .map(name => Number(/\d+/.exec(name)![0]))
    for (const photo of photos) {
      expect(readFileSync(join(folder, `photos/b/p${photo}.jpg`), 'utf8')).toBe(`photo ${photo}`)
      // One may have been written for an edit to come; after a restore there is none that its archive has not.
      expect(photo).toBeLessThanOrEqual(restoring && now === restoring.archived ? now : Math.max(now, from) + 2)
    }
    expect(readdirSync(folder).filter(name => /^restore/.test(name))).toEqual([])
    present = now
  }
  expect(hits.whileRestoring).toBeGreaterThanOrEqual(Math.floor(kills / 2))
  expect(Math.min(hits.old, hits.fresh)).toBeGreaterThan(kills / 10)
}, 240_000)

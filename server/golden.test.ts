import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { topicOf } from '../core/changes/commands'
import type { BuildFile } from '../shared/schemas/build-file'
import { applicationOnDisk, migrationsOnDisk } from './testing'
import { makeApplication, type Application } from './services/application'

/** What earlier versions of the application have written, kept as it was: a database, the files and the answers of that day. */
const golden = join(import.meta.dirname, '../golden')
const unpack = (version: string, name: string) => gunzipSync(readFileSync(join(golden, version, name)))

interface Answers {
  readonly builds: Record<string, BuildFile>
  readonly parts: object
  readonly settings: object
  readonly scales: object
  readonly cards: { cards: object[] }
  readonly templates: object[]
  readonly figures?: { readonly shelf: { readonly id: string }[]; readonly reports: Record<string, object> }
}

describe.each(readdirSync(golden))('what was written in %s', version => {
  const answers = JSON.parse(unpack(version, 'answers.json.gz').toString('utf8')) as Answers
  const ids = Object.keys(answers.builds)
  let home: string
  let app: Application
  beforeEach(() => {
    home = mkdtempSync(join(tmpdir(), 'golden-'))
    writeFileSync(join(home, 'ledger.sqlite'), unpack(version, 'jolly-gram.sqlite.gz'))
    app = makeApplication(join(home, 'ledger.sqlite'), migrationsOnDisk())
  })
  afterEach(() => {
    app.close()
    rmSync(home, { recursive: true })
  })

  it('opens: every build with its grams, weighings and journal', () => {
    expect(ids.length).toBeGreaterThanOrEqual(5)
    expect(
      app.builds
        .shelf()
        .map(entry => entry.id)
        .sort(),
    ).toEqual([...ids].sort())
    for (const id of ids) {
      const { build, massVersions, journal } = answers.builds[id]!
      expect(app.builds.read(id).build, id).toMatchObject(build)
      const whole = app.builds.wholeOf(id)
      expect(whole.massVersions, id).toMatchObject(massVersions)
      expect([...whole.journal], id).toMatchObject(journal)
    }
  })
  it('its journal can be read by kind: each entry is of the kind its change says', () => {
    for (const id of ids) {
      const told = app.builds.journal(id).entries
      const records = [...app.builds.wholeOf(id).journal].reverse().slice(0, told.length)
      expect(told.map(({ topic }) => topic)).toEqual(records.map(record => topicOf(record, record.patch)))
    }
  })
  it('opens: drawer, scales, cards, templates and settings', () => {
    expect(app.parts.all()).toMatchObject(answers.parts)
    expect(app.scales.all()).toMatchObject(answers.scales)
    expect(app.rules.cards()).toMatchObject(answers.cards.cards)
    expect(app.templates.all()).toMatchObject(answers.templates)
    expect(app.settings.load()).toMatchObject(answers.settings)
  })
  it.runIf(answers.figures)('gives the figures it gave then, to the bit', async () => {
    const figures = answers.figures!
    const shelf = new Map(app.builds.shelf().map(entry => [entry.id, entry]))
    for (const entry of figures.shelf) expect(shelf.get(entry.id), entry.id).toMatchObject(entry)
    for (const id of ids) expect(await app.builds.report(id), id).toMatchObject(figures.reports[id]!)
  })
  it('is taken back to the beginning and done again', async () => {
    let steps = 0
    for (const id of ids) {
      const read = () => app.builds.read(id)
      const redone = [] as number[]
      while (read().steps.redo) await app.builds.redo(id, read().revision)
      const present = read().build
      while (read().steps.undo) {
        await app.builds.undo(id, read().revision)
        redone.push(steps++)
      }
      for (const _ of redone) await app.builds.redo(id, read().revision)
      expect(read().build, id).toEqual(present)
    }
    expect(steps).toBeGreaterThan(60)
  })
  it('goes out as files of today, which come in again', async () => {
    const beside = applicationOnDisk()
    for (const id of ids) {
      const text = app.files.exportBuild(id)
      expect(JSON.parse(text), id).toMatchObject({ build: answers.builds[id]!.build })
      expect(beside.app.files.exportBuild(await beside.app.files.importBuild(text))).toBe(text)
    }
    beside.app.close()
    beside.remove()
  })
  it('its files still come in', async () => {
    const files = JSON.parse(unpack(version, 'demo-files.json.gz').toString('utf8')) as Record<string, string>
    const texts = [
      ...Object.entries(files)
        .filter(([name]) => !['drawer', 'scales'].includes(name))
        .map(([, text]) => text),
      ...ids.map(id => JSON.stringify(answers.builds[id])),
    ]
    expect(texts.length).toBeGreaterThanOrEqual(10)
    const fresh = applicationOnDisk()
    for (const text of texts) {
      const id = await fresh.app.files.importBuild(text)
      const { id: _id, ...build } = (JSON.parse(text) as BuildFile).build
      expect(fresh.app.builds.read(id).build).toMatchObject(build)
    }
    fresh.app.close()
    fresh.remove()
  })
})

import Database from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Command } from '../core/changes/commands'
import type { Line } from '../core/model/ledger'
import type { BuildSlice } from '../core/slices/contract'
import type { Application } from './services/application'
import { applicationOnDisk, demoFile } from './testing'
import { stickersOf } from './testing-slice'

vi.mock('../core/changes/commands/slices', async original => {
  const { stickersSlice } = await import('./testing-slice')
  const { slices } = await original<{ slices: readonly BuildSlice[] }>()
  return { slices: [...slices, stickersSlice] }
})

describe('a part of a build that is one more entry in the list of slices', () => {
  let disk: ReturnType<typeof applicationOnDisk>
  let app: Application
  beforeEach(async () => {
    disk = applicationOnDisk()
    app = disk.app
    await app.files.importBuild(demoFile('marzipan'))
  })
  afterEach(() => {
    app.close()
    disk.remove()
  })
  /** Opens the database anew, after `sql` was run on it. */
  function reopen(sql = '') {
    app.close()
    const db = new Database(disk.path)
    db.exec(sql)
    db.close()
    app = disk.again()
  }
  const read = () => app.builds.read('marzipan')
  const give = (command: unknown) => app.builds.command('marzipan', read().revision, command as Command, '')
  const stick = (id: string, words: string, lineId: string | null) =>
    give({ type: 'sticker.put', sticker: { id, words, lineId } })
  const camera = () => read().build.lines.find(line => line.slot === 'camera')!

  it('is blank in a file that was written before it was', () => {
    expect(stickersOf(read().build)).toBeNull()
  })
  it('is changed by its command, told in the journal, taken back and done again', async () => {
    const { entry } = await stick('a', 'fast', camera().id)
    expect(entry?.title).toBe('Stuck “fast” on')
    expect(stickersOf(read().build)?.stuck.map(s => s.words)).toEqual(['fast'])
    await stick('b', 'faster', null)
    await app.builds.undo('marzipan', read().revision)
    expect(stickersOf(read().build)?.stuck.map(s => s.words)).toEqual(['fast'])
    await app.builds.redo('marzipan', read().revision)
    expect(stickersOf(read().build)?.stuck.map(s => s.words)).toEqual(['fast', 'faster'])
  })
  it('holds in the journal only what changed', async () => {
    await stick('a', 'fast', null)
    await stick('b', 'faster', null)
    const last = [...app.builds.wholeOf('marzipan').journal].at(-1)!
    expect(last.patch.lists).toEqual([
      {
        list: 'stickers.stuck',
        changes: [{ before: null, after: { id: 'b', words: 'faster', lineId: null }, at: 1 }],
        order: null,
      },
    ])
    expect(last.patch.head).toBeNull()
  })
  it('stands after the application is opened again', async () => {
    await stick('a', 'fast', null)
    const before = read().build
    reopen()
    expect(read().build).toEqual(before)
    await app.builds.undo('marzipan', read().revision)
    expect(stickersOf(read().build)).toBeNull()
  })
  it('goes out in the file with its version and comes in again', async () => {
    await stick('a', 'fast', camera().id)
    const text = app.files.exportBuild('marzipan')
    expect(JSON.parse(text)).toMatchObject({ versions: { stickers: 2 }, build: { stickers: { glue: 'spit' } } })
    const id = await app.files.importBuild(text)
    expect(stickersOf(app.builds.read(id).build)).toEqual(stickersOf(read().build))
    expect(app.builds.read(id).steps.undo).toBe('Stuck “fast” on')
  })
  it('comes in as an earlier version wrote it, in the build and in its journal', async () => {
    await stick('a', 'fast', null)
    await stick('a', 'fastest', null)
    const old = app.files
      .exportBuild('marzipan')
      .replace('"stickers":2', '"stickers":1')
      .replaceAll('"words":', '"text":')
    const id = await app.files.importBuild(old)
    const there = () => stickersOf(app.builds.read(id).build)?.stuck.map(s => s.words)
    expect(there()).toEqual(['fastest'])
    await app.builds.undo(id, app.builds.read(id).revision)
    expect(there()).toEqual(['fast'])
  })
  it('is brought up to date where the database has it as an earlier version wrote it', async () => {
    await stick('a', 'fast', null)
    await stick('b', 'faster', null)
    reopen(`
      DROP TRIGGER journal_keeps_entries;
      UPDATE build_parts SET version = 1, value = replace(value, '"words"', '"text"') WHERE field = 'stickers';
      UPDATE vintages SET versions = replace(versions, '"stickers":2', '"stickers":1');
      UPDATE journal SET patch = replace(patch, '"words"', '"text"')`)
    expect(stickersOf(read().build)?.stuck.map(s => s.words)).toEqual(['fast', 'faster'])
    await app.builds.undo('marzipan', read().revision)
    await app.builds.redo('marzipan', read().revision)
    expect(stickersOf(read().build)?.stuck.map(s => s.words)).toEqual(['fast', 'faster'])
  })
  it('says what is newer where the database was written by a later version', async () => {
    await stick('a', 'fast', null)
    reopen(`UPDATE build_parts SET version = 3 WHERE field = 'stickers'`)
    expect(read).toThrow(
      '“Marzipan” cannot be read: It holds Stickers in version 3, of which this application reads up to version 2.',
    )
  })
  it('follows a line that is replaced, and goes with one that is deleted', async () => {
    const { id } = camera()
    await stick('a', 'fast', id)
    const other: Line = { ...camera(), id: 'other-camera', state: 'candidate', insteadOf: id }
    await give({ type: 'lines.add', lines: [other], beforeId: null })
    await give({ type: 'line.fit', id: other.id })
    expect(stickersOf(read().build)?.stuck[0]!.lineId).toBe('other-camera')
    await give({ type: 'lines.delete', ids: ['other-camera'] })
    expect(stickersOf(read().build)?.stuck).toEqual([])
  })
  it.each([
    ['what its schema refuses', { id: 'a', words: '', lineId: null }, 'The sticker cannot be empty.'],
    [
      'a line that is not there',
      { id: 'a', words: 'lost', lineId: 'nowhere' },
      'A sticker is on a line that is not there.',
    ],
  ])('refuses %s', async (_what, sticker, sentence) => {
    const before = read()
    await expect(give({ type: 'sticker.put', sticker })).rejects.toThrow(sentence)
    expect(read()).toEqual(before)
  })
  it('holds no more items than it says', async () => {
    for (const id of ['a', 'b', 'c']) await stick(id, id, null)
    await expect(stick('d', 'one too many', null)).rejects.toThrow('at most 3 of these')
  })
})

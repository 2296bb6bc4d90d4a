import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { migrationsOnDisk } from '../testing'
import { groupCommit } from './group-commit'
import { openDatabase } from './open-database'

const home = mkdtempSync(join(tmpdir(), 'db-'))
afterAll(() => rmSync(home, { recursive: true }))

const journalRow = (kind: string, undone: string, patch: string) =>
  `INSERT INTO journal VALUES ('b', 1, 't', '${kind}', NULL, '', NULL, NULL, 1, 1, '', '${undone}', '${patch}', NULL, 1, 'aim', '')`

describe('the database', () => {
  it('is opened durable, with foreign keys, and only migrated once', () => {
    const path = join(home, 'sub', 'a.sqlite')
    const db = openDatabase(path, migrationsOnDisk())
    expect(db.pragma('journal_mode', { simple: true })).toBe('wal')
    expect(db.pragma('synchronous', { simple: true })).toBe(2)
    expect(db.pragma('foreign_keys', { simple: true })).toBe(1)
    db.close()
    const again = openDatabase(path, migrationsOnDisk())
    expect(again.prepare('SELECT count(*) FROM migrations').pluck().get()).toBe(migrationsOnDisk().length)
    again.close()
    expect(() => openDatabase(path, [])).toThrow('newer version')
  })
  it('leaves nothing of a migration that fails', () => {
    const path = join(home, 'b.sqlite')
    expect(() => openDatabase(path, [{ name: '001.sql', sql: 'CREATE TABLE t (a); CREATE TABLE t (a);' }])).toThrow(
      'already exists',
    )
    const db = openDatabase(path, [])
    expect(db.prepare(`SELECT count(*) FROM sqlite_schema WHERE name = 't'`).pluck().get()).toBe(0)
    db.close()
  })
  it.each([
    [
      'a negative mass',
      `INSERT INTO mass_versions VALUES ('b', 'v', 'l', 't', 'guess', -1, 1, 0.1, NULL, NULL, NULL, 'as fitted', '', NULL, 1)`,
    ],
    [
      'a quantity of 0',
      `INSERT INTO lines VALUES ('b', 'l', 0, 'strap', 'x', 0, NULL, NULL, NULL, 'fitted', 'airframe', ` +
        `0, NULL, '', NULL, NULL, NULL, NULL, NULL, 0, '[]', NULL, '[]')`,
    ],
    [
      'a mass version that is not there',
      `INSERT INTO lines VALUES ('b', 'l', 0, 'strap', 'x', 1, 'zz', NULL, NULL, 'fitted', 'airframe', ` +
        `0, NULL, '', NULL, NULL, NULL, NULL, NULL, 0, '[]', NULL, '[]')`,
    ],
    [
      'a nameless line',
      `INSERT INTO lines VALUES ('b', 'l', 0, 'strap', ' ', 1, NULL, NULL, NULL, 'fitted', 'airframe', ` +
        `0, NULL, '', NULL, NULL, NULL, NULL, NULL, 0, '[]', NULL, '[]')`,
    ],
    [
      'grams known in a way there is not',
      `INSERT INTO mass_versions VALUES ('b', 'v', 'l', 't', 'hearsay', 1, 1, 0.1, NULL, NULL, NULL, 'as fitted', '', NULL, 1)`,
    ],
    [
      'grams on a basis there is not',
      `INSERT INTO mass_versions VALUES ('b', 'v', 'l', 't', 'guess', 1, 1, 0.1, NULL, NULL, NULL, 'as dreamt', '', NULL, 1)`,
    ],
    ['an entry of no kind', journalRow('think', 'in force', '{}')],
    ['an entry that stands in no way', journalRow('do', 'half taken back', '{}')],
    ['a patch that is no JSON', journalRow('do', 'in force', '{')],
  ])('refuses %s by its own constraints', (_what, sql) => {
    const db = openDatabase(':memory:', migrationsOnDisk())
    db.exec(
      `INSERT INTO builds VALUES ('b', 'B', '', 0, 1, 't', '', 'recreation', '[]', '[]', 0, 0.95, NULL, NULL, NULL, 's', NULL)`,
    )
    expect(() => db.exec(sql)).toThrow(/constraint failed/)
    db.close()
  })
})

describe('a database from before the checks were plain', () => {
  it('keeps its journal and versions of grams, in their order, and who refers to them', () => {
    const [earlier, later] = [
      migrationsOnDisk().filter(({ name }) => name < '022'),
      migrationsOnDisk().filter(({ name }) => name >= '022'),
    ]
    expect(later.length).toBeGreaterThan(0)
    const path = join(home, 'earlier.sqlite')
    const db = openDatabase(path, earlier)
    db.exec(
      `INSERT INTO builds VALUES ('b', 'B', '', 0, 3, 't', '', 'recreation', '[]', '[]', 0, 0.95, NULL, NULL, NULL, 's', NULL);
       INSERT INTO mass_versions VALUES ('b', 'v', 'l', 't', 'twin', 2.5, 1, 0.1, '[2.5]', 0.1, 0.2, 'as supplied', 'o', '{}', 7);
       INSERT INTO lines VALUES ('b', 'l', 0, 'strap', 'x', 1, 'v', NULL, NULL, 'fitted', 'airframe', 0, NULL, '', NULL,
                                 NULL, NULL, NULL, NULL, 0, '[]', NULL, '[]');
       INSERT INTO journal VALUES ('b', 1, 't1', 'do', NULL, 'first', 1, 2, 3, 4, 'why', 'taken back', '{}', 'k.1', 1, 'grams', 'maiden');
       INSERT INTO journal VALUES ('b', 2, 't2', 'undo', 1, 'second', NULL, NULL, 4, 3, '', 'in force', '{"a":1}', NULL, 1, 'aim', '');`,
    )
    const rows = (of: typeof db) =>
      ['journal', 'mass_versions', 'lines'].map(t => of.prepare(`SELECT * FROM ${t}`).all())
    const before = rows(db)
    db.close()
    const after = openDatabase(path, migrationsOnDisk())
    expect(rows(after)).toEqual(before)
    expect(() => after.exec(`UPDATE journal SET title = 'other'`)).toThrow('not rewritten')
    expect(() => after.exec(`DELETE FROM mass_versions`)).toThrow('FOREIGN KEY')
    after.exec(`DELETE FROM builds`)
    expect(rows(after)).toEqual([[], [], []])
    after.close()
  })
})

describe('writes that arrive together', () => {
  it('share a commit, and one that throws is rolled back alone', async () => {
    const db = openDatabase(':memory:', [])
    db.exec('CREATE TABLE t (a UNIQUE)')
    const writer = groupCommit(db, () => undefined)
    const insert = (a: number) => writer.write(() => db.prepare('INSERT INTO t VALUES (?)').run(a).changes)
    const results = await Promise.allSettled([insert(1), insert(1), insert(2)])
    expect(results.map(r => r.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
    expect(db.prepare('SELECT a FROM t ORDER BY a').pluck().all()).toEqual([1, 2])
  })
  it('are all refused when the commit itself fails, and what was held is forgotten', async () => {
    const db = openDatabase(':memory:', [])
    db.exec('CREATE TABLE p (id PRIMARY KEY); CREATE TABLE c (p REFERENCES p DEFERRABLE INITIALLY DEFERRED)')
    let forgotten = 0
    const writer = groupCommit(db, () => {
      forgotten++
    })
    const results = await Promise.allSettled([
      writer.write(() => db.exec('INSERT INTO p VALUES (1)')),
      writer.write(() => db.exec('INSERT INTO c VALUES (7)')),
    ])
    expect(results.map(r => r.status)).toEqual(['rejected', 'rejected'])
    expect(forgotten).toBe(1)
    expect(db.prepare('SELECT count(*) FROM p').pluck().get()).toBe(0)
    await expect(writer.write(() => db.exec('INSERT INTO p VALUES (2)'))).resolves.toBeDefined()
  })
})

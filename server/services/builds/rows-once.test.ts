import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { applyCommand, diffBuilds, isEmptyPatch, makeBuild, type Command } from '../../../core/changes/commands'
import { blankAim, makeLine, makeMass, type Build } from '../../../core/model/ledger'
import { applicationOnDisk } from '../../testing'

let together: ReturnType<typeof applicationOnDisk>
let oneByOne: ReturnType<typeof applicationOnDisk>
beforeAll(() => {
  together = applicationOnDisk()
  oneByOne = applicationOnDisk()
})
afterAll(() => {
  together.remove()
  oneByOne.remove()
})

const mass = (id: string, valueG: number) => makeMass({ versionId: id, evidence: 'weighed', valueG })
const line = (id: string, more: Partial<Build['lines'][number]> = {}) =>
  makeLine({ id, slot: 'other', name: `part ${id}`, mass: mass(`${id}-0`, 2), ...more })

let made = 0
const begun = (): Build =>
  makeBuild({
    id: `rows-${++made}`,
    name: 'Rows',
    craftClass: '',
    aim: blankAim(0.95),
    lines: [line('a'), line('b'), line('c', { state: 'off' }), line('d')],
    setups: [
      { id: 's', name: 'as built', lineIds: [] },
      { id: 't', name: 'light', lineIds: ['a'] },
    ],
  })

const ids = fc.constantFrom('a', 'b', 'c', 'd', 'x')
const step: fc.Arbitrary<Command> = fc.oneof(
  fc.record({ id: ids, version: fc.nat(5), valueG: fc.integer({ min: 1, max: 3 }) }).map(({ id, version, valueG }) => ({
    type: 'lines.change' as const,
    changes: [{ id, fields: { mass: mass(`${id}-${version}-${valueG}`, valueG) } }],
  })),
  fc.record({
    type: fc.constant('lines.change' as const),
    changes: fc.tuple(fc.record({ id: ids, fields: fc.record({ quantity: fc.integer({ min: 1, max: 3 }) }) })),
  }),
  fc.record({
    type: fc.constant('lines.move' as const),
    ids: fc.tuple(ids),
    beforeId: fc.constantFrom('a', 'd', null),
  }),
  fc.record({ type: fc.constant('lines.delete' as const), ids: fc.tuple(ids) }),
  fc.record({
    type: fc.constant('lines.add' as const),
    lines: fc.tuple(fc.constantFrom(line('x'), line('a'), line('b', { mass: null }))),
    beforeId: fc.constantFrom('c', null),
  }),
  fc.record({
    type: fc.constant('setup.put' as const),
    setup: fc.record({ id: fc.constantFrom('t', 'u'), name: fc.constantFrom('light', 'bare'), lineIds: fc.tuple(ids) }),
  }),
  fc.record({
    type: fc.constant('build.set' as const),
    fields: fc.record({ name: fc.constantFrom('Rows', 'Columns') }),
  }),
)

/** Those of the commands that do something, one after another. */
function taken(build: Build, commands: readonly Command[]): Command[] {
  let now = build
  return commands.filter(command => {
    try {
      const next = applyCommand(now, command)
      const changes = !isEmptyPatch(diffBuilds(now, next))
      now = next
      return changes
    } catch {
      return false
    }
  })
}

/** What the database holds of a build, in its order, without what tells the hour, the request and gaps in the order. */
const rowsOf = (disk: ReturnType<typeof applicationOnDisk>, id: string) =>
  JSON.parse(
    JSON.stringify(disk.app.builds.rawRows(id), (key, value: unknown) =>
      ['at', 'made_at', 'created_at', 'key', 'vintage', 'position'].includes(key) ? undefined : value,
    ),
  ) as Record<string, unknown[]>

/** What is held of it in memory. */
function held(disk: ReturnType<typeof applicationOnDisk>, id: string) {
  const { build, revision, steps } = disk.app.builds.read(id)
  return { build, revision, steps }
}

describe('the rows of a build, written once a request', () => {
  it('are those of the same changes made one by one, to be read again and taken back alike', async () => {
    const hits = { several: 0, deleted: 0, again: 0, moved: 0, sameLine: 0 }
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 10 }), async steps => {
        const build = begun()
        const commands = taken(build, steps)
        if (commands.length === 0) return
        await together.app.builds.insert(build, [], [])
        await oneByOne.app.builds.insert(build, [], [])
        await together.app.builds.commands(
          build.id,
          1,
          commands.map(command => ({ command, note: '' })),
        )
        for (const [n, command] of commands.entries()) await oneByOne.app.builds.command(build.id, n + 1, command, '')
        expect(rowsOf(together, build.id)).toEqual(rowsOf(oneByOne, build.id))
        expect(held(together, build.id)).toEqual(held(oneByOne, build.id))
        for (let n = commands.length; n > 0; n--)
          await together.app.builds.undo(build.id, together.app.builds.read(build.id).revision)
        expect(together.app.builds.read(build.id).build).toEqual(build)
        const kinds = commands.map(({ type }) => type)
        const weighed = commands.flatMap(one => (one.type === 'lines.change' ? one.changes.map(({ id }) => id) : []))
        if (commands.length > 1) hits.several++
        if (kinds.includes('lines.delete')) hits.deleted++
        if (kinds.includes('lines.delete') && kinds.lastIndexOf('lines.add') > kinds.indexOf('lines.delete'))
          hits.again++
        if (kinds.includes('lines.move')) hits.moved++
        if (new Set(weighed).size < weighed.length) hits.sameLine++
      }),
      { numRuns: 400 },
    )
    expect(hits.several).toBeGreaterThan(150)
    expect(Math.min(hits.deleted, hits.again, hits.moved, hits.sameLine)).toBeGreaterThan(8)
  })
  it('are as before where one change of several is refused, and what is held is what lies there', async () => {
    const build = begun()
    await together.app.builds.insert(build, [], [])
    const before = rowsOf(together, build.id)
    const commands: Command[] = [
      { type: 'lines.change', changes: [{ id: 'a', fields: { mass: mass('a-new', 3) } }] },
      { type: 'lines.delete', ids: ['nobody'] },
    ]
    const asked = together.app.builds.commands(
      build.id,
      1,
      commands.map(command => ({ command, note: '' })),
    )
    await expect(asked).rejects.toThrow()
    expect(rowsOf(together, build.id)).toEqual(before)
    expect(together.app.builds.read(build.id)).toMatchObject({ build, revision: 1 })
  })
})

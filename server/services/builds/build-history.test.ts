import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { applyPatch, makeBuild, topicOf, type Command } from '../../../core/changes/commands'
import { weightThen } from '../../../core/comparing/history'
import { ListingBiasTable, listingObservations } from '../../../core/mass/listings'
import { makeLine, makeMass, type Build } from '../../../core/model/ledger'
import { applicationOnDisk, demoFile } from '../../testing'
import { saidAt, saidOverTime } from './listing-history'

let disk: ReturnType<typeof applicationOnDisk>
beforeAll(() => {
  disk = applicationOnDisk()
})
afterAll(() => {
  disk.app.close()
  disk.remove()
})
const services = () => disk.app.builds
const revision = (id: string) => services().read(id).revision
let made = 0
const fresh = (kind: string) => `${kind}${made++}`
const mass = (valueG: number, evidence: 'weighed' | 'listed' | 'guess') =>
  makeMass({ versionId: fresh('v'), evidence, valueG, basis: 'as supplied' })

const listed = (id: string, slot: 'motor' | 'frame' | 'camera', valueG: number) =>
  makeLine({ id, slot, name: id, mass: mass(valueG, 'listed'), listing: { valueG, resolutionG: 0.1 } })
const craft = (id: string): Build =>
  makeBuild({
    id,
    name: id,
    lines: [
      listed('frame', 'frame', 40),
      listed('motor', 'motor', 30),
      listed('camera', 'camera', 12),
      makeLine({ id: 'pack', slot: 'pack', name: 'pack', mass: mass(80, 'guess') }),
    ],
    setups: [{ id: 'as', name: 'as built', lineIds: [] }],
    flies: { setupId: 'as', packLineId: 'pack' },
  })

/** One thing somebody does to one of two builds. */
type Deed = { readonly on: 0 | 1 } & (
  | { readonly does: 'weigh' | 'guess'; readonly line: string; readonly grams: number }
  | { readonly does: 'add' | 'take off' | 'move' | 'rename' | 'undo' | 'redo' | 'together' }
)
const line = fc.constantFrom('frame', 'motor', 'camera', 'pack')
const on = fc.constantFrom(0, 1) as fc.Arbitrary<0 | 1>
const deed: fc.Arbitrary<Deed> = fc.oneof(
  fc.record({
    on,
    does: fc.constantFrom('weigh' as const, 'guess' as const),
    line,
    grams: fc.integer({ min: 2000, max: 4000 }).map(n => n / 100),
  }),
  fc.record({
    on,
    does: fc.constantFrom(
      'add' as const,
      'take off' as const,
      'move' as const,
      'rename' as const,
      'undo' as const,
      'redo' as const,
      'together' as const,
    ),
  }),
)

function commandOf(build: Build, what: Deed): Command | null {
  const first = build.lines[0]
  switch (what.does) {
    case 'weigh':
    case 'guess':
      return build.lines.some(({ id }) => id === what.line)
        ? {
            type: 'lines.change',
            changes: [
              { id: what.line, fields: { mass: mass(what.grams, what.does === 'weigh' ? 'weighed' : 'guess') } },
            ],
          }
        : null
    case 'add':
      return { type: 'lines.add', lines: [listed(fresh('l'), 'camera', 9)], beforeId: first?.id ?? null }
    case 'take off':
      return first ? { type: 'lines.change', changes: [{ id: first.id, fields: { state: 'off' } }] } : null
    case 'move':
      return build.lines.length > 1
        ? { type: 'lines.move', ids: [build.lines.at(-1)!.id], beforeId: build.lines[0]!.id }
        : null
    case 'rename':
      return { type: 'build.set', fields: { name: fresh('craft ') } }
    case 'together':
      return {
        type: 'observation.put',
        observation: {
          id: fresh('o'),
          title: 'all on the pan',
          takenAt: new Date().toISOString(),
          scaleId: 's',
          scaleName: 'pocket scale',
          checkId: null,
          displaysG: [150],
          tareDisplayG: null,
          valueG: 150,
          contributions: { 'display o': 0.05 },
          pictureIds: [],
          subjects: build.lines
            .filter(({ state }) => state === 'fitted')
            .map(({ id, slot, quantity, mass: known, edition }) => ({ id, slot, quantity, mass: known, edition })),
          state: 'taken in',
        },
      }
    default:
      return null
  }
}

async function carryOut(id: string, what: Deed): Promise<boolean> {
  const { build, steps } = services().read(id)
  if (what.does === 'undo' || what.does === 'redo') {
    if (steps[what.does] === null) return false
    await services()[what.does](id, revision(id))
    return true
  }
  const command = commandOf(build, what)
  if (!command) return false
  return (await services().command(id, revision(id), command, '')).entry !== null
}

interface Seen {
  readonly build: Build
  readonly massG: number
  readonly at: string
}
/** Does them all; what each build was after each entry, by the number of the entry, as it was shown then. */
async function lived(ids: readonly [string, string], deeds: readonly Deed[]): Promise<Map<number, Seen>[]> {
  const seen = ids.map(() => new Map<number, Seen>())
  for (const what of deeds) {
    const id = ids[what.on]
    if (!(await carryOut(id, what))) continue
    const [entry] = services().journal(id).entries
    const { build } = services().read(id)
    seen[what.on]!.set(entry!.seq, { build, massG: weightThen(build, services().honesty()).massG, at: entry!.at })
  }
  return seen
}

describe('a build on any day', () => {
  it('is what it was after each entry, and weighs what was shown then, whatever was done, taken back and done again', async () => {
    const hits = { states: 0, undone: 0, weighed: 0, elsewhere: 0 }
    await fc.assert(
      fc.asyncProperty(fc.array(deed, { minLength: 1, maxLength: 12 }), async deeds => {
        const ids = [fresh('b'), fresh('b')] as const
        const began = ids.map(craft)
        for (const build of began) await services().insert(build, [], [])
        const seen = await lived(ids, deeds)
        for (const [i, id] of ids.entries()) {
          expect((await services().stateAt(id, 0)).build).toEqual(began[i])
          let rebuilt = began[i]!
          const records = new Map([...services().wholeOf(id).journal].map(record => [record.seq, record]))
          for (const [seq, { build, massG, at }] of seen[i]!) {
            const record = records.get(seq)!
            rebuilt = applyPatch(rebuilt, record.patch, record.kind === 'undo' ? 'backwards' : 'forwards')
            const then = await services().stateAt(id, seq)
            expect(then.build).toEqual(rebuilt)
            expect(then.build).toEqual(build)
            const honesty = new ListingBiasTable([...then.honestyElsewhere, ...listingObservations(build.lines)])
            // Two entries of one millisecond cannot be told apart by the clock.
            const other = [...seen[1 - i]!.values()].filter(one => one.at === at)
            if (other.length === 0) expect(weightThen(then.build, honesty).massG).toBeCloseTo(massG, 9)
            hits.states++
            if (record.kind !== 'do') hits.undone++
            if (build.observations.length > 0) hits.weighed++
            if (then.honestyElsewhere.length > 0 && other.length === 0) hits.elsewhere++
          }
        }
        for (const id of ids) {
          await services().rescue(id, 'put away')
          await services().remove(id)
        }
      }),
      { numRuns: 1000 },
    )
    expect(hits.states).toBeGreaterThan(4000)
    expect(Math.min(hits.undone, hits.weighed, hits.elsewhere)).toBeGreaterThan(100)
  }, 240_000)

  it('is no day at all where there is no such entry', async () => {
    await expect(services().stateAt('nobody', 0)).rejects.toMatchObject({ code: 'not-found' })
    await services().insert(craft('lone'), [], [])
    await expect(services().stateAt('lone', 5)).rejects.toThrow('no such entry')
  })

  it('of a long journal is found from any end, and its weights are drawn at not too many moments', async () => {
    await services().insert(craft('long'), [], [])
    const names: string[] = []
    for (let n = 0; n < 300; n++) {
      names.push(`n${n}`)
      await services().command('long', revision('long'), { type: 'build.set', fields: { name: `n${n}` } }, '')
    }
    for (const seq of [150, 1, 300, 149, 65, 64, 63]) {
      expect((await services().stateAt('long', seq)).build.name).toBe(names[seq - 1])
      // What is written meanwhile moves nothing of what was.
      await services().command('long', revision('long'), { type: 'build.set', fields: { name: `after ${seq}` } }, '')
    }
    const weights = await services().weights('long')
    expect(weights.length).toBeLessThanOrEqual(200)
    expect([weights[0]!.seq, weights.at(-1)!.seq]).toEqual([0, 307])
  })
})

describe('going back', () => {
  it('is one entry that can be taken back; the whole, or one line', async () => {
    const id = await disk.app.files.importBuild(demoFile('nougat'))
    const { entries } = services().journal(id)
    const middle = entries[Math.floor(entries.length / 2)]!.seq
    const now = services().read(id).build
    const { build: then } = await services().stateAt(id, middle)
    expect(then).not.toEqual(now)
    const reply = await services().goBack(id, revision(id), middle, null, 'k.1')
    expect(reply.entry?.title).toMatch(/^Went back to what it was after “/)
    expect(services().read(id).build).toEqual(then)
    expect(await services().goBack(id, revision(id) - 1, middle, null, 'k.1')).toEqual(reply)
    await services().undo(id, revision(id))
    expect(services().read(id).build).toEqual(now)
    const other = disk.again()
    expect(other.builds.read(id).build).toEqual(now)
    other.close()

    const changed = then.lines.find(line => now.lines.some(one => one.id === line.id && one.mass !== line.mass))!
    await services().goBack(id, revision(id), middle, [changed.id], null)
    const after = services().read(id).build
    expect(after.lines.find(({ id: one }) => one === changed.id)).toEqual(changed)
    expect(after.lines.filter(({ id: one }) => one !== changed.id)).toEqual(
      now.lines.filter(({ id: one }) => one !== changed.id),
    )
    await expect(services().goBack(id, revision(id), middle, ['ghost'], null)).rejects.toThrow('not in this build then')
    await expect(services().goBack(id, 1, middle, null, null)).rejects.toMatchObject({ code: 'stale' })
  })

  it('a new build can be begun from a day', async () => {
    await services().insert(craft('old'), [], [])
    await services().command('old', revision('old'), { type: 'lines.move', ids: ['pack'], beforeId: 'frame' }, '')
    const id = await disk.app.newBuilds.start({ from: 'copy', name: 'as it began', buildId: 'old', seq: 0 })
    expect(
      services()
        .read(id)
        .build.lines.map(({ name }) => name),
    ).toEqual(['frame', 'motor', 'camera', 'pack'])
  })
})

describe('reading the journal', () => {
  it('by kind, by words, by marks; each entry is of the kind its change says', async () => {
    const id = await disk.app.files.importBuild(demoFile('nougat'))
    const all = services().journal(id).entries
    const records = [...services().wholeOf(id).journal]
    expect(all.map(({ topic }) => topic)).toEqual(records.map(record => topicOf(record, record.patch)).reverse())
    const grams = services().journal(id, { before: Infinity, topic: 'grams' }).entries
    expect(grams).toEqual(all.filter(({ topic }) => topic === 'grams'))
    expect(grams.length).toBeGreaterThan(0)
    expect(new Set(all.map(({ topic }) => topic)).size).toBeGreaterThan(2)
    const word = all[0]!.title.split(' ').at(-1)!.toUpperCase()
    const found = services().journal(id, { before: Infinity, words: word }).entries
    expect(found[0]).toEqual(all[0])
    expect(found.length).toBeLessThan(all.length)
    await services().mark(id, all[2]!.seq, 'before the ridge')
    expect(services().marks(id).entries).toMatchObject([
      { mark: 'maiden' },
      { seq: all[2]!.seq, mark: 'before the ridge' },
    ])
    expect(services().journal(id, { before: Infinity, words: 'THE RIDGE' }).entries).toMatchObject([
      { mark: 'before the ridge' },
    ])
    const again = await disk.app.files.importBuild(disk.app.files.exportBuild(id))
    expect(services().marks(again).entries).toMatchObject([{ mark: 'maiden' }, { mark: 'before the ridge' }])
    await services().mark(id, all[2]!.seq, '')
    expect(services().marks(id).entries).toMatchObject([{ mark: 'maiden' }])
    await expect(services().mark(id, 9999, 'x')).rejects.toThrow('no such journal entry')
  })
})

describe('what a build said of listings over time', () => {
  it('holds from each entry on that touched a line with a listing', () => {
    const [then, now] = [listed('motor', 'motor', 30), listed('motor', 'motor', 30)].map((one, i) => ({
      ...one,
      mass: mass(30 + i, i === 0 ? 'listed' : 'weighed'),
    })) as [ReturnType<typeof listed>, ReturnType<typeof listed>]
    const patch = { head: null, setups: null, order: null, lines: [{ before: then, after: now }] }
    const said = saidOverTime([now], [{ at: '2026-05-02T00:00:00.000Z', kind: 'do', patch }])
    expect(saidAt(said, '2026-05-01T00:00:00.000Z')).toEqual([])
    expect(saidAt(said, '2026-05-02T00:00:00.000Z')).toEqual(listingObservations([now]))
    expect(listingObservations([now])).toHaveLength(1)
  })
})

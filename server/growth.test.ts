import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { makeBuild } from '../core/changes/commands'
import { makeLine, makeMass, type Build } from '../core/model/ledger'
import { makeShaving } from '../core/deciding/shave'
import { takeObservation, takeTogether, type ReadyScale } from '../core/deciding/weigh'
import { applicationOnDisk } from './testing'

const scale = { id: 'blue', resolutionG: 0.01, repeatabilityG: 0.008, capacityG: 500 }
const ready: ReadyScale = { scale, name: 'blue', check: null }
const taking = (id: string) => ({
  ready,
  tare: { id: `tare-${id}`, name: 'zero key', displayG: 0 },
  takenAt: '2026-11-20T18:00:00.000Z',
  id,
})

/** Forty lines, each weighed on a scale: their causes are most of what a weighing together carries. */
function fortyLines(): Build {
  const lines = Array.from({ length: 40 }, (_, i) => {
    const line = makeLine({
      id: `l${i}`,
      slot: 'other',
      name: `Part ${i}`,
      mass: makeMass({ versionId: `v${i}`, evidence: 'guess', valueG: 5 }),
    })
    return { ...line, mass: takeTogether(taking(`w${i}`), line, [5], 1, 'as fitted') }
  })
  return makeBuild({
    id: 'forty',
    name: 'Forty',
    lines,
    setups: [{ id: 's', name: 'as built', lineIds: [] }],
    flies: { setupId: 's', packLineId: null },
  })
}

describe('a build of forty lines grows in a straight line', () => {
  let disk: ReturnType<typeof applicationOnDisk>
  beforeEach(async () => {
    disk = applicationOnDisk()
    await disk.app.builds.insert(fortyLines(), [], [])
  })
  afterEach(() => {
    disk.app.close()
    disk.remove()
  })
  const journalBytes = () =>
    [...disk.app.builds.wholeOf('forty').journal].reduce((sum, entry) => sum + JSON.stringify(entry.patch).length, 0)
  const fileBytes = () => disk.app.files.exportBuild('forty').length
  const run = async (command: Parameters<typeof disk.app.builds.command>[2]) => {
    await disk.app.builds.command('forty', disk.app.builds.read('forty').revision, command, '')
  }
  /** Sizes after each of the counts, and how much each stretch added an item. */
  async function sizesAt(counts: readonly number[], step: (n: number) => Promise<void>) {
    const sizes: { journal: number; file: number }[] = [{ journal: journalBytes(), file: fileBytes() }]
    let n = 0
    for (const count of counts) {
      while (n < count) await step(n++)
      sizes.push({ journal: journalBytes(), file: fileBytes() })
    }
    const each = (key: 'journal' | 'file') =>
      sizes.slice(1).map((size, i) => (size[key] - sizes[i]![key]) / (counts[i]! - (counts[i - 1] ?? 0)))
    return { journal: each('journal'), file: each('file') }
  }

  it('with 200 weighings of the whole aircraft, and its file comes in again', async () => {
    const { lines } = disk.app.builds.read('forty').build
    const { journal, file } = await sizesAt([50, 100, 200], n =>
      run({
        type: 'observation.put',
        observation: takeObservation(taking(`o${n}`), `whole ${n}`, lines, [200.01], 'held'),
      }),
    )
    for (const each of [journal, file]) {
      expect(each[1]! / each[0]!).toBeCloseTo(1, 1)
      expect(each[2]! / each[1]!).toBeCloseTo(1, 1)
    }
    const text = disk.app.files.exportBuild('forty')
    const beside = applicationOnDisk()
    const id = await beside.app.files.importBuild(text)
    expect(beside.app.files.exportBuild(id)).toBe(text)
    beside.app.close()
    beside.remove()
  }, 120_000)
  it('with 2000 edits of names and grams, and its file comes in again', async () => {
    const { journal, file } = await sizesAt([500, 1000, 2000], n => {
      const fields =
        n % 2 === 0
          ? { name: `Part ${n}` }
          : { mass: makeMass({ versionId: `e${n}`, evidence: 'guess', valueG: 1 + (n % 700) / 100 }) }
      return run({ type: 'lines.change', changes: [{ id: `l${n % 40}`, fields }] })
    })
    for (const each of [journal, file]) expect(each[2]! / each[0]!).toBeCloseTo(1, 1)
    // An entry holds the name or the grams before and after, not the line around them.
    expect(Math.max(...journal)).toBeLessThan(450)
    const text = disk.app.files.exportBuild('forty')
    const beside = applicationOnDisk()
    expect(beside.app.files.exportBuild(await beside.app.files.importBuild(text))).toBe(text)
    beside.app.close()
    beside.remove()
  }, 120_000)
  it('with 200 weighings of one line, 200 shavings and the renaming of a line that has them', async () => {
    const { journal } = await sizesAt([50, 100, 200], async n => {
      const line = disk.app.builds.read('forty').build.lines[0]!
      await run({
        type: 'line.weigh',
        id: 'l0',
        mass: takeTogether(taking(`f${n}`), line, [5.01], 1, 'as fitted'),
        as: 'further',
      })
      await run({
        type: 'shaving.put',
        shaving: makeShaving({ id: `s${n}`, what: `step ${n}`, kind: 'other', gramsG: 0.1 }),
      })
      await run({ type: 'lines.change', changes: [{ id: 'l0', fields: { name: `Part ${n}` } }] })
    })
    expect(journal[1]! / journal[0]!).toBeCloseTo(1, 1)
    expect(journal[2]! / journal[1]!).toBeCloseTo(1, 1)
    expect(disk.app.builds.read('forty').build.lines[0]!.further).toHaveLength(200)
    while (disk.app.builds.read('forty').steps.undo)
      await disk.app.builds.undo('forty', disk.app.builds.read('forty').revision)
    expect(disk.app.builds.read('forty').build).toEqual(fortyLines())
  }, 120_000)
})

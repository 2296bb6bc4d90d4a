import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { makeBuild } from '../../core/changes/commands'
import { makeLine, makeMass, type Line, type Slot } from '../../core/model/ledger'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const weighed = (id: string, slot: Slot, valueG: number): Line =>
  makeLine({
    id,
    slot,
    name: id,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG, ownSpreadG: 0.02 }),
  })

/** A 65 mm craft whose parts were weighed one by one, and then the whole of it dry. */
async function finish(id: string, wholeG: number) {
  const lines = [weighed(`${id}-f`, 'frame', 8), weighed(`${id}-m`, 'motor', 8), weighed(`${id}-s`, 'other', 0.3)]
  const setups = [{ id: `${id}-as`, name: 'as built', lineIds: [] }]
  const build = makeBuild({ id, name: id, craftClass: '65 mm ducted', lines, setups })
  await disk.app.builds.insert(build, [], [])
  const observation = {
    ...{ id: `${id}-o`, title: 'dry', takenAt: '2026-11-01T10:00:00.000Z', scaleId: 's', scaleName: 'pocket scale' },
    ...{ checkId: null, displaysG: [wholeG], tareDisplayG: null, valueG: wholeG, contributions: { own: 0.01 } },
    pictureIds: [],
    subjects: lines.map(({ id: line, slot, quantity, mass, edition }) => ({ id: line, slot, quantity, mass, edition })),
    state: 'taken in' as const,
  }
  const { revision } = disk.app.builds.read(id)
  await disk.app.builds.command(id, revision, { type: 'observation.put', observation }, '')
}
const sundriesOf = (id: string) => disk.app.builds.read(id).build.lines.filter(({ slot }) => slot === 'other')
const start = () => disk.app.newBuilds.start({ from: 'class', name: 'next', craftClass: '65 mm ducted' })

describe('what finished builds teach', () => {
  it('nothing yet: a new plan has what its class has, and the page says on what it rests', async () => {
    await disk.app.files.importBuild(demoFile('nougat'))
    const id = await start()
    expect(sundriesOf(id).length).toBeGreaterThan(1)
    const told = disk.app.outcomes.all().builds
    expect(told.find(({ name }) => name === 'Nougat')).toMatchObject({ outcome: null, learnt: { builds: 0 } })
    expect(told.find(({ name }) => name === 'Nougat')!.lines).toHaveLength(18)
  })
  it('from the first one on: one line in a new plan, between its class and what was found; nothing for the build itself', async () => {
    await finish('one', 17)
    const { outcome, learnt } = disk.app.outcomes.all().builds[0]!
    // 17 g less frame and motors.
    expect(outcome!.share).toBeCloseTo(1 / 17, 9)
    expect(outcome!.teaches).toBe(true)
    expect(learnt.builds).toBe(0)
    const before = disk.app.outcomes.learntFor('65 mm ducted', 'one')
    const after = disk.app.outcomes.learntFor('65 mm ducted', null)
    expect(after.builds).toBe(1)
    expect(after.mu).toBeGreaterThan(before.mu)
    expect(after.mu).toBeLessThan(1 / 17)
    const [line, ...more] = sundriesOf(await start())
    expect(more).toEqual([])
    expect(line!.mass).toMatchObject({ evidence: 'typical', origin: 'learnt from one finished build' })
    await finish('two', 17.1)
    expect(sundriesOf(await start())[0]!.mass!.origin).toBe('learnt from 2 finished builds')
  })
})

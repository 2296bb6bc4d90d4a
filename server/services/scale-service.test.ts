import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { CoreInputError } from '../../core/basics/errors'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const pocket = { name: 'blue', resolutionG: 0.01, capacityG: 200, repeatabilityG: null, checkIntervalDays: 30 }
const brass = { id: 'brass', massG: 100, toleranceG: 0.02 }
const good = [
  { references: [], displayG: 0 },
  { references: [brass], displayG: 100.2 },
]
const at = '2026-11-02T18:00:00.000Z'

describe('scales, references, checks and trays', () => {
  it('are kept across a restart, and changed in place', () => {
    const { scales } = disk.app
    scales.putScale('blue', pocket)
    scales.putReference('brass', { name: 'brass 100 g', massG: 100, toleranceG: 0.02, coin: false })
    scales.addCheck('c1', 'blue', at, good)
    scales.addTare({ id: 't1', name: 'small tray', scaleId: 'blue', displayG: 5.01, takenAt: at })
    scales.putScale('blue', { ...pocket, name: 'blue pocket scale', repeatabilityG: 0.008 })
    const kept = scales.all()
    expect(kept.scales).toEqual([{ id: 'blue', ...pocket, name: 'blue pocket scale', repeatabilityG: 0.008 }])
    const again = disk.again()
    expect(again.scales.all()).toEqual(kept)
    again.close()
  })
  it('a check that says nothing is refused by the core and leaves no row', () => {
    const { scales } = disk.app
    scales.putScale('blue', pocket)
    for (const placings of [
      [],
      [{ references: [], displayG: 0 }],
      [
        { references: [brass], displayG: 100 },
        { references: [brass], displayG: 100 },
      ],
      [
        { references: [], displayG: 0 },
        { references: [{ ...brass, massG: 900 }], displayG: 900 },
      ],
      [
        { references: [], displayG: 0 },
        { references: [brass], displayG: -100 },
      ],
    ]) {
      expect(() => scales.addCheck('c', 'blue', at, placings)).toThrow(CoreInputError)
    }
    expect(scales.all().checks).toEqual([])
  })
  it('a scale with checks stays, one without goes with its trays, and what is not there is said', () => {
    const { scales } = disk.app
    scales.putScale('blue', pocket)
    scales.putScale('red', { ...pocket, name: 'red' })
    scales.addTare({ id: 't', name: 'tray', scaleId: 'red', displayG: 1, takenAt: at })
    scales.addCheck('c1', 'blue', at, good)
    expect(() => scales.removeScale('blue')).toThrow('it stays')
    scales.removeScale('red')
    expect(scales.all()).toMatchObject({ scales: [{ id: 'blue' }], tares: [] })
    expect(() => scales.removeScale('red')).toThrow('no such scale')
    expect(() => scales.removeReference('gone')).toThrow('no such reference')
    expect(() => scales.removeTare('gone')).toThrow('no such tray')
    expect(() => scales.addCheck('c2', 'nobody', at, good)).toThrow('no such scale')
    expect(() => scales.addCheck('c1', 'blue', at, good)).toThrow('kept already')
  })
})

describe('following a build', () => {
  it('tells of every change once it is on disk, of undo too, and of nothing after it stopped', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const heard: number[] = []
    const stop = disk.app.builds.follow(id, revision => heard.push(revision))
    const seen = disk.app.builds.read(id).revision
    await disk.app.builds.command(id, seen, { type: 'build.set', fields: { name: 'Marzipan again' } }, '')
    await expect(
      disk.app.builds.command(id, seen, { type: 'build.set', fields: { name: 'late' } }, ''),
    ).rejects.toMatchObject({ code: 'stale' })
    await disk.app.builds.undo(id, seen + 1)
    stop()
    await disk.app.builds.redo(id, seen + 2)
    expect(heard).toEqual([seen + 1, seen + 2])
  })
  it('gives the history of a line, oldest first', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    expect(disk.app.builds.lineHistory(id, 'frame').map(v => v.mass.evidence)).toEqual(['listed', 'weighed'])
    expect(disk.app.builds.lineHistory(id, 'nobody')).toEqual([])
  })
})

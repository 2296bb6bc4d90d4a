import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { blankAim } from '../../core/ledger'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => { disk = applicationOnDisk() })
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const demo = ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle']

describe('build files', () => {
  it.each(demo)('%s comes in and goes out the same to the last byte', async (name) => {
    const id = await disk.app.files.importBuild(demoFile(name))
    expect(disk.app.files.exportBuild(id)).toBe(demoFile(name))
  })
  it('stay whole through a second export and import beside the first', async () => {
    const first = await disk.app.files.importBuild(demoFile('marzipan'))
    const second = await disk.app.files.importBuild(disk.app.files.exportBuild(first))
    expect(second).not.toBe(first)
    const { id: _a, ...one } = disk.app.builds.read(first).build
    const { id: _b, ...other } = disk.app.builds.read(second).build
    expect(other).toEqual(one)
    expect(disk.app.builds.journal(second).entries).toEqual(disk.app.builds.journal(first).entries)
  })
  it('bring the own cards they chose, once', async () => {
    await disk.app.files.importBuild(demoFile('sherbet'))
    await disk.app.files.importBuild(demoFile('sherbet'))
    expect(disk.app.rules.cards().filter(card => card.own).map(card => card.id)).toEqual(['tram-shed-30'])
  })
  it.each([
    ['no JSON', () => '{"format":', 'cannot be read as JSON'],
    ['something else', () => '{"hello": 1}', 'does not say so'],
    ['a newer version', () => demoFile('sherbet').replace('"version": 2', '"version": 99'), 'version 99'],
    ['a negative mass', () => demoFile('sherbet').replace('"valueG": 3.42', '"valueG": -3.42'), 'cannot be negative'],
    ['a quantity of 2.5', () => demoFile('sherbet').replace('"quantity": 4', '"quantity": 2.5'), 'whole number'],
    ['a name that is markup', () => demoFile('sherbet').replace('"Clear canopy, 22° tilt"', '"<script>alert(1)</script>"'), '“<…>”'],
    ['a name that is a formula', () => demoFile('sherbet').replace('"Clear canopy, 22° tilt"', '"=HYPERLINK(1)"'), 'formula'],
    ['a line twice', () => demoFile('sherbet').replaceAll('"id": "canopy"', '"id": "frame"'), 'same id'],
    ['a field nobody knows', () => demoFile('sherbet').replace('"archived": false', '"archived": false, "colour": "red"'), 'colour'],
  ])('with %s are refused in a sentence and change nothing', async (_what, text, sentence) => {
    await expect(disk.app.files.importBuild(text())).rejects.toThrow(sentence)
    expect(disk.app.builds.shelf()).toEqual([])
  })
})

describe('the demo', () => {
  it('has the verdicts its stories ask for', async () => {
    for (const name of demo) await disk.app.files.importBuild(demoFile(name))
    const words = Object.fromEntries(disk.app.builds.shelf().map(entry => [entry.name, entry.word]))
    expect(words).toEqual({ Sherbet: 'Clear', Praline: 'Clear', Marzipan: 'Too close to call', Nougat: 'Over', Treacle: 'Too close to call' })
    const sherbet = disk.app.builds.shelf().find(entry => entry.name === 'Sherbet')!
    expect(sherbet.weighedLines).toBe(sherbet.lines)
    expect(sherbet.dryG).toBeLessThan(20.5)
    const packs = disk.app.builds.shelf().flatMap(entry => disk.app.builds.read(entry.id).build.lines.filter(line => line.slot === 'pack'))
    expect(packs).toHaveLength(9)
    const praline = disk.app.builds.report('praline').rows.filter(row => row.loadout.startsWith('bumpers ·')).map(row => row.cards[0]!.verdict)
    expect(praline).toEqual(['Clear', 'Clear', 'Over'])
  })
})

describe('other files', () => {
  it('the build sheet shows the total, each card and no raw markup', async () => {
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const sheet = disk.app.files.sheet(id)
    expect(sheet).toContain('**248.2 g ± 2.3** all-up (day, navigation · P7)')
    expect(sheet).toContain('**Too close to call**')
    expect(sheet).toContain('not legal advice')
  })
  it('a new build starts from a class, a copy or as a reference craft', async () => {
    const id = await disk.app.newBuilds.start({ from: 'class', name: 'Plan', craftClass: '3-inch ultralight' })
    expect(disk.app.builds.read(id).build.aim).toEqual(blankAim())
    const copy = await disk.app.newBuilds.start({ from: 'copy', name: 'Plan two', buildId: id })
    expect(disk.app.builds.read(copy).build.lines).toEqual(disk.app.builds.read(id).build.lines)
    await disk.app.newBuilds.start({ from: 'reference', name: 'Old one', reference: { massG: 244, spreadG: 1, thrustG: 900, priceCents: null, minutes: 6 } })
    expect(disk.app.builds.shelf().map(e => e.reference?.massG ?? Math.round(e.massG))).toEqual([192, 192, 244])
    await expect(disk.app.newBuilds.start({ from: 'class', name: 'X', craftClass: 'submarine' })).rejects.toThrow('no such craft class')
  })
})

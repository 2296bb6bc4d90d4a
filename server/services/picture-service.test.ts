import { readdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import sharp from 'sharp'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { makePart } from '../../core/parts/drawer'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
let nougat: string
beforeEach(async () => {
  disk = applicationOnDisk()
  nougat = await disk.app.files.importBuild(demoFile('nougat'))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const keep = async () =>
  disk.app.pictures.keep(
    await sharp({ create: { width: 40, height: 30, channels: 3, background: '#7a4' } })
      .png()
      .toBuffer(),
  )
const onDisk = () => readdirSync(join(dirname(disk.path), 'pictures/parts')).sort()
const revision = () => disk.app.builds.read(nougat).revision
const showing = (pictureIds: string[]) =>
  disk.app.builds.command(
    nougat,
    revision(),
    { type: 'lines.change', changes: [{ id: 'strap', fields: { pictureIds } }] },
    '',
  )
const picturesOfStrap = () => disk.app.builds.read(nougat).build.lines.find(line => line.id === 'strap')?.pictureIds

describe('pictures of parts', () => {
  it('stand with the line, are told of, taken back and done again, and are there after a restart', async () => {
    const [one, two] = [await keep(), await keep()]
    await showing([one])
    await showing([one, two])
    await showing([two])
    expect(
      disk.app.builds
        .journal(nougat)
        .entries.slice(0, 3)
        .map(({ title }) => title),
    ).toEqual([
      'Rubberised strap, 180 mm: a picture taken out',
      'Rubberised strap, 180 mm: a picture added',
      'Rubberised strap, 180 mm: a picture added',
    ])
    await disk.app.builds.undo(nougat, revision())
    expect(picturesOfStrap()).toEqual([one, two])
    await disk.app.builds.redo(nougat, revision())
    const again = disk.again()
    expect(again.builds.read(nougat).build.lines.find(line => line.id === 'strap')?.pictureIds).toEqual([two])
    expect((await again.pictures.read(two)).length).toBeGreaterThan(100)
    again.close()
  })
  it('go along into the drawer, and to the line that is the part', async () => {
    const one = await keep()
    await showing([one])
    await disk.app.builds.handOver(nougat, revision(), { lineIds: ['strap'], to: { kind: 'drawer' } })
    expect(disk.app.parts.all().parts.map(part => [part.name, part.pictureIds])).toEqual([
      ['Rubberised strap, 180 mm', [one]],
    ])
    expect(picturesOfStrap()).toBeUndefined()
    await disk.app.builds.undo(nougat, revision())
    expect([disk.app.parts.all().parts, picturesOfStrap()]).toEqual([[], [one]])
  })
  it('are at most 8 of a part', async () => {
    await expect(showing(Array.from({ length: 9 }, (_, i) => `p${i}`))).rejects.toThrow(
      'A part keeps at most 8 pictures.',
    )
  })
  it('that nothing names any more go with a build that is deleted for good; those of the drawer stay', async () => {
    const [own, shared] = [await keep(), await keep()]
    await showing([own])
    await disk.app.parts.put([makePart({ id: 'pad', slot: 'pad', name: 'Pad', pictureIds: [shared] })])
    await disk.app.pictures.removeUnnamed([own, shared])
    expect(onDisk()).toEqual([`${own}.jpg`, `${shared}.jpg`].sort())
    await disk.app.builds.command(nougat, revision(), { type: 'build.set', fields: { archived: true } }, '')
    await disk.app.builds.remove(nougat)
    await disk.app.pictures.removeUnnamed([own, shared])
    expect(onDisk()).toEqual([`${shared}.jpg`])
  })
})

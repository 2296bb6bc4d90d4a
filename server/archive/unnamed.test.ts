import { existsSync, mkdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import sharp from 'sharp'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { makePart } from '../../core/parts/drawer'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
let folder: string
let nougat: string
beforeEach(async () => {
  disk = applicationOnDisk('jolly-gram.sqlite')
  folder = dirname(disk.path)
  nougat = await disk.app.files.importBuild(demoFile('nougat'))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
const longAgo = new Date('2026-01-01T10:00:00Z')
const aged = (name: string) => {
  utimesSync(join(folder, name), longAgo, longAgo)
  return name
}
const picture = () =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#7a4' } })
    .png()
    .toBuffer()
const keepPicture = async () => {
  const id = await disk.app.pictures.keep(await picture())
  aged(`pictures/parts/${id}.jpg`)
  return id
}
const command = (given: Parameters<typeof disk.app.builds.command>[2]) =>
  disk.app.builds.command(nougat, disk.app.builds.read(nougat).revision, given, '')
const unnamed = async () => (await disk.app.archive.unnamed()).map(({ name }) => name).sort()

describe('files that nothing names any more', () => {
  it('are told first, and cleared away when that is asked for; what is named anywhere stays', async () => {
    const [ofLine, ofPart, ofWeighing] = [await keepPicture(), await keepPicture(), await keepPicture()]
    const [ofCraft, ofNobody] = [await keepPicture(), await keepPicture()]
    await command({ type: 'lines.change', changes: [{ id: 'strap', fields: { pictureIds: [ofLine] } }] })
    await disk.app.parts.put([makePart({ id: 'pad', slot: 'pad', name: 'Pad', pictureIds: [ofPart] })])
    const { lines } = disk.app.builds.read(nougat).build
    const observation = {
      ...{ id: 'o', title: 'dry', takenAt: '2026-11-01T10:00:00.000Z', scaleId: 's', scaleName: 's', checkId: null },
      ...{ displaysG: [100], tareDisplayG: null, valueG: 100, contributions: {}, state: 'held' as const },
      subjects: lines
        .slice(0, 2)
        .map(({ id, slot, quantity, mass, edition }) => ({ id, slot, quantity, mass, edition })),
      pictureIds: [ofWeighing],
    }
    await command({ type: 'observation.put', observation })
    await disk.app.newBuilds.start({
      from: 'reference',
      name: 'Humbug',
      reference: {
        ...{ massG: 231.4, spreadG: 0.6, thrustG: null, priceCents: null, minutes: null, note: '' },
        pictureIds: [ofCraft],
      },
    })
    mkdirSync(join(folder, 'photos/long-gone'), { recursive: true })
    writeFileSync(join(folder, 'photos/long-gone/photo.jpg'), 'x')
    mkdirSync(join(folder, 'logs'), { recursive: true })
    writeFileSync(join(folder, 'logs/log-of-nobody.csv.gz'), 'x')
    const gone = [
      aged('photos/long-gone/photo.jpg'),
      aged('logs/log-of-nobody.csv.gz'),
      `pictures/parts/${ofNobody}.jpg`,
    ]
    expect(await unnamed()).toEqual([...gone].sort())
    expect(gone.every(name => existsSync(join(folder, name)))).toBe(true)
    expect((await disk.app.archive.clearUnnamed()).length).toBe(3)
    expect(gone.some(name => existsSync(join(folder, name)))).toBe(false)
    expect(await unnamed()).toEqual([])
    for (const id of [ofLine, ofPart, ofWeighing, ofCraft])
      expect(existsSync(join(folder, `pictures/parts/${id}.jpg`))).toBe(true)
  })
  it('stay while a change that names them can be taken back, and while they are young', async () => {
    const [taken, young] = [await keepPicture(), await disk.app.pictures.keep(await picture())]
    await command({ type: 'lines.change', changes: [{ id: 'strap', fields: { pictureIds: [taken] } }] })
    await command({ type: 'lines.change', changes: [{ id: 'strap', fields: { pictureIds: [] } }] })
    expect(await unnamed()).toEqual([])
    aged(`pictures/parts/${young}.jpg`)
    expect(await unnamed()).toEqual([`pictures/parts/${young}.jpg`])
  })
})

describe('a copy made by itself', () => {
  it('that could not be made is told until one was made', async () => {
    expect(disk.app.archive.lastFailure()).toBeNull()
    writeFileSync(join(folder, 'copies'), 'in the way')
    await disk.app.archive.makeCopyIfDue()
    expect(disk.app.archive.lastFailure()?.words).toMatch(/copies/)
    rmSync(join(folder, 'copies'))
    await disk.app.archive.makeCopyIfDue()
    expect(disk.app.archive.lastFailure()).toBeNull()
    expect(await disk.app.archive.copies()).toHaveLength(1)
  })
})

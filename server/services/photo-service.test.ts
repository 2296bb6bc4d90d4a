import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { afterAll, describe, expect, it } from 'vitest'
import { photoService } from './photo-service'

const folder = mkdtempSync(join(tmpdir(), 'photos-'))
afterAll(() => {
  rmSync(folder, { recursive: true })
})
let made = 0
const photos = photoService(folder, () => `photo-${++made}`)
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 4, background: { r: 120, g: 40, b: 60, alpha: 0.5 } } })

describe('photos of the assembly', () => {
  it('are made upright, no larger than needed, and without what the camera wrote', async () => {
    const lying = await picture(3000, 1000)
      .flatten()
      .withMetadata({ orientation: 6, exif: { IFD0: { Make: 'Somebody' } } })
      .jpeg()
      .toBuffer()
    const kept = await sharp(await photos.read('b', await photos.keep('b', lying))).metadata()
    expect(kept).toMatchObject({ format: 'jpeg', width: 667, height: 2000 })
    expect([kept.exif, kept.xmp, kept.icc]).toEqual([undefined, undefined, undefined])
    const small = await sharp(
      await photos.read('b', await photos.keep('b', await picture(40, 30).png().toBuffer())),
    ).metadata()
    expect(small).toMatchObject({ format: 'jpeg', width: 40, height: 30 })
  })
  it('that are none are refused and leave nothing behind', async () => {
    const before = readdirSync(join(folder, 'b'))
    const good = await picture(600, 400).png().toBuffer()
    for (const bytes of [
      Buffer.alloc(0),
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      Buffer.from('GIF89a'),
      good.subarray(0, 200),
    ]) {
      await expect(photos.keep('b', bytes)).rejects.toThrow(/picture/)
    }
    await expect(photos.read('b', 'nobody')).rejects.toThrow('not on this machine')
    expect(readdirSync(join(folder, 'b'))).toEqual(before)
  })
})

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { applicationOnDisk, demoFile } from './testing'

const largest = 400_000
vi.mock('../shared/files/largest', async original => ({
  ...(await original<object>()),
  mostFileBytes: 400_000,
}))

describe('a build whose history nears the largest file', () => {
  let disk: ReturnType<typeof applicationOnDisk>
  beforeEach(async () => {
    disk = applicationOnDisk()
    await disk.app.files.importBuild(demoFile('marzipan'))
  })
  afterEach(() => {
    disk.app.close()
    disk.remove()
  })
  const { read, rename, undo, text } = {
    read: () => disk.app.builds.read('marzipan'),
    rename: (n: number) =>
      disk.app.builds.command(
        'marzipan',
        read().revision,
        { type: 'build.set', fields: { name: `Marzipan ${n}` } },
        'é'.repeat(2000),
      ),
    undo: () => disk.app.builds.undo('marzipan', read().revision),
    text: () => disk.app.files.exportBuild('marzipan'),
  }
  /** Writes until nothing more is taken, and says what was said then. */
  async function fill(): Promise<{ written: number; said: string }> {
    for (let n = 0; ; n++) {
      try {
        await rename(n)
      } catch (error) {
        return { written: n, said: String(error) }
      }
    }
  }

  it('is told that no more can be kept, before anything of it cannot be brought in again', async () => {
    const { written, said } = await fill()
    expect(written).toBeGreaterThan(5)
    expect(said).toContain('The history of “Marzipan')
    expect(said).toContain('Nothing was written.')
    expect(read().build.name).toBe(`Marzipan ${written - 1}`)
    const whole = text()
    expect(Buffer.byteLength(whole)).toBeLessThanOrEqual(largest)
    expect(Buffer.byteLength(whole)).toBeGreaterThan(largest * 0.8)
    const beside = applicationOnDisk()
    expect(beside.app.files.exportBuild(await beside.app.files.importBuild(whole))).toBe(whole)
    beside.app.close()
    beside.remove()
  })
  it('can still take back what was done last, and can be copied to go on with', async () => {
    const { written } = await fill()
    await undo()
    expect(read().build.name).toBe(`Marzipan ${written - 2}`)
    expect(Buffer.byteLength(text())).toBeLessThanOrEqual(largest)
    const copy = await disk.app.newBuilds.start({ from: 'copy', name: 'Praline', buildId: 'marzipan' })
    await disk.app.builds.command(
      copy,
      disk.app.builds.read(copy).revision,
      { type: 'build.set', fields: { name: 'Nougat' } },
      '',
    )
    expect(disk.app.builds.read(copy).build.name).toBe('Nougat')
  })
  it('takes no longer notes in its journal either', async () => {
    const { written } = await fill()
    for (let n = 1; n < written; n++) await disk.app.builds.annotate('marzipan', n, '')
    const longer = async () => {
      for (let n = 1; ; n++) await disk.app.builds.annotate('marzipan', 1 + (n % written), 'ü'.repeat(2000))
    }
    await expect(longer()).rejects.toThrow('Nothing was written.')
    expect(Buffer.byteLength(text())).toBeLessThanOrEqual(largest)
  })
  it('reads its size anew before it refuses: what it counted on top is never held against it', async () => {
    const { written } = await fill()
    disk.app.close()
    disk.app = disk.again()
    await expect(rename(written)).rejects.toThrow('Nothing was written.')
  })
})

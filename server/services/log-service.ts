import { mkdir, readFile, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { DomainProblem } from '../problems'
import { writeForGood } from './write-for-good'

const gzipMagic = Buffer.from([0x1f, 0x8b])

/** Logs of flights, compressed by whoever brings them, as files beside the database. */
export function logService(folder: string, newId: () => string) {
  return {
    /** Keeps a compressed log; it is there, whole, after a power cut. */
    async keep(bytes: Buffer): Promise<string> {
      if (!bytes.subarray(0, 2).equals(gzipMagic))
        throw new DomainProblem('invalid', 'A log comes compressed. Nothing was kept.', 'log')
      const id = newId()
      await mkdir(folder, { recursive: true, mode: 0o700 })
      await writeForGood(folder, `${id}.csv.gz`, bytes)
      return id
    },
    /** Logs of a build that is deleted for good. */
    async remove(ids: readonly string[]): Promise<void> {
      for (const id of ids) await rm(join(folder, `${id}.csv.gz`), { force: true })
    },
    async read(id: string): Promise<Buffer> {
      return readFile(join(folder, `${id}.csv.gz`)).catch(() => {
        throw new DomainProblem('not-found', 'This log is not on this machine.')
      })
    },
  }
}

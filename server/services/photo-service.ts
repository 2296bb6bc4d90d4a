import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { DomainProblem } from '../problems'

/** The longest side a photo is kept at, pixels: a solder joint can be read, and a card of them stays small. */
const longestSide = 2000
/** More than any camera of a phone makes; a small file that claims more is a trap. */
const mostPixels = 120_000_000

const formats = ['jpeg', 'png', 'webp', 'heif', 'gif']
const notAPicture = () => new DomainProblem('invalid', 'This is not a picture that can be read: use JPEG, PNG, WebP or AVIF. Nothing was kept.', 'photo')

/**
 * Photos of the assembly, as files beside the database. Each is read, turned upright, made smaller and written anew as JPEG:
 * what is no picture is refused, and place, time and maker do not come along.
 */
export function photoService(folder: string, newId: () => string) {
  const pathOf = (buildId: string, id: string) => join(folder, buildId, `${id}.jpg`)
  return {
    async keep(buildId: string, bytes: Buffer): Promise<string> {
      if (bytes.length === 0) throw new DomainProblem('invalid', 'No photo came: choose a picture.', 'photo')
      const { default: sharp } = await import('sharp')
      const picture = sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error' })
      const { format } = await picture.metadata().catch(() => ({ format: undefined }))
      if (!format || !formats.includes(format)) throw notAPicture()
      const kept = await picture.rotate().resize(longestSide, longestSide, { fit: 'inside', withoutEnlargement: true }).flatten({ background: '#ffffff' }).jpeg({ quality: 82 }).toBuffer()
        .catch(() => { throw notAPicture() })
      const id = newId()
      await mkdir(join(folder, buildId), { recursive: true })
      const path = pathOf(buildId, id)
      await writeFile(`${path}.part`, kept)
      await rename(`${path}.part`, path)
      return id
    },
    async read(buildId: string, id: string): Promise<Buffer> {
      return readFile(pathOf(buildId, id)).catch(() => { throw new DomainProblem('not-found', 'This photo is not on this machine.') })
    },
  }
}

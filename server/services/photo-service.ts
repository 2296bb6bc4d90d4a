import { mkdir, readFile, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { DomainProblem } from '../problems'
import { writeForGood } from './write-for-good'

/** The longest side a photo is kept at, pixels: a solder joint can be read, and a card of them stays small. */
const longestSide = 2000
/** What a phone’s usual photo has at most. A small file that claims more is a trap, and is refused before it is unpacked. */
export const mostPixels = 52_000_000
/** So many photos may wait for their turn; each is held in memory meanwhile. */
const mostWaiting = 4

const formats = ['jpeg', 'png', 'webp', 'heif', 'gif']
const notAPicture = () =>
  new DomainProblem(
    'invalid',
    'This is not a picture that can be read: use JPEG, PNG, WebP or AVIF. Nothing was kept.',
    'photo',
  )
const tooManyPixels = () =>
  new DomainProblem(
    'invalid',
    `This picture has more than ${mostPixels / 1_000_000} million pixels. Take it smaller. Nothing was kept.`,
    'photo',
  )

/** A photo written anew: turned upright, made smaller, as JPEG, without place, time and maker. */
async function writtenAnew(bytes: Buffer): Promise<Buffer> {
  const { default: sharp } = await import('sharp')
  const picture = sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error' })
  const {
    format,
    width = 0,
    height = 0,
  } = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => {
      throw notAPicture()
    })
  if (!format || !formats.includes(format)) throw notAPicture()
  if (width * height > mostPixels) throw tooManyPixels()
  return picture
    .rotate()
    .resize(longestSide, longestSide, { fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: 82 })
    .toBuffer()
    .catch(() => {
      throw notAPicture()
    })
}

/** Photos, by what they belong to, as files beside the database. What is no picture is refused; one is worked on at a time. */
export function photoService(folder: string, newId: () => string) {
  let last: Promise<unknown> = Promise.resolve()
  let waiting = 0
  async function inTurn<T>(work: () => Promise<T>): Promise<T> {
    if (waiting >= mostWaiting)
      throw new DomainProblem(
        'busy',
        'Several photos are being taken in already. Send this one again in a moment.',
        'photo',
      )
    waiting++
    const turn = last.catch(() => undefined).then(work)
    last = turn
    return turn.finally(() => {
      waiting--
    })
  }
  return {
    async keep(ownerId: string, bytes: Buffer): Promise<string> {
      if (bytes.length === 0) throw new DomainProblem('invalid', 'No photo came: choose a picture.', 'photo')
      const kept = await inTurn(() => writtenAnew(bytes))
      const id = newId()
      await mkdir(join(folder, ownerId), { recursive: true, mode: 0o700 })
      await writeForGood(join(folder, ownerId), `${id}.jpg`, kept)
      return id
    },
    async read(ownerId: string, id: string): Promise<Buffer> {
      return readFile(join(folder, ownerId, `${id}.jpg`)).catch(() => {
        throw new DomainProblem('not-found', 'This photo is not on this machine.')
      })
    },
    async remove(ownerId: string, id: string): Promise<void> {
      await rm(join(folder, ownerId, `${id}.jpg`), { force: true })
    },
    /** All photos of a build that is deleted for good. */
    async removeAll(ownerId: string): Promise<void> {
      await rm(join(folder, ownerId), { recursive: true, force: true })
    },
  }
}

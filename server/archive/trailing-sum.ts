import { createHash } from 'node:crypto'
import { Transform } from 'node:stream'

/** The end record of a zip file without a comment, bytes; the last two are the length of its comment. */
const endRecordBytes = 22
const endSignature = 0x06054b50
const commentOf = (sha256: string) => `sha256 ${sha256}`
export const commentBytes = commentOf('0'.repeat(64)).length

/**
 * Passes a zip file on and gives it a comment: the SHA-256 of all bytes before the comment, so that a bit that flips
 * anywhere is found, in what zip files say of their members as well as in the members.
 */
export function withTrailingSum(): Transform {
  const hash = createHash('sha256')
  let tail: Buffer = Buffer.alloc(0)
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      const all = Buffer.concat([tail, chunk])
      const sure = Math.max(0, all.length - endRecordBytes)
      tail = all.subarray(sure)
      const out = all.subarray(0, sure)
      hash.update(out)
      done(null, out)
    },
    flush(done) {
      const end = Buffer.from(tail)
      if (end.length !== endRecordBytes || end.readUInt32LE(0) !== endSignature) {
        done(new Error('withTrailingSum: the zip file does not end as one without a comment'))
        return
      }
      end.writeUInt16LE(commentBytes, endRecordBytes - 2)
      this.push(end)
      hash.update(end)
      this.push(Buffer.from(commentOf(hash.digest('hex')), 'latin1'))
      done()
    },
  })
}

/** The sum a comment tells, or null where it tells none. */
export const sumOfComment = (comment: string): string | null => /^sha256 ([0-9a-f]{64})$/.exec(comment)?.[1] ?? null

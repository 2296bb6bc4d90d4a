import type { H3Event } from 'h3'
import { mostFileBytes, mostLogBytes, overLargest } from '../../shared/files/largest'
import { mostBodyBytes } from '../network/origin'
import { DomainProblem } from '../problems'

/** What a body that is too large is told, by what it was to be. */
export const tooLarge = {
  data: () =>
    new DomainProblem('too-large', 'This is over 16 MB, more than any one change. Nothing was taken in.', 'file'),
  file: () => new DomainProblem('too-large', `${overLargest} Nothing was taken in.`, 'file'),
  archive: () => new DomainProblem('too-large', 'This is larger than any archive. Nothing was taken in.', 'file'),
  log: () => new DomainProblem('too-large', `A log has at most ${mostLogBytes / 1e6} MB. Nothing was kept.`, 'log'),
  photo: () => new DomainProblem('too-large', 'A photo has at most 16 MB. Nothing was kept.', 'photo'),
  passphrase: () => new DomainProblem('too-large', 'That is longer than any passphrase.', 'passphrase'),
} as const

/**
 * How long a connection stays half open behind a refusal, ms. One that is closed with a body still on the way is reset, and
 * the answer is lost to a sender that has not come to read it. Our choice.
 */
const lingerMs = 3000

/** Ends a connection behind the answer, whose body nobody wants: half at once, wholly when the answer had its time. */
export function closeBehindAnswer({ node: { req, res } }: H3Event): void {
  const { socket } = req
  res.setHeader('connection', 'close')
  socket.destroySoon = () => {
    socket.end()
    setTimeout(() => socket.destroy(), lingerMs).unref()
  }
}

/**
 * The body of a request, counted while it comes, whatever length it says of itself: one that goes beyond the limit is
 * refused at once and its connection closed behind the answer.
 */
export async function bodyBytes(
  event: H3Event,
  most = mostBodyBytes,
  beyond: () => DomainProblem = tooLarge.data,
): Promise<Buffer> {
  const { req } = event.node
  const refuse = () => {
    closeBehindAnswer(event)
    return beyond()
  }
  if (Number(req.headers['content-length'] ?? 0) > most) throw refuse()
  const chunks: Buffer[] = []
  let total = 0
  return new Promise((done, fail) => {
    req.on('data', (chunk: Buffer) => {
      total += chunk.length
      if (total <= most) {
        chunks.push(chunk)
        return
      }
      req.pause()
      req.removeAllListeners('data')
      fail(refuse())
    })
    req.once('end', () => done(Buffer.concat(chunks)))
    req.once('error', () =>
      fail(new DomainProblem('invalid', 'The request broke off before its end. Nothing was taken in.')),
    )
    req.once('aborted', () =>
      fail(new DomainProblem('invalid', 'The request broke off before its end. Nothing was taken in.')),
    )
  })
}

export async function bodyText(event: H3Event): Promise<string> {
  return (await bodyBytes(event)).toString('utf8')
}

/** The text of a build file. */
export async function fileText(event: H3Event): Promise<string> {
  return (await bodyBytes(event, mostFileBytes, tooLarge.file)).toString('utf8')
}

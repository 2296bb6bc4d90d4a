import type { EventHandler, H3Event } from 'h3'
import type { z } from 'zod'
import { CoreInputError } from '../../core/basics/errors'
import { readJson } from '../../shared/schemas/read-json'
import { firstProblem } from '../../shared/schemas/build-file'
import { keySchema } from '../../shared/schemas/command'
import { inputSentence, wordsOfField } from '../../core/text/display'
import { idSchema } from '../../core/text/schemas'
import type { Problem } from '../../shared/schemas/api'
import type { Application } from '../services/application'
import { dataProblemOf } from '../db/data-problem'
import { DomainProblem, problemCodes } from '../problems'

/** What a schema takes, with nothing in it to be changed: the services give what they hold. */
type Unchanging<T> = T extends readonly (infer U)[]
  ? readonly Unchanging<U>[]
  : T extends object
    ? { readonly [K in keyof T]: Unchanging<T[K]> }
    : T

/** A route that gives JSON checked by `reply`; whatever goes wrong becomes a problem the builder can read. */
export function jsonRoute<T extends z.ZodType>(
  reply: T,
  handle: (event: H3Event, app: Application) => Unchanging<z.input<T>> | Promise<Unchanging<z.input<T>>>,
): EventHandler {
  return defineEventHandler(async event => {
    try {
      const app = await useApplication()
      requireSameData(event, app)
      const parsed = reply.safeParse(await handle(event, app))
      setHeader(event, dataHeader, (await useApplication()).identity())
      // What is kept was checked when it was kept: an answer that is none comes from what earlier versions or other hands have left.
      if (!parsed.success)
        throw new DomainProblem(
          'unreadable',
          `What is kept here cannot be read: ${firstProblem(parsed.error).sentence}`,
        )
      return parsed.data
    } catch (error) {
      return sendProblem(event, error)
    }
  })
}

/** Names the data an answer comes from, and those a write was typed on. */
export const dataHeader = 'jolly-gram-data'

/** A write that was typed on other data, before an archive took their place, is not made on these. */
function requireSameData(event: H3Event, app: Application): void {
  const typedOn = getHeader(event, dataHeader)
  if (event.method === 'GET' || !typedOn || typedOn === app.identity()) return
  throw new DomainProblem(
    'other-data',
    'This was typed before an archive took the place of the data here. Nothing of it was written.',
  )
}

/** About so much text is made of a file before others are answered again, characters. */
const charactersAtOnce = 64_000

/** Lines as a stream: a part of them is made when the one before has been taken, and others are answered in between. */
function streamOf(lines: Iterable<string>): ReadableStream<Uint8Array> {
  const iterator = lines[Symbol.iterator]()
  const encoder = new TextEncoder()
  // What cannot be written at all is said before anything is sent.
  const first = iterator.next()
  let part = first.done ? '' : first.value
  return new ReadableStream({
    async pull(controller) {
      await new Promise(resolve => setImmediate(resolve))
      while (part.length < charactersAtOnce) {
        const { value, done } = iterator.next()
        if (done) {
          controller.enqueue(encoder.encode(part))
          controller.close()
          return
        }
        part += value
      }
      controller.enqueue(encoder.encode(part))
      part = ''
    },
  })
}

/** A route that gives a file to keep. */
export function fileRoute(
  contentType: string,
  handle: (
    event: H3Event,
    app: Application,
  ) => { name: string; text: string | Iterable<string> } | Promise<{ name: string; text: string | Iterable<string> }>,
): EventHandler {
  return defineEventHandler(async event => {
    try {
      const { name, text } = await handle(event, await useApplication())
      const ascii = name.replace(/[^\w.-]+/g, '-')
      setHeader(event, 'content-type', contentType)
      setHeader(
        event,
        'content-disposition',
        `attachment; filename="${ascii}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      )
      return typeof text === 'string' ? text : streamOf(text)
    } catch (error) {
      return sendProblem(event, error)
    }
  })
}

/** The parsed JSON body; throws a sentence about the first field that is wrong. */
export async function bodyOf<T extends z.ZodType>(event: H3Event, schema: T): Promise<z.output<T>> {
  const read = readJson(await bodyText(event))
  if ('problem' in read) throw new DomainProblem('invalid', read.problem)
  const { data } = read
  const parsed = schema.safeParse(data)
  if (parsed.success) return parsed.data
  const { field } = firstProblem(parsed.error)
  throw new DomainProblem('invalid', parsed.error.issues[0]!.message, field)
}

export function idParameter(event: H3Event, name = 'id'): string {
  const parsed = idSchema.safeParse(getRouterParam(event, name))
  if (!parsed.success) throw new DomainProblem('not-found', 'There is nothing at this address.')
  return parsed.data
}

/** The number of an entry of a journal in the address. */
export function seqParameter(event: H3Event): number {
  const seq = Number(getRouterParam(event, 'seq'))
  if (!Number.isSafeInteger(seq) || seq < 0) throw new DomainProblem('not-found', 'There is nothing at this address.')
  return seq
}

/** The entry of a journal a question is about, from `?at=7`; null where it is about what is there now. */
export function seqAsked(event: H3Event): number | null {
  const { at } = getQuery(event)
  if (at === undefined) return null
  const seq = Number(at)
  if (at === '' || !Number.isSafeInteger(seq) || seq < 0)
    throw new DomainProblem('not-found', 'There is no such entry in this journal.')
  return seq
}

/** The revision a write has seen, from `If-Match: "7"`. */
export function revisionSeen(event: H3Event): number {
  const match = /^"?(\d{1,15})"?$/.exec(getHeader(event, 'if-match') ?? '')
  if (!match) throw new DomainProblem('revision-missing', 'A change must say which revision of the build it has seen.')
  return Number(match[1])
}

/** The key of a write that has no body, from `Idempotency-Key`; null without one. */
export function keyOf(event: H3Event): string | null {
  const key = getHeader(event, 'idempotency-key')
  if (key === undefined) return null
  const parsed = keySchema.safeParse(key)
  if (!parsed.success) throw new DomainProblem('invalid', parsed.error.issues[0]!.message, 'key')
  return parsed.data
}

export function sendProblem(event: H3Event, error: unknown) {
  const problem = problemOf(error)
  if (problem.status === 503) setHeader(event, 'retry-after', 1)
  else if (problem.status >= 500) console.error(error)
  setResponseStatus(event, problem.status)
  setHeader(event, 'content-type', 'application/problem+json')
  return problem
}

function problemOf(error: unknown): Problem {
  const trouble = dataProblemOf(error)
  if (trouble)
    return {
      type: 'urn:jolly-gram:data',
      title: 'data',
      status: 503,
      detail: trouble.message,
      code: `data-${trouble.trouble.replace(' ', '-')}`,
    }
  if (error instanceof DomainProblem) {
    return {
      type: `urn:jolly-gram:${error.code}`,
      title: error.code,
      status: problemCodes[error.code],
      detail: error.message,
      code: error.code,
      field: error.field,
      current: error.current,
      meetings: error.meetings && [...error.meetings],
    }
  }
  if (error instanceof CoreInputError) {
    return {
      type: 'urn:jolly-gram:invalid',
      title: 'invalid',
      status: 422,
      detail: inputSentence(error, `“${wordsOfField(error.field)}”`),
      code: 'invalid',
      field: error.field,
      expected: error.expected,
      received: typeof error.received === 'number' ? error.received : String(error.received),
    }
  }
  // The tables refuse what the schemas have let through: nothing was written, and nothing is wrong with the server.
  if (String((error as { code?: unknown } | null)?.code).startsWith('SQLITE_CONSTRAINT')) {
    console.error(error)
    return {
      type: 'urn:jolly-gram:refused',
      title: 'refused',
      status: 422,
      code: 'refused',
      detail: 'This does not go together with what is kept here. Nothing was written.',
    }
  }
  return {
    type: 'about:blank',
    title: 'unexpected',
    status: 500,
    code: 'unexpected',
    detail: 'The server could not do this and changed nothing. Its console says more.',
  }
}

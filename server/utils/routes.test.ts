import * as h3 from 'h3'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { z } from 'zod'
import { CoreInputError } from '../../core/basics/errors'
import { DataProblem } from '../db/data-problem'
import { DomainProblem, problemCodes, type ProblemCode } from '../problems'
import { applicationOnDisk, demoFile } from '../testing'
import { bodyText } from './body'
import { bodyOf, fileRoute, idParameter, jsonRoute, keyOf, revisionSeen } from './routes'

let disk: ReturnType<typeof applicationOnDisk>
/** What the console was told: nothing, unless something nobody foresaw has happened. */
let said: ReturnType<typeof vi.spyOn>
beforeEach(async () => {
  disk = applicationOnDisk()
  await disk.app.files.importBuild(demoFile('sherbet'))
  for (const [name, what] of Object.entries(h3)) vi.stubGlobal(name, what)
  vi.stubGlobal('useApplication', async () => disk.app)
  vi.stubGlobal('bodyText', bodyText)
  said = vi.spyOn(console, 'error').mockImplementation(() => undefined)
})
afterEach(() => {
  vi.unstubAllGlobals()
  said.mockRestore()
  disk.app.close()
  disk.remove()
})

/** Serves a route at `/builds/:id` over real HTTP, asks once and gives the answer. */
async function ask(route: h3.EventHandler, path = '/builds/sherbet', init: RequestInit = {}) {
  const router = h3.createRouter().use('/builds/:id', route)
  const app = h3.createApp().use(router)
  const { createServer } = await import('node:http')
  const server = createServer(h3.toNodeListener(app))
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  const { port } = server.address() as { port: number }
  try {
    const answer = await fetch(`http://127.0.0.1:${port}${path}`, init)
    const text = await answer.text()
    return { status: answer.status, headers: answer.headers, text, json: () => JSON.parse(text) as unknown }
  } finally {
    server.close()
  }
}
const throwing = (error: unknown) =>
  jsonRoute(z.null(), () => {
    throw error
  })
const posting = (body: string, headers: Record<string, string> = {}): RequestInit => ({ method: 'POST', body, headers })

describe('what goes wrong behind a route', () => {
  it.each(Object.entries(problemCodes) as [ProblemCode, number][])('“%s” is answered with %i', async (code, status) => {
    const answer = await ask(throwing(new DomainProblem(code, 'A sentence for the builder.', 'lines')))
    expect(answer.status).toBe(status)
    expect(answer.headers.get('content-type')).toContain('application/problem+json')
    expect(answer.headers.get('retry-after')).toBe(status === 503 ? '1' : null)
    expect(answer.json()).toMatchObject({ code, status, detail: 'A sentence for the builder.', field: 'lines' })
    expect(said).not.toHaveBeenCalled()
  })
  it('what the core cannot compute with is said of the field, with what would have done', async () => {
    const error = new CoreInputError('screwG', 'lengthMm', -8, { is: 'in range', above: 0, most: 200 })
    const answer = await ask(throwing(error))
    expect(answer.status).toBe(422)
    expect(answer.json()).toMatchObject({
      code: 'invalid',
      field: 'lengthMm',
      expected: { above: 0, most: 200 },
      received: -8,
      detail: expect.stringMatching(/must be above zero and at most 200\.$/),
    })
    expect(answer.text).not.toContain('screwG')
  })
  it.each([
    [new DataProblem('full'), 'data-full', 'The disk with the data folder is full.'],
    [Object.assign(new Error('no'), { code: 'SQLITE_BUSY' }), 'data-in-use', 'Another program holds the database'],
    [Object.assign(new Error('no'), { code: 'EROFS' }), 'data-read-only', 'cannot be written to'],
  ])('trouble with the data can be tried again: %s', async (error, code, words) => {
    const answer = await ask(throwing(error))
    expect([answer.status, answer.headers.get('retry-after')]).toEqual([503, '1'])
    expect(answer.json()).toMatchObject({ code, detail: expect.stringContaining(words) })
  })
  it('what a table refuses is no error of the server', async () => {
    const answer = await ask(throwing(Object.assign(new Error('CHECK'), { code: 'SQLITE_CONSTRAINT_CHECK' })))
    expect(answer.status).toBe(422)
    expect(answer.json()).toMatchObject({ code: 'refused', detail: expect.stringContaining('Nothing was written') })
    expect(said).toHaveBeenCalledOnce()
  })
  it('what nobody foresaw is told to the console, and nothing of it to whoever asked', async () => {
    const answer = await ask(throwing(new TypeError('cannot read properties of /home/somebody')))
    expect(answer.status).toBe(500)
    expect(answer.text).not.toMatch(/somebody|TypeError|at /)
    expect(answer.json()).toMatchObject({ code: 'unexpected', detail: expect.stringContaining('changed nothing') })
    expect(said).toHaveBeenCalledOnce()
  })
  it('an answer that is none is said to be unreadable, not sent', async () => {
    const answer = await ask(jsonRoute(z.strictObject({ name: z.string() }), () => ({ name: 7 }) as never))
    expect(answer.status).toBe(422)
    expect(answer.json()).toMatchObject({ code: 'unreadable', detail: expect.stringContaining('name:') })
  })
})

describe('what a route is asked', () => {
  const body = () =>
    jsonRoute(z.unknown() as z.ZodType<object>, event =>
      bodyOf(event, z.strictObject({ grams: z.number({ error: 'The mass must be a number.' }) })),
    )
  it('is read once it is what it should be', async () => {
    expect((await ask(body(), undefined, posting('{"grams":2}'))).json()).toEqual({ grams: 2 })
  })
  it.each([
    ['', undefined, 'JSON'],
    ['{"grams":', undefined, 'JSON'],
    ['{"grams":"2"}', 'grams', 'The mass must be a number.'],
    ['{"grams":2,"__proto__":{"x":1}}', undefined, '__proto__'],
  ])('“%s” is refused in a sentence at its field', async (text, field, words) => {
    const answer = await ask(body(), undefined, posting(text))
    expect(answer.status).toBe(422)
    expect(answer.json()).toMatchObject({ detail: expect.stringContaining(words), ...(field ? { field } : {}) })
  })
  it('names a build by an id, or there is nothing there', async () => {
    const route = jsonRoute(z.strictObject({ id: z.string() }), event => ({ id: idParameter(event) }))
    expect((await ask(route)).json()).toEqual({ id: 'sherbet' })
    expect((await ask(route, '/builds/..%2f..%2fetc')).status).toBe(404)
    expect((await ask(route, `/builds/${'x'.repeat(200)}`)).status).toBe(404)
  })
  it.each([
    ['"7"', 7],
    ['7', 7],
    ['W/"7"', 428],
    ['"-1"', 428],
    ['"1e3"', 428],
    [`"${'9'.repeat(16)}"`, 428],
    [undefined, 428],
  ])('If-Match %s', async (header, then) => {
    const route = jsonRoute(z.number(), event => revisionSeen(event))
    const answer = await ask(route, undefined, { headers: header === undefined ? {} : { 'if-match': header } })
    if (then === 428) expect([answer.status, answer.text]).toEqual([428, expect.stringContaining('which revision')])
    else expect(answer.json()).toBe(then)
  })
  it('Idempotency-Key is one, none, or refused', async () => {
    const route = jsonRoute(z.strictObject({ key: z.string().nullable() }), event => ({ key: keyOf(event) }))
    const withKey = (key: string) => ask(route, undefined, { headers: { 'idempotency-key': key } })
    expect((await ask(route)).json()).toEqual({ key: null })
    expect((await withKey('a.0')).json()).toEqual({ key: 'a.0' })
    expect((await withKey('x'.repeat(300))).status).toBe(422)
  })
})

describe('a route that gives a file', () => {
  it('sends it line by line under its name, letters of all alphabets among them', async () => {
    const lines = function* () {
      for (let n = 0; n < 3000; n++) yield `${n} ${'é'.repeat(40)}\n`
    }
    const answer = await ask(fileRoute('text/plain', () => ({ name: 'Pâte “1”.txt', text: lines() })))
    expect(answer.text).toBe([...lines()].join(''))
    expect(answer.headers.get('content-disposition')).toBe(
      `attachment; filename="P-te-1-.txt"; filename*=UTF-8''P%C3%A2te%20%E2%80%9C1%E2%80%9D.txt`,
    )
  })
  it('says what is wrong before anything is sent', async () => {
    const answer = await ask(
      fileRoute('text/plain', (event, app) => ({ name: 'x', text: app.files.exportLines('nobody') })),
    )
    expect(answer.status).toBe(404)
    expect(answer.headers.get('content-disposition')).toBeNull()
    expect(answer.json()).toMatchObject({ code: 'not-found' })
  })
  it('answers others in between', async () => {
    const order: string[] = []
    const lines = function* () {
      for (let n = 0; n < 40; n++) {
        order.push('line')
        yield 'x'.repeat(70_000)
      }
    }
    const ticking = setInterval(() => order.push('other'), 0)
    await ask(fileRoute('text/plain', () => ({ name: 'x', text: lines() })))
    clearInterval(ticking)
    expect(order.slice(0, order.lastIndexOf('line')).filter(what => what === 'other').length).toBeGreaterThan(3)
  })
})

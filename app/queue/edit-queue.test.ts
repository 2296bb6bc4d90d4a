import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  byLeases,
  byTurns,
  byWebLocks,
  databaseStorage,
  EditQueue,
  memoryStorage,
  openEditDatabase,
  type EditStorage,
  type Exclusively,
  type SendOutcome,
  type QueuedEdit,
} from './index'

/** A server that does what it is told for the next requests, then accepts; it knows keys as the real one does. */
class Server {
  readonly kept: { document: string; what: unknown; key: string }[] = []
  readonly answers: (SendOutcome | 'lost answer' | 'hang' | 'met')[] = []
  revisions = new Map<string, number>()
  most = 0
  private busy = 0
  hung: (() => void)[] = []

  readonly send = async (document: string, edits: readonly QueuedEdit[]): Promise<SendOutcome> => {
    this.most = Math.max(this.most, ++this.busy)
    await Promise.resolve()
    this.busy--
    const answer = this.answers.shift()
    if (answer === 'hang')
      await new Promise<void>(done => {
        this.hung.push(done)
      })
    else if (answer === 'met') return { kind: 'met', sentence: 'met', meetings: [], onTop: { ...edits[0]!, base: 9 } }
    else if (answer && answer !== 'lost answer') return answer
    const refused = edits.find(edit => (edit.payload as { wrong?: boolean }).wrong)
    if (refused) return { kind: 'refused', sentence: `no ${refused.words}` }
    for (const { key, payload } of edits) {
      if (this.kept.some(known => known.key === key)) continue
      this.kept.push({ document, what: (payload as { what: unknown }).what, key })
      this.revisions.set(document, (this.revisions.get(document) ?? 0) + 1)
    }
    return answer === 'lost answer'
      ? { kind: 'wait', why: 'no answer' }
      : { kind: 'accepted', reply: { revision: this.revisions.get(document) } }
  }

  of(document: string) {
    return this.kept.filter(known => known.document === document).map(known => known.what)
  }
}

let pages = 0
interface Page {
  queue: EditQueue
  events: string[]
}
function page(
  server: Server,
  storage: EditStorage,
  exclusively: Exclusively = byTurns(),
  announce: (document: string) => void = () => undefined,
): Page {
  const events: string[] = []
  const queue = new EditQueue({
    storage,
    exclusively,
    send: server.send,
    origin: `page${pages++}`,
    data: '',
    nowMs: () => 1000,
    most: 32,
    announce,
    pause: (_ms, woken) => woken,
  })
  queue.listen({
    accepted: (document, edits) => events.push(`${document} accepted ${edits.length}`),
    refused: edit => events.push(`${edit.document} refused ${edit.sentence}`),
    sentElsewhere: document => events.push(`${document} elsewhere`),
  })
  return { queue, events }
}
const type = (queue: EditQueue, document: string, what: unknown, more: object = {}) =>
  queue.add(document, document, 1, { what, ...more }, String(what))
async function quiet(queue: EditQueue, ...documents: string[]) {
  for (const document of documents) await queue.settled(document)
  await queue.kept()
}
let databases = 0
const stored = () => {
  const opened = openEditDatabase(`test${databases++}`)
  return { opened, storage: databaseStorage(opened) }
}

describe('edits that wait', () => {
  it('go to the document they were typed in, whatever is opened meanwhile', async () => {
    const server = new Server()
    const { queue } = page(server, memoryStorage())
    server.answers.push({ kind: 'wait', why: 'no answer' })
    type(queue, 'build:a', 1)
    await queue.settled('build:a')
    type(queue, 'build:b', 2)
    await quiet(queue, 'build:b')
    expect(queue.state('build:a')).toMatchObject({ waiting: 1, why: 'no answer' })
    queue.wake()
    await quiet(queue, 'build:a')
    expect([server.of('build:a'), server.of('build:b')]).toEqual([[1], [2]])
  })
  it.each(['signed out', 'server busy', 'server trouble', 'no answer'] as const)(
    'wait while it is “%s”, and are sent in order afterwards',
    async why => {
      const server = new Server()
      const { queue } = page(server, memoryStorage())
      server.answers.push({ kind: 'wait', why }, { kind: 'wait', why })
      for (const what of [1, 2, 3]) type(queue, 'd', what)
      for (let i = 0; i < 2; i++) {
        await queue.settled('d')
        expect(queue.states()).toMatchObject([{ document: 'd', waiting: 3, why }])
        queue.wake()
      }
      await quiet(queue, 'd')
      expect(server.of('d')).toEqual([1, 2, 3])
      expect(queue.states()).toEqual([])
    },
  )
  it('refused in the middle are set aside alone; those before and behind are written', async () => {
    const server = new Server()
    const { queue, events } = page(server, memoryStorage())
    for (const what of [1, 2, 3, 4, 5]) type(queue, 'd', what, { wrong: what === 2 })
    await quiet(queue, 'd')
    expect(server.of('d')).toEqual([1, 3, 4, 5])
    expect(queue.setAsides()).toMatchObject([{ words: '2', sentence: 'no 2' }])
    expect(events.filter(event => event.includes('refused'))).toEqual(['d refused no 2'])
  })
  it('are done once when an answer is lost', async () => {
    const server = new Server()
    const { queue } = page(server, memoryStorage())
    server.answers.push('lost answer')
    type(queue, 'd', 1)
    type(queue, 'd', 2)
    await queue.settled('d')
    queue.wake()
    await quiet(queue, 'd')
    expect(server.of('d')).toEqual([1, 2])
  })
  it('that have met another change hold their document, not the others, until the builder has chosen', async () => {
    for (const choice of ['mine', 'theirs'] as const) {
      const server = new Server()
      const { queue } = page(server, memoryStorage())
      server.answers.push('met')
      type(queue, 'd', 1)
      await queue.settled('d')
      type(queue, 'd', 2)
      type(queue, 'e', 3)
      await quiet(queue, 'd', 'e')
      expect(queue.state('d')).toMatchObject({ waiting: 2, met: { sentence: 'met', edit: { payload: { what: 1 } } } })
      expect(server.of('e')).toEqual([3])
      queue.settleMeeting('d', choice)
      await quiet(queue, 'd')
      expect(server.of('d')).toEqual(choice === 'mine' ? [1, 2] : [2])
    }
  })
  it('are taken back before they are sent, not when they are on their way', async () => {
    const server = new Server()
    const { queue } = page(server, memoryStorage())
    server.answers.push({ kind: 'wait', why: 'no answer' })
    type(queue, 'd', 1)
    type(queue, 'd', 2)
    await queue.settled('d')
    expect(queue.takeBackLast('d')?.payload).toEqual({ what: 2 })
    server.answers.push('hang')
    queue.wake()
    await expect.poll(() => server.hung.length).toBe(1)
    expect(queue.takeBackLast('d')).toBeNull()
    server.hung[0]!()
    await quiet(queue, 'd')
    expect(server.of('d')).toEqual([1])
  })
  it('set aside are tried again or let go', async () => {
    const server = new Server()
    const { queue } = page(server, memoryStorage())
    server.answers.push({ kind: 'refused', sentence: 'no' })
    const first = type(queue, 'd', 1)
    await quiet(queue, 'd')
    server.answers.push({ kind: 'refused', sentence: 'no' })
    const second = type(queue, 'd', 2)
    await quiet(queue, 'd')
    queue.tryAgain(first.key)
    queue.letGo(second.key)
    await quiet(queue, 'd')
    expect(server.of('d')).toEqual([1])
    expect(queue.setAsides()).toEqual([])
  })
  it('of a browser whose database takes nothing are sent all the same, and the page says it would lose them', async () => {
    const broken = {
      ...memoryStorage(),
      put: () => Promise.reject(new Error('quota')),
      of: () => Promise.reject(new Error('broken')),
    }
    const server = new Server()
    const { queue } = page(server, broken)
    server.answers.push({ kind: 'wait', why: 'no answer' })
    type(queue, 'd', 1)
    await quiet(queue, 'd')
    expect(queue.wouldLose).toBe(true)
    queue.wake()
    await quiet(queue, 'd')
    expect(server.of('d')).toEqual([1])
    expect(queue.wouldLose).toBe(false)
  })
})

describe('edits outlive the page', () => {
  it('a page that was killed leaves them to the next one, in their order and with what was set aside', async () => {
    const { storage } = stored()
    const server = new Server()
    const first = page(server, storage)
    server.answers.push({ kind: 'refused', sentence: 'no' }, { kind: 'wait', why: 'no answer' })
    type(first.queue, 'd', 0)
    await quiet(first.queue, 'd')
    for (const what of [1, 2]) type(first.queue, 'd', what)
    type(first.queue, 'e', 3)
    await first.queue.settled('d')
    await first.queue.kept()
    const next = page(server, storage)
    await next.queue.resume()
    await quiet(next.queue, 'd', 'e')
    expect([server.of('d'), server.of('e')]).toEqual([[1, 2], [3]])
    expect(next.queue.setAsides()).toMatchObject([{ words: '0' }])
    expect(await storage.all()).toEqual([])
    expect(await storage.asides()).toHaveLength(1)
  })
  it('nothing that was acknowledged is left in the database', async () => {
    const { storage } = stored()
    const server = new Server()
    const { queue } = page(server, storage)
    for (let i = 0; i < 40; i++) type(queue, 'd', i)
    await quiet(queue, 'd')
    expect(await storage.all()).toEqual([])
    expect(server.of('d')).toEqual(Array.from({ length: 40 }, (_, i) => i))
  })
  it.each(['leases', 'locks'])('of several tabs one sends at a time, and each edit is done once (%s)', async kind => {
    const { opened, storage } = stored()
    const server = new Server()
    const held = new Map<string, Promise<unknown>>()
    const locks = {
      request: (name: string, work: () => Promise<unknown>) => {
        const turn = (held.get(name) ?? Promise.resolve()).then(work)
        held.set(name, turn)
        return turn
      },
    } as unknown as LockManager
    const tabs: Page[] = []
    for (let i = 0; i < 3; i++) {
      const exclusively = kind === 'leases' ? byLeases(opened, `tab${i}`) : byWebLocks(locks)
      tabs.push(
        page(server, storage, exclusively, document =>
          tabs.forEach((tab, n) => {
            if (n !== i) void tab.queue.heard(document)
          }),
        ),
      )
    }
    for (let n = 0; n < 30; n++) type(tabs[n % 3]!.queue, 'd', n)
    for (const tab of tabs) await quiet(tab.queue, 'd')
    expect(server.most).toBe(1)
    expect([...server.of('d')].sort((a, b) => Number(a) - Number(b))).toEqual(Array.from({ length: 30 }, (_, i) => i))
    for (let i = 0; i < 3; i++)
      expect(server.of('d').filter(what => Number(what) % 3 === i)).toEqual(
        Array.from({ length: 10 }, (_, n) => 3 * n + i),
      )
  })
  it('a lease of a tab that was killed ends by itself, one written by a clock ahead does not hold for ever', async () => {
    const { opened } = stored()
    let now = 1_000_000
    await (await opened).put('leases', { name: 'd', holder: 'dead', untilMs: now + 4000 })
    await (await opened).put('leases', { name: 'e', holder: 'dead', untilMs: now + 9e9 })
    const lease = byLeases(opened, 'me', () => now)
    expect(await lease('e', async () => 'done')).toBe('done')
    let done = false
    const waiting = lease('d', async () => {
      done = true
    })
    await new Promise(after => setTimeout(after, 300))
    expect(done).toBe(false)
    now += 4001
    await waiting
    expect(done).toBe(true)
  })
})

describe('whatever the server does', () => {
  it('every edit is written once, in order, in its document, or is set aside; pages come and go', async () => {
    const step = fc.oneof(
      {
        weight: 6,
        arbitrary: fc.record({
          do: fc.constant('type' as const),
          document: fc.constantFrom('a', 'b', 'c'),
          wrong: fc.boolean().map(b => b && true),
        }),
      },
      {
        weight: 2,
        arbitrary: fc.record({
          do: fc.constant('answer' as const),
          answer: fc.constantFrom<SendOutcome | 'lost answer' | 'met'>(
            { kind: 'wait', why: 'no answer' },
            { kind: 'wait', why: 'signed out' },
            'lost answer',
            'met',
          ),
        }),
      },
      { weight: 1, arbitrary: fc.record({ do: fc.constant('new page' as const) }) },
      {
        weight: 2,
        arbitrary: fc.record({
          do: fc.constant('wake' as const),
          choice: fc.constantFrom('mine' as const, 'theirs' as const),
        }),
      },
    )
    const hits = { typed: 0, dropped: 0, asides: 0, pages: 0 }
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 10, maxLength: 60 }), async steps => {
        const { storage } = stored()
        const server = new Server()
        const typed: { document: string; what: number; wrong: boolean }[] = []
        const dropped = new Set<number>()
        let current = page(server, storage)
        const choose = (choice: 'mine' | 'theirs') => {
          for (const { met, document } of current.queue.states()) {
            if (!met) continue
            if (choice === 'theirs') dropped.add((met.edit.payload as { what: number }).what)
            current.queue.settleMeeting(document, choice)
          }
        }
        for (const one of steps) {
          if (one.do === 'type') {
            typed.push({ document: one.document, what: typed.length, wrong: one.wrong })
            type(current.queue, one.document, typed.length - 1, { wrong: one.wrong })
            hits.typed++
          } else if (one.do === 'answer') {
            server.answers.push(one.answer)
          } else if (one.do === 'wake') {
            await new Promise(after => setTimeout(after, 2))
            choose(one.choice)
            current.queue.wake()
          } else {
            // The page is gone; what it has on its way may still arrive.
            await current.queue.kept()
            current = page(server, storage)
            await current.queue.resume()
            hits.pages++
          }
          await Promise.resolve()
        }
        server.answers.length = 0
        for (let i = 0; i < 20 && current.queue.states().length > 0; i++) {
          choose('mine')
          current.queue.wake()
          for (const document of ['a', 'b', 'c']) await quiet(current.queue, document)
        }
        expect(current.queue.states()).toEqual([])
        for (const document of ['a', 'b', 'c']) {
          const wanted = typed
            .filter(edit => edit.document === document && !edit.wrong && !dropped.has(edit.what))
            .map(edit => edit.what)
          expect(server.of(document).filter(what => !dropped.has(what as number))).toEqual(wanted)
        }
        expect(new Set(server.kept.map(known => known.key)).size).toBe(server.kept.length)
        const aside = (await storage.asides())
          .map(edit => (edit.payload as { what: number }).what)
          .sort((a, b) => a - b)
        expect(aside).toEqual(typed.filter(edit => edit.wrong && !dropped.has(edit.what)).map(edit => edit.what))
        hits.dropped += dropped.size
        hits.asides += aside.length
      }),
      { numRuns: 700, seed: 11 },
    )
    expect(hits.typed).toBeGreaterThan(1000)
    for (const count of [hits.dropped, hits.asides, hits.pages]) expect(count).toBeGreaterThan(50)
  }, 120_000)
})

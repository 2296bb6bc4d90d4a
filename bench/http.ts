/** Durable edits a second through the route, against an empty route of the same server and bare durable commits of the same size. */
import { mkdtempSync, rmSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { startBuilt } from './built-server'

const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt(
  join(process.cwd(), '.output/server/index.mjs'),
  { JOLLY_GRAM_DATA: folder },
  '/api/health',
)
const seconds = 0.25
/** Turns before anything is counted: until then code is still being compiled. */
const warmUps = 8
const turns = 21

function call(
  agent: Agent,
  method: string,
  path: string,
  body?: string,
  revision?: number,
): Promise<{ status: number; text: string }> {
  return new Promise((done, fail) => {
    const headers: Record<string, string> = body
      ? { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(body)) }
      : {}
    if (revision !== undefined) headers['if-match'] = `"${revision}"`
    const asked = request(address + path, { method, agent, headers }, answer => {
      let text = ''
      answer
        .setEncoding('utf8')
        .on('data', chunk => (text += chunk))
        .on('end', () => done({ status: answer.statusCode ?? 0, text }))
    })
    asked.on('error', fail).end(body)
  })
}

/** How many times a second `work` gets done by `clients` at once. */
async function rate(clients: number, work: (client: number) => Promise<number>): Promise<number> {
  const until = performance.now() + seconds * 1000
  let done = 0
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      while (performance.now() < until) {
        const more = await work(client)
        done += more
      }
    }),
  )
  return done / seconds
}

const agent = new Agent({ keepAlive: true, maxSockets: 64 })
const most = 32
const builds: { id: string; line: string; revision: number; n: number }[] = []
for (let i = 0; i < most; i++) {
  const { id } = JSON.parse(
    (
      await call(
        agent,
        'POST',
        '/api/builds',
        JSON.stringify({ from: 'class', name: `Bench ${i}`, craftClass: '3-inch ultralight' }),
      )
    ).text,
  )
  const { build } = JSON.parse((await call(agent, 'GET', `/api/builds/${id}`)).text)
  builds.push({ id, line: build.lines[0].id, revision: 1, n: 0 })
}

function weighing(build: (typeof builds)[number]) {
  const mass = {
    versionId: `b${build.n}`,
    evidence: 'weighed',
    valueG: 10 + (build.n++ % 500) / 100,
    valueCount: 1,
    resolutionG: 0.01,
    pieceReadingsG: null,
    halfRangeG: null,
    ownSpreadG: null,
    basis: 'as fitted',
    origin: 'typed',
  }
  return { command: { type: 'lines.change', changes: [{ id: build.line, fields: { mass } }] } }
}
/** Sends so many edits in one request, as the application does with those that waited. */
const edits =
  (together: number) =>
  async (client: number): Promise<number> => {
    const build = builds[client]!
    const body =
      together === 1 ? weighing(build) : { commands: Array.from({ length: together }, () => weighing(build)) }
    const { status, text } = await call(
      agent,
      'POST',
      `/api/builds/${build.id}/commands${together === 1 ? '' : '/many'}`,
      JSON.stringify(body),
      build.revision,
    )
    if (status !== 200) throw new Error(text)
    build.revision = JSON.parse(text).revision
    return together
  }
const empty = async () => {
  await call(agent, 'GET', '/api/practice')
  return 1
}

const bare = new Database(join(folder, 'bare.sqlite'))
bare.pragma('journal_mode = WAL')
bare.pragma('synchronous = FULL')
bare.exec('CREATE TABLE t (id INTEGER PRIMARY KEY, a TEXT)')
const insert = bare.prepare('INSERT INTO t (a) VALUES (?)')
const row = 'x'.repeat(1500)
const commit = async () => {
  insert.run(row)
  return 1
}
const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!

// Measured in short turns, one after the other, so that a disk or a neighbour that is slow for a while slows all alike.
for (const clients of [1, most]) {
  for (const together of [1, 8]) {
    for (let i = 0; i < warmUps; i++) await rate(clients, edits(together))
    const rounds: { edited: number; empties: number; commits: number }[] = []
    for (let i = 0; i < turns; i++)
      rounds.push({
        edited: await rate(clients, edits(together)),
        empties: await rate(clients, empty),
        commits: await rate(1, commit),
      })
    console.log(
      `${String(clients).padStart(2)} at once, ${together} ${together === 1 ? 'edit' : 'edits'} a ` +
        `request: durable edits / empty route = ` +
        `${median(rounds.map(r => r.edited / r.empties)).toFixed(2)}   durable edits / bare durable ` +
        `commits = ${median(rounds.map(r => r.edited / r.commits)).toFixed(2)}   ` +
        `(${median(rounds.map(r => r.edited)).toFixed(0)} edits a second)`,
    )
  }
}
server.kill()
agent.destroy()
bare.close()
rmSync(folder, { recursive: true })

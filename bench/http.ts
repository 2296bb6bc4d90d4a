/** Durable edits a second through the route, against an empty route of the same server and bare durable commits of the same size. */
import { mkdtempSync, rmSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import { startBuilt } from './built-server'

const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt(join(process.cwd(), '.output/server/index.mjs'), { JOLLY_GRAM_DATA: folder }, '/api/health')
const seconds = 4

function call(agent: Agent, method: string, path: string, body?: string, revision?: number): Promise<{ status: number, text: string }> {
  return new Promise((done, fail) => {
    const headers: Record<string, string> = body ? { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(body)) } : {}
    if (revision !== undefined) headers['if-match'] = `"${revision}"`
    const asked = request(address + path, { method, agent, headers }, (answer) => {
      let text = ''
      answer.setEncoding('utf8').on('data', chunk => text += chunk).on('end', () => done({ status: answer.statusCode ?? 0, text }))
    })
    asked.on('error', fail).end(body)
  })
}

/** How many times a second `work` gets done by `clients` at once. */
async function rate(clients: number, work: (client: number) => Promise<void>): Promise<number> {
  const until = performance.now() + seconds * 1000
  let done = 0
  await Promise.all(Array.from({ length: clients }, async (_, client) => {
    while (performance.now() < until) { await work(client); done++ }
  }))
  return done / seconds
}

const agent = new Agent({ keepAlive: true, maxSockets: 64 })
const most = 32
const builds: { id: string, line: string, revision: number, n: number }[] = []
for (let i = 0; i < most; i++) {
  const { id } = JSON.parse((await call(agent, 'POST', '/api/builds', JSON.stringify({ from: 'class', name: `Bench ${i}`, craftClass: '3-inch ultralight' }))).text)
  const { build } = JSON.parse((await call(agent, 'GET', `/api/builds/${id}`)).text)
  builds.push({ id, line: build.lines[0].id, revision: 1, n: 0 })
}

async function edit(client: number): Promise<void> {
  const build = builds[client]!
  const mass = { versionId: `b${build.n}`, evidence: 'weighed', valueG: 10 + (build.n++ % 500) / 100, valueCount: 1, resolutionG: 0.01, pieceReadingsG: null, halfRangeG: null, ownSpreadG: null, basis: 'as fitted', origin: 'typed' }
  const body = JSON.stringify({ command: { type: 'lines.change', changes: [{ id: build.line, fields: { mass } }] } })
  const { status, text } = await call(agent, 'POST', `/api/builds/${build.id}/commands`, body, build.revision)
  if (status !== 200) throw new Error(text)
  build.revision = JSON.parse(text).revision
}
const empty = async () => { await call(agent, 'GET', '/api/health') }

const bare = new Database(join(folder, 'bare.sqlite'))
bare.pragma('journal_mode = WAL')
bare.pragma('synchronous = FULL')
bare.exec('CREATE TABLE t (id INTEGER PRIMARY KEY, a TEXT)')
const insert = bare.prepare('INSERT INTO t (a) VALUES (?)')
const row = 'x'.repeat(1500)
const commits = await rate(1, async () => { insert.run(row) })

for (const clients of [1, most]) {
  await rate(clients, edit)
  const [edits, empties] = [await rate(clients, edit), await rate(clients, empty)]
  console.log(`${String(clients).padStart(2)} at once: durable edits / empty route = ${(edits / empties).toFixed(2)}   durable edits / bare durable commits = ${(edits / commits).toFixed(2)}   (${edits.toFixed(0)} edits a second)`)
}
server.kill()
agent.destroy()
bare.close()
rmSync(folder, { recursive: true })

/**
 * 20,000 flights on 20 builds against ten: a flight written, an edit of grams written, the flights of a build answered and
 * its page opened, each against the same with ten flights, and the page of Fly against that of the ledger.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Browser } from '@playwright/test'
import { testFlight } from '../core/aircraft/flown/testing'
import { findChromium } from '../scripts/chromium.mjs'
import { startBuilt } from './built-server'

const builds = 20
const styles = ['cruise', 'freestyle', 'race'] as const
const file = JSON.parse(readFileSync('demo/builds/praline.build.json', 'utf8')) as Record<string, unknown>

function flightOf(build: number, i: number) {
  const { id, ...set } = testFlight({
    ...{ id: `b${build}-${i}`, buildId: `b${build}`, style: styles[i % 3]! },
    flownAt: `20${10 + Math.floor(i / 100)}-0${1 + (i % 9)}-1${i % 10}T10:${String(i % 60).padStart(2, '0')}`,
    ...{ durationS: 200 + ((i * 37) % 60), putBackMah: 600 + ((i * 13) % 60) },
  })
  const { snapshot } = set
  const pack = { ...snapshot.pack!, key: `b${build}/p${i % 5}` }
  return { kind: 'flight', id, seen: null, set: { ...set, snapshot: { ...snapshot, pack } } }
}
async function serverWith(each: number) {
  const folder = mkdtempSync(join(tmpdir(), 'bench-'))
  const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
  async function post(path: string, body: object, headers: Record<string, string> = {}) {
    const answer = await fetch(address + path, { method: 'POST', headers, body: JSON.stringify(body) })
    if (!answer.ok) throw new Error(await answer.text())
    return answer.json() as Promise<{ revision: number }>
  }
  for (let b = 0; b < builds; b++) {
    const build = { ...(file.build as object), id: `b${b}` }
    await post('/api/builds/import', { ...file, build, flights: [], findings: [], settings: [] })
    const changes = Array.from({ length: each }, (_, i) => flightOf(b, i))
    if (changes.length > 0) await post('/api/kept/flights', { edits: [{ changes }] })
  }
  // The first answer reads and works out everything.
  const from = performance.now()
  await fetch(`${address}/api/builds/b0/flights`)
  return { address, folder, server, post, firstMs: performance.now() - from }
}
type Running = Awaited<ReturnType<typeof serverWith>>
const median = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!
async function timed(rounds: number, work: (i: number) => Promise<unknown>): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < rounds; i++) {
    const from = performance.now()
    await work(i)
    times.push(performance.now() - from)
  }
  return median(times)
}
/** The same on both servers in turn, so that what else the machine does meets both alike; medians. */
async function inTurn(rounds: number, works: readonly ((i: number) => Promise<unknown>)[]): Promise<number[]> {
  const times = works.map((): number[] => [])
  for (let i = 0; i < rounds; i++)
    for (const [k, work] of works.entries()) {
      const from = performance.now()
      await work(i)
      times[k]!.push(performance.now() - from)
    }
  return times.map(median)
}
const noting =
  ({ post }: Running) =>
  (i: number) =>
    post('/api/kept/flights', { edits: [{ changes: [flightOf(1, 5000 + i)] }] })
async function editing({ address, post }: Running) {
  let { revision } = (await (await fetch(`${address}/api/builds/b2`)).json()) as { revision: number }
  return async (i: number) => {
    const command = { type: 'lines.change', changes: [{ id: 'strap', fields: { note: `n${i}` } }] }
    ;({ revision } = await post('/api/builds/b2/commands', { command }, { 'if-match': `"${revision}"` }))
  }
}
async function opened(browser: Browser, path: string, shown: string): Promise<number> {
  return timed(7, async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const page = await context.newPage()
    await page.goto(path)
    await page.locator(shown).first().waitFor()
    await context.close()
  })
}

const [few, many] = [await serverWith(0), await serverWith(1000)]
await few.post('/api/kept/flights', { edits: [{ changes: Array.from({ length: 10 }, (_, i) => flightOf(0, i)) }] })
const [notedFew, notedMany] = (await inTurn(60, [noting(few), noting(many)])) as [number, number]
const [editedFew, editedMany] = (await inTurn(120, [await editing(few), await editing(many)])) as [number, number]
const afterOne = await timed(5, async i => {
  await many.post('/api/kept/flights', { edits: [{ changes: [flightOf(3, 6000 + i)] }] })
  await (await fetch(`${many.address}/api/builds/b3/flights`)).json()
})
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
const ledger = await opened(browser, `${many.address}/builds/b4/parts`, '[data-row=strap]')
const fly = await opened(browser, `${many.address}/builds/b4/fly`, '.flights tbody tr')
console.log(`a flight written, 20,000 / 10 = ${(notedMany / notedFew).toFixed(2)}   (${notedMany.toFixed(1)} ms)`)
console.log(`an edit written, 20,000 / none = ${(editedMany / editedFew).toFixed(2)}   (${editedMany.toFixed(1)} ms)`)
console.log(
  `Fly opened / the ledger opened, 1,000 flights of 20,000 = ${(fly / ledger).toFixed(2)}   (${fly.toFixed(0)} ms; at most 2)`,
)
console.log(
  `after one more, all worked out and answered anew: ${afterOne.toFixed(0)} ms; the first time ${many.firstMs.toFixed(0)} ms ` +
    `(${few.firstMs.toFixed(0)} ms with none)`,
)
await browser.close()
for (const { server, folder } of [few, many]) {
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}

/**
 * In Chromium: scripting from an edit to the repainted strip in a ledger of 400 lines, and the time a shelf of 300
 * builds takes to paint, against one 60 Hz frame, one second and an empty page.
 */
import { findChromium } from '../scripts/chromium.mjs'
import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { startBuilt } from './built-server'

const frameMs = 1000 / 60
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
const post = async (path: string, body: object, headers: Record<string, string> = {}) =>
  (await fetch(address + path, { method: 'POST', headers, body: JSON.stringify(body) })).json()

const { id } = await post('/api/builds', { from: 'empty', name: 'Four hundred lines' })
const slots = ['frame', 'motor', 'board', 'camera', 'receiver', 'screw', 'strap']
const lines = Array.from({ length: 400 }, (_, i) => ({
  id: `l${i}`,
  slot: slots[i % slots.length],
  name: `Line ${i}`,
  quantity: 1,
  listing: null,
  state: 'fitted',
  role: 'airframe',
  removable: false,
  priceEachCents: 100,
  note: '',
  tie: null,
  insteadOf: null,
  pack: null,
  mass: {
    versionId: `v${i}`,
    evidence: ['weighed', 'listed', 'guess'][i % 3],
    valueG: 0.5,
    valueCount: 1,
    resolutionG: 0.01,
    pieceReadingsG: null,
    halfRangeG: null,
    ownSpreadG: null,
    basis: 'as fitted',
    origin: 'typed',
  },
}))
await post(
  `/api/builds/${id}/commands`,
  { command: { type: 'lines.add', lines, beforeId: null } },
  { 'if-match': '"1"' },
)
await post(
  `/api/builds/${id}/commands`,
  { command: { type: 'build.set', fields: { aim: { cardIds: ['us-recreation'] } } } },
  { 'if-match': '"2"' },
)

const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${address}/builds/${id}/parts`)
await page.locator('[data-row=l7] [data-col=each]').waitFor()
const session = await page.context().newCDPSession(page)
await session.send('Performance.enable')
const scripting = async () => {
  const { metrics } = await session.send('Performance.getMetrics')
  const of = (name: string) => metrics.find(m => m.name === name)?.value ?? 0
  return { script: of('ScriptDuration') * 1000, layout: (of('LayoutDuration') + of('RecalcStyleDuration')) * 1000 }
}
const times: { script: number; layout: number }[] = []
await page.locator('[data-row=l7] [data-col=each]').click()
for (let i = 0; i < 45; i++) {
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+a')
  await page.keyboard.type(`0.${51 + (i % 40)}`)
  const label = await page.locator('[aria-label^="Line 7:"]').getAttribute('aria-label')
  const before = await scripting()
  await page.evaluate(
    () =>
      new Promise<void>(done => {
        document
          .querySelector('[data-row=l7] [data-col=each] input')!
          .dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }))
        requestAnimationFrame(() => setTimeout(done))
      }),
  )
  const after = await scripting()
  if ((await page.locator('[aria-label^="Line 7:"]').getAttribute('aria-label')) === label)
    throw new Error('The strip did not follow the edit within a frame.')
  if (i >= 5) times.push({ script: after.script - before.script, layout: after.layout - before.layout })
  await page.locator('[data-row=l7] [data-col=each]').click()
}
const median = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)]!
const script = median(times.map(t => t.script))
const layout = median(times.map(t => t.layout))
console.log(
  `400 lines, edit to repainted strip: scripting / one 60 Hz frame = ` +
    `${(script / frameMs).toFixed(2)}, style and layout / frame = ${(layout / frameMs).toFixed(2)}   ` +
    `(${script.toFixed(1)} ms scripting)`,
)

await page.close()
for (let i = 0; i < 299; i++)
  await post('/api/builds', { from: 'class', name: `Build ${i}`, craftClass: '3-inch ultralight' })
const emptyEntry = 'bench/empty-app/.output/server/index.mjs'
if (!existsSync(emptyEntry)) spawnSync('npx', ['nuxt', 'build', 'bench/empty-app'], { stdio: 'ignore' })
const empty = await startBuilt(emptyEntry, {})
const shelfTimes: number[] = []
const wholeTimes: number[] = []
const emptyTimes: number[] = []
for (let i = 0; i < 5; i++) {
  const fresh = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  const from = performance.now()
  await fresh.goto(address, { waitUntil: 'commit' })
  // The cards of the first screen are there and a frame has been painted with them.
  await fresh.waitForFunction(() => document.querySelectorAll('article').length > 0)
  await fresh.evaluate(() => new Promise(done => requestAnimationFrame(() => setTimeout(done))))
  shelfTimes.push(performance.now() - from)
  await fresh.waitForFunction(() => document.querySelectorAll('article').length === 300)
  wholeTimes.push(performance.now() - from)
  await fresh.context().close()

  const beside = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  const emptyFrom = performance.now()
  await beside.goto(empty.address, { waitUntil: 'commit' })
  await beside.getByRole('heading', { name: 'Empty' }).waitFor()
  await beside.evaluate(() => new Promise(done => requestAnimationFrame(() => setTimeout(done))))
  emptyTimes.push(performance.now() - emptyFrom)
  await beside.context().close()
}
empty.server.kill()
console.log(
  `shelf of 300 builds, navigation to paint / one second = ` +
    `${(median(shelfTimes) / 1000).toFixed(2)}, to the last card / one second = ` +
    `${(median(wholeTimes) / 1000).toFixed(2)}; the empty page beside it ${(median(emptyTimes) / 1000).toFixed(2)}`,
)
await browser.close()
server.kill()
rmSync(folder, { recursive: true })

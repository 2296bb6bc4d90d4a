/**
 * A journal of 100,000 entries. In Chromium: Record opened against the page of the ledger, and frames a second while the
 * slider of Any day is pulled, against the same page at rest. The weights of every day, made the first time, in seconds.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { findChromium } from '../scripts/chromium.mjs'
import { startBuilt } from './built-server'

const entries = 100_000
const atOnce = 32
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
// Without the history it came with, whose weeks would press everything written here into one point of the axis.
const file = JSON.parse(readFileSync('demo/builds/nougat.build.json', 'utf8')) as object
const body = JSON.stringify({ ...file, journal: [], flights: [], findings: [], settings: [] })
await fetch(`${address}/api/builds/import`, { method: 'POST', body })
let { revision } = (await (await fetch(`${address}/api/builds/nougat`)).json()) as { revision: number }
for (let at = 0; at < entries; at += atOnce) {
  const commands = Array.from({ length: atOnce }, (_, i) => {
    const n = at + i
    const mass = {
      ...{ versionId: `n${n}`, evidence: 'weighed', valueG: 4 + (n % 97) / 50, valueCount: 1, resolutionG: 0.01 },
      ...{
        pieceReadingsG: null,
        halfRangeG: null,
        ownSpreadG: null,
        basis: 'as fitted',
        origin: 'typed',
        weighing: null,
      },
    }
    // A whole journal of grams would be larger than a build may be: most entries are small ones.
    const command =
      n % 20 === 0
        ? { type: 'lines.change', changes: [{ id: n % 40 === 0 ? 'strap' : 'pad', fields: { mass } }] }
        : { type: 'build.set', fields: { craftClass: `class ${n}` } }
    return { command, note: '', key: `n.${n}` }
  })
  const answer = await fetch(`${address}/api/builds/nougat/commands/many`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'if-match': `"${revision}"` },
    body: JSON.stringify({ commands }),
  })
  if (!answer.ok) throw new Error(await answer.text())
  ;({ revision } = (await answer.json()) as { revision: number })
}

const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
const median = (times: number[]) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!
async function openedMs(path: string, shown: string): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const from = performance.now()
  await page.goto(address + path)
  await page.locator(shown).first().waitFor()
  const ms = performance.now() - from
  await page.close()
  return ms
}
const [ledger, record]: [number[], number[]] = [[], []]
for (let i = 0; i < 7; i++) {
  ledger.push(await openedMs('/builds/nougat/parts', '[data-row=strap]'))
  record.push(await openedMs('/builds/nougat/record', '.journal-list tbody tr.day'))
}
console.log(`ledger opened: ${median(ledger).toFixed(0)} ms`)
console.log(`Record opened (at most 2): ${(median(record) / median(ledger)).toFixed(2)} of it`)

const first = performance.now()
const { moments } = (await (await fetch(`${address}/api/builds/nougat/weights`)).json()) as { moments: object[] }
console.log(
  `weights of ${moments.length} moments, the first time: ${((performance.now() - first) / 1000).toFixed(1)} s`,
)
const again = performance.now()
await (await fetch(`${address}/api/builds/nougat/weights`)).json()
console.log(`and again: ${((performance.now() - again) / 1000).toFixed(1)} s`)

const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${address}/builds/nougat/record?view=day`)
await page.locator('.weight-history svg path.line').waitFor({ timeout: 60_000 })
await page.waitForTimeout(1500)
/** Frames of four seconds; the slider is pulled to and fro with every one, or left alone. */
async function framesASecond(of: Page, pulled: boolean): Promise<{ perSecond: number; states: number }> {
  const counting = of.evaluate(
    () =>
      new Promise<number>(done => {
        const from = performance.now()
        let drawn = 0
        const step = (now: number) => {
          drawn++
          if (now - from < 4000) requestAnimationFrame(step)
          else done((1000 * drawn) / (now - from))
        }
        requestAnimationFrame(step)
      }),
  )
  const states = new Set<string>()
  if (pulled) {
    const box = (await of.locator('.slider .el-slider__runway').boundingBox())!
    const y = box.y + box.height / 2
    await of.mouse.move(box.x + box.width - 2, y)
    await of.mouse.down()
    const until = performance.now() + 3900
    for (let i = 0; performance.now() < until; i++) {
      await of.mouse.move(box.x + box.width * (0.5 + 0.48 * Math.cos(i / 25)), y)
      states.add(
        (await of
          .locator('[data-test=auw-then]')
          .textContent({ timeout: 5000 })
          .catch(() => '')) ?? '',
      )
    }
    await of.mouse.up()
  }
  return { perSecond: await counting, states: states.size }
}
const rest = await framesASecond(page, false)
const pulled = await framesASecond(page, true)
console.log(`page at rest: ${rest.perSecond.toFixed(1)} frames a second`)
console.log(
  `slider pulled (at least 30): ${pulled.perSecond.toFixed(1)}, ${(pulled.perSecond / rest.perSecond).toFixed(2)} of it; ` +
    `${pulled.states} different weights shown`,
)
await browser.close()
server.kill()
rmSync(folder, { recursive: true, force: true })

/**
 * In Chromium: frames a second of the Shave page while its worker solves plan and frontier of 60 and of 200 shavings,
 * against the same page at rest.
 */
import { findChromium } from '../scripts/chromium.mjs'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { makeShaving } from '../core/deciding/shave'
import { startBuilt } from './built-server'
import { seeded } from './measure'

const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
await fetch(`${address}/api/builds/import`, { method: 'POST', body: readFileSync('demo/builds/nougat.build.json') })
const revisionNow = async () =>
  ((await (await fetch(`${address}/api/builds/nougat`)).json()) as { revision: number }).revision
async function put(count: number) {
  const random = seeded(count)
  const lines = ['motors', 'screws', 'strap', 'vtx', 'frame', 'lead']
  for (let i = 0; i < count; i++) {
    const gramsG = Math.round((0.02 + random() * 0.3) * 1000) / 1000
    const shaving = makeShaving({
      id: `bench${i}`,
      what: `shaving ${i}`,
      kind: 'other',
      lineId: lines[i % lines.length]!,
      gramsG,
      cents: Math.round(gramsG * 400 * (0.7 + random() * 0.6)),
      minutes: Math.floor(random() * 60),
      excludes: i % 10 === 1 ? [`bench${i - 1}`] : [],
    })
    const answer = await fetch(`${address}/api/builds/nougat/commands`, {
      method: 'POST',
      headers: { 'if-match': `"${await revisionNow()}"` },
      body: JSON.stringify({ command: { type: 'shaving.put', shaving } }),
    })
    if (!answer.ok && answer.status !== 409) throw new Error(await answer.text())
  }
}

const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
/** Frames a second from now until the page says it is done, and the longest time between two. */
const framesUntil = (page: Page, over: string) =>
  page.evaluate(
    selector =>
      new Promise<{ perSecond: number; longestMs: number; seconds: number }>(done => {
        const from = performance.now()
        let [frames, last, longestMs] = [0, from, 0]
        const step = (now: number) => {
          frames++
          longestMs = Math.max(longestMs, now - last)
          last = now
          const seconds = (now - from) / 1000
          if (seconds > 1 && (seconds > 30 || selector === '' ? seconds > 3 : !document.querySelector(selector)))
            done({ perSecond: frames / seconds, longestMs, seconds })
          else requestAnimationFrame(step)
        }
        requestAnimationFrame(step)
      }),
    over,
  )

for (const count of [60, 200]) {
  await put(count)
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(`${address}/builds/nougat/shave`)
  const stop = '[data-test=plan-sentence] button:text-is("Stop")'
  await page.locator(stop).waitFor({ state: 'detached', timeout: 60_000 })
  const rest = await framesUntil(page, '')
  await page.getByLabel('draw the cheapest way to every weight').check()
  await page.locator('[data-busy=true]').waitFor()
  const solving = await framesUntil(page, '[data-busy=true]')
  console.log(
    `${count} shavings: frames while solving / at rest = ` +
      `${(solving.perSecond / rest.perSecond).toFixed(2)}   (${solving.perSecond.toFixed(0)} a second ` +
      `over ${solving.seconds.toFixed(1)} s, ${solving.perSecond >= 50 ? '' : 'NOT '}at least 50; ` +
      `longest between two frames ${solving.longestMs.toFixed(0)} ms)`,
  )
  await page.close()
}
await browser.close()
server.kill()
rmSync(folder, { recursive: true })

/**
 * In Chromium: frames a second of a drawer of 20,000 parts while it is scrolled by the wheel, and how many of the frames
 * show no row at all, against the same page at rest.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { findChromium } from '../scripts/chromium.mjs'
import { startBuilt } from './built-server'
import { seeded } from './measure'

const count = 20_000
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
const random = seeded(7)
for (let at = 0; at < count; at += 2000) {
  const rows = Array.from({ length: 2000 }, (_, i) => ({
    id: `part-${at + i}`,
    slot: i % 3 === 0 ? 'motor' : i % 3 === 1 ? 'screw' : 'camera',
    name: `Part number ${at + i} of the bench`,
    owned: 1 + Math.floor(random() * 9),
    listed: { valueG: Math.round(random() * 2000) / 100, resolutionG: 0.01 },
    bag: `Bag ${i % 40}`,
  }))
  const answer = await fetch(`${address}/api/parts/rows`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': `rows-${at}` },
    body: JSON.stringify({ rows }),
  })
  if (!answer.ok) throw new Error(await answer.text())
}
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${address}/drawer`)
await page.locator('[role=grid] [data-col=name]').first().waitFor({ timeout: 60_000 })
await page.waitForFunction(() => performance.getEntriesByName('pages loaded ahead').length > 0, null, {
  timeout: 60_000,
})

/** Frames for three seconds, the sheet moved on by `perFrame` pixels in each; how many of them had no row in the middle. */
const frames = (perFrame: number) =>
  page.evaluate(
    by =>
      new Promise<{ perSecond: number; longestMs: number; empty: number; frames: number; movedPx: number }>(done => {
        const sheet = document.querySelector('[role=grid] .rows')!
        sheet.scrollTop = 0
        const box = sheet.getBoundingClientRect()
        const from = performance.now()
        let [drawn, empty, last, longestMs] = [0, 0, from, 0]
        const step = (now: number) => {
          drawn++
          longestMs = Math.max(longestMs, now - last)
          last = now
          const middle = document.elementFromPoint(
            box.x + box.width / 3,
            (box.y + Math.min(box.bottom, innerHeight)) / 2,
          )
          if (!middle?.closest('[role=row]')) empty++
          if (now - from > 3000)
            done({
              perSecond: (1000 * drawn) / (now - from),
              longestMs,
              empty,
              frames: drawn,
              movedPx: sheet.scrollTop,
            })
          else {
            sheet.scrollTop += by
            requestAnimationFrame(step)
          }
        }
        requestAnimationFrame(step)
      }),
    perFrame,
  )
const rest = await frames(0)
for (const perFrame of [40, 400]) {
  const moved = await frames(perFrame)
  console.log(
    `drawer of ${count}: frames while scrolled ${perFrame} px a frame / at rest = ${(moved.perSecond / rest.perSecond).toFixed(2)}   ` +
      `(${moved.perSecond.toFixed(0)} a second, ${moved.perSecond >= 55 ? '' : 'NOT '}at least 55; longest between two ` +
      `${moved.longestMs.toFixed(0)} ms; ${moved.empty} of ${moved.frames} without rows; ${moved.movedPx} px)`,
  )
}
await browser.close()
server.kill()
rmSync(folder, { recursive: true })

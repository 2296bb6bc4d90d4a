/**
 * In Chromium: frames a second while the pack of a craft of 60 pieces is dragged in the drawing from above, with all
 * drawings, figures and sentences following, against the same page at rest.
 */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { findChromium } from '../scripts/chromium.mjs'
import { startBuilt } from './built-server'

const pieces = 60
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
async function send(path: string, body: string, revision?: number) {
  const answer = await fetch(address + path, {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json', ...(revision ? { 'if-match': `"${revision}"` } : {}) },
  })
  if (!answer.ok) throw new Error(await answer.text())
}
await send('/api/builds/import', readFileSync('demo/builds/marzipan.build.json', 'utf8'))
const { build, revision } = (await (await fetch(`${address}/api/builds/marzipan`)).json()) as {
  build: { lines: { id: string; slot: string }[] }
  revision: number
}
const receiver = build.lines.find(line => line.slot === 'receiver')!
const lines = Array.from({ length: 40 }, (_, i) => ({ ...receiver, id: `more-${i}`, name: `Piece ${i}`, mass: null }))
const command = { type: 'lines.add', lines, beforeId: null }
await send('/api/builds/marzipan/commands', JSON.stringify({ command, note: '' }), revision)

const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${address}/builds/marzipan/balance`)
await page.locator('.above [data-piece="p7#0"]').waitFor({ timeout: 60_000 })
await page.waitForFunction(() => performance.getEntriesByName('pages loaded ahead').length > 0, null, {
  timeout: 60_000,
})
const drawn = await page.locator('.above [data-piece]').count()
if (drawn < pieces) throw new Error(`Only ${drawn} pieces are drawn.`)

/** Frames of the first second, whose code the browser has never run, and of the three after it. */
const frames = (moves: boolean) =>
  page.evaluate(
    isMoved =>
      new Promise<{ first: number; perSecond: number; longestMs: number; shown: number }>(done => {
        const pack = document.querySelector('.above [data-piece="p7#0"]')!
        const box = pack.getBoundingClientRect()
        const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
        const at = (type: string, clientX: number) =>
          pack.dispatchEvent(
            new PointerEvent(type, { bubbles: true, clientX, clientY: y, button: 0, pointerId: 1, isPrimary: true }),
          )
        const svg = pack.closest('svg')!
        svg.setPointerCapture = () => undefined
        const offsets = new Set<string>()
        const from = performance.now()
        let [count, first, last, longestMs] = [0, 0, from, 0]
        if (isMoved) at('pointerdown', x)
        const step = (now: number) => {
          count++
          if (now - from < 1000) first = count
          else longestMs = Math.max(longestMs, now - last)
          last = now
          offsets.add(document.querySelector('.offset')!.textContent!)
          if (now - from > 4000) {
            if (isMoved) at('pointerup', x)
            done({ first, perSecond: (1000 * (count - first)) / (now - from - 1000), longestMs, shown: offsets.size })
            return
          }
          if (isMoved) at('pointermove', x + 30 * Math.sin(count / 12))
          requestAnimationFrame(step)
        }
        requestAnimationFrame(step)
      }),
    moves,
  )
const rest = await frames(false)
const moved = await frames(true)
console.log(
  `${drawn} pieces: frames while the pack is dragged / at rest = ${(moved.perSecond / rest.perSecond).toFixed(2)}   ` +
    `(${moved.perSecond.toFixed(0)} a second, ${moved.first} in the first, ` +
    `${moved.perSecond >= 55 ? '' : 'NOT '}at least 55; longest between two ` +
    `${moved.longestMs.toFixed(0)} ms; ${moved.shown} different offsets shown)`,
)
await browser.close()
server.kill()
rmSync(folder, { recursive: true })

/**
 * In Chromium: frames a second of Fly while a log of 200,000 rows of 12 columns is read, worked out and drawn, against the
 * same page at rest; the time it takes against the same text parsed in the page; and what its process holds of memory.
 */
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import Papa from 'papaparse'
import { findChromium } from '../scripts/chromium.mjs'
import { flyAndLog, logText, usualFlight } from '../simulators/telemetry/flight-log'
import { startBuilt } from './built-server'

const rows = 200_000
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const lines = logText(flyAndLog({ ...usualFlight, rowsPerSecond: 500, lostShare: 0 }).rows).split('\n')
const more = ',1.25,2.5,0,17,-3.125,88,1013.2'
const text = [
  `${lines[0]},a1,a2,a3,a4,a5,a6,a7`,
  ...Array.from({ length: rows }, (_, i) => {
    const line = lines[1 + (i % (lines.length - 1))]!
    return `${(i / 500).toFixed(3)}${line.slice(line.indexOf(','))}${more}`
  }),
].join('\n')
const path = join(folder, 'log.csv')
writeFileSync(path, text)
const parsed = Array.from({ length: 5 }, () => {
  const from = performance.now()
  Papa.parse<string[]>(text)
  return performance.now() - from
}).sort((a, b) => a - b)[2]!

const { address, server } = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
await fetch(`${address}/api/builds/import`, { method: 'POST', body: readFileSync('demo/builds/nougat.build.json') })
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})
/** The largest renderer of this browser, MB of memory that is its own. */
function rendererMb(): number {
  const sizes = readdirSync('/proc').flatMap(pid => {
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8')
      if (!command.includes('--type=renderer')) return []
      const found = /^RssAnon:\s+(\d+) kB/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))
      return found ? [Number(found[1]) / 1024] : []
    } catch {
      return []
    }
  })
  return Math.max(0, ...sizes)
}
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${address}/builds/nougat/fly?view=log`)
await page.locator('input[type=file]').waitFor({ state: 'attached' })
await page.waitForFunction(() => performance.getEntriesByName('pages loaded ahead').length > 0)
const framesUntil = (selector: string) =>
  page.evaluate(
    wanted =>
      new Promise<{ perSecond: number; longestMs: number; ms: number }>(done => {
        const from = performance.now()
        let [frames, last, longestMs] = [0, from, 0]
        const step = (now: number) => {
          frames++
          longestMs = Math.max(longestMs, now - last)
          last = now
          const ms = now - from
          if (wanted === '' ? ms > 3000 : document.querySelector(wanted))
            done({ perSecond: (1000 * frames) / ms, longestMs, ms })
          else requestAnimationFrame(step)
        }
        requestAnimationFrame(step)
      }),
    selector,
  )
const before = rendererMb()
const rest = await framesUntil('')
const reading = framesUntil('[data-test=log-resistance]')
await page.locator('input[type=file]').setInputFiles(path)
let most = 0
const watching = setInterval(() => {
  most = Math.max(most, rendererMb())
}, 40)
const while_ = await reading
clearInterval(watching)
console.log(
  `${rows} rows of 12 columns: frames while read / at rest = ${(while_.perSecond / rest.perSecond).toFixed(2)}   ` +
    `(${while_.perSecond.toFixed(0)} a second; longest between two ${while_.longestMs.toFixed(0)} ms)`,
)
console.log(
  `chosen, read, worked out and drawn / the bare parser's arrays = ${(while_.ms / parsed).toFixed(2)}   ` +
    `(${while_.ms.toFixed(0)} ms against ${parsed.toFixed(0)} ms; at most 2.5)`,
)
console.log(`memory of the page: ${before.toFixed(0)} MB before, ${most.toFixed(0)} MB at most (under 250 MB asked)`)
await browser.close()
server.kill()
rmSync(folder, { recursive: true })

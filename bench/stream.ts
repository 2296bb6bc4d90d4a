/**
 * The Weigh page under a scale that sends 50 readings a second: frames against the same page with a silent scale, and
 * memory over ten minutes' worth of readings.
 */
import { findChromium } from '../scripts/chromium.mjs'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type CDPSession, type Page } from '@playwright/test'
import { startStandIn } from '../simulators/scale/stand-in'
import { startBuilt } from './built-server'

const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const { address, server } = await startBuilt(
  join(process.cwd(), '.output/server/index.mjs'),
  { JOLLY_GRAM_DATA: folder },
  '/api/health',
)
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--enable-precise-memory-info',
  ],
})

async function send(method: string, path: string, body: unknown) {
  const answer = await fetch(address + path, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  if (!answer.ok) throw new Error(await answer.text())
  return answer.json()
}
/** Frames a second over ten seconds of the page. */
const frames = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>(done => {
        let count = 0
        const from = performance.now()
        const tick = () => {
          count++
          if (performance.now() - from < 10_000) requestAnimationFrame(tick)
          else done(count / 10)
        }
        requestAnimationFrame(tick)
      }),
  )
async function heapMb(session: CDPSession): Promise<number> {
  await session.send('HeapProfiler.collectGarbage')
  return (await session.send('Runtime.getHeapUsage')).usedSize / 1e6
}
async function withScale<T>(readingsPerSecond: number, work: () => Promise<T>): Promise<T> {
  const standIn = await startStandIn({ scalePort: 0, controlPort: 0, readingsPerSecond })
  await fetch(`http://127.0.0.1:${standIn.controlPort}/pan`, {
    method: 'PUT',
    body: JSON.stringify({ masses: [{ name: 'part', massG: 12.3 }] }),
  })
  const settings = await (await fetch(`${address}/api/settings`)).json()
  await send('PUT', '/api/settings', { ...settings, benchScale: `127.0.0.1:${standIn.scalePort}` })
  try {
    return await work()
  } finally {
    await standIn.stop()
  }
}

const { id } = await send('POST', '/api/builds', { from: 'class', name: 'Bench', craftClass: '3-inch ultralight' })
await send('PUT', '/api/scales/blue', {
  name: 'blue',
  resolutionG: 0.01,
  capacityG: 200,
  repeatabilityG: 0.008,
  checkIntervalDays: 30,
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`${address}/builds/${id}/weigh`)
await page.getByRole('heading', { name: 'Weigh', exact: true }).waitFor()
const quiet = await frames(page)
await withScale(50, async () => {
  await page.getByText('steady for').waitFor()
  const busy = await frames(page)
  console.log(
    `frames a second, 50 readings a second / no scale = ${(busy / quiet).toFixed(2)}   (${busy.toFixed(1)} / ${quiet.toFixed(1)})`,
  )
})
await withScale(500, async () => {
  await page.getByText('steady for').waitFor()
  const session = await page.context().newCDPSession(page)
  await page.waitForTimeout(12_000)
  const before = await heapMb(session)
  await page.waitForTimeout(60_000)
  const after = await heapMb(session)
  console.log(
    `memory after ten minutes' worth of readings / before = ${(after / before).toFixed(3)}   ` +
      `(${before.toFixed(1)} → ${after.toFixed(1)} MB)`,
  )
})
await browser.close()
server.kill()
rmSync(folder, { recursive: true })

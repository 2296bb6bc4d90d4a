/** From starting the server to the first heading on the screen, against an empty Nuxt application built the same way. */
import { findChromium } from '../scripts/chromium.mjs'
import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { startBuilt } from './built-server'

const emptyEntry = 'bench/empty-app/.output/server/index.mjs'
if (!existsSync(emptyEntry)) spawnSync('npx', ['nuxt', 'build', 'bench/empty-app'], { stdio: 'ignore' })
const folder = mkdtempSync(join(tmpdir(), 'bench-'))
const browser = await chromium.launch({
  executablePath: findChromium() ?? undefined,
  args: ['--no-sandbox', '--disable-quic', '--disable-background-networking'],
})

const first = await startBuilt('.output/server/index.mjs', { JOLLY_GRAM_DATA: folder }, '/api/health')
for (const name of ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle'])
  await fetch(`${first.address}/api/builds/import`, {
    method: 'POST',
    body: readFileSync(`demo/builds/${name}.build.json`),
  })
first.server.kill()

async function toFirstPage(entry: string, heading: string): Promise<number> {
  const page = await (await browser.newContext()).newPage()
  const from = performance.now()
  const { address, server } = await startBuilt(entry, { JOLLY_GRAM_DATA: folder })
  await page.goto(address)
  await page.getByRole('heading', { name: heading }).waitFor()
  const took = performance.now() - from
  await page.context().close()
  server.kill()
  return took
}
const ours: number[] = []
const empty: number[] = []
for (let i = 0; i < 31; i++) {
  empty.push(await toFirstPage(emptyEntry, 'Empty'))
  ours.push(await toFirstPage('.output/server/index.mjs', 'Shelf'))
}
const median = (list: number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]!
console.log(
  `start to first page: ours / empty Nuxt app = ${median(ours.map((took, i) => took / empty[i]!)).toFixed(2)}   ` +
    `(median of 31 pairs; ours ${median(ours).toFixed(0)} ms, the empty one ${median(empty).toFixed(0)} ms)`,
)
await browser.close()
rmSync(folder, { recursive: true })

import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { freePort, take } from './server'

/** The demo as its command starts it; resolves with its address once it has printed it. */
async function startDemo(folder: string, port: number): Promise<{ demo: ChildProcess; said: string }> {
  const demo = spawn(process.execPath, ['scripts/demo.mjs'], {
    env: { ...process.env, JOLLY_GRAM_DATA: folder, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const said = await new Promise<string>(done => {
    let text = ''
    demo.stdout!.on('data', chunk => {
      text += String(chunk)
      if (text.includes('with its demo data is at')) done(text)
    })
  })
  return { demo, said }
}
async function stop(demo: ChildProcess): Promise<void> {
  const ended = new Promise(done => demo.once('exit', done))
  demo.kill('SIGTERM')
  await ended
}

test('the demo starts with five builds, two scales and a practice pan, and is found again as it was left', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const folder = mkdtempSync(join(tmpdir(), 'demo-'))
  const port = await freePort()
  const address = `http://127.0.0.1:${port}`
  const first = await startDemo(folder, port)
  await page.goto(address)
  await expect(page.getByRole('article')).toHaveCount(5)
  await page.goto(`${address}/scales`)
  await expect(page.getByRole('region', { name: 'blue pocket scale' })).toContainText('It has drifted')
  await page.goto(`${address}/builds/marzipan/weigh`)
  await page.getByText('Practice pan').click()
  await page.getByTestId('practice-put').click()
  await expect(page.getByTestId('steadiness')).toContainText('steady for')
  await expect(page.getByTestId('pan')).toContainText(/1[5-9]\.\d\d/)
  await page.getByRole('heading', { name: 'Weigh', exact: true }).click()
  await take(page, async () => (await page.getByTestId('verdict').textContent()) === 'Clear')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await stop(first.demo)

  const second = await startDemo(folder, port)
  expect(second.said).toContain('as you left it')
  await page.goto(`${address}/builds/marzipan/parts?line=vtx`)
  await expect(page.getByTestId('verdict')).toHaveText('Clear')
  await expect(page.getByRole('complementary')).toContainText('Weighed on blue pocket scale')
  await stop(second.demo)
  rmSync(folder, { recursive: true })
})

import { execFile } from 'node:child_process'
import { existsSync, mkdirSync, readdirSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from './server'

const run = promisify(execFile)
const jiti = 'node_modules/jiti/lib/jiti-cli.mjs'

test('everything in one file, kept and put back: what was written since is gone from the pages and kept beside', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan', 'nougat')
  await app.goto(`${server.address}/settings#archive`)
  const panel = app.locator('#archive')
  await expect(panel.getByText('There is no copy yet.')).toBeVisible()
  const coming = app.waitForEvent('download')
  await panel.getByRole('link', { name: 'Keep everything in one file' }).click()
  const file = (await (await coming).path())!
  await panel.getByRole('button', { name: 'Make a copy beside the data now' }).click()
  await expect(panel.getByRole('button', { name: /^Check the copy of/ })).toHaveCount(1)

  await server.bringIn('praline')
  await panel.locator('input[type=file]').setInputFiles(file)
  const beside = panel.getByRole('group', { name: 'The archive beside what is here' })
  await expect(beside).toContainText('Checked whole')
  await expect(beside.getByRole('row', { name: /^In all/ })).toContainText(/2 builds.*3 builds/)
  await expect(beside.getByRole('row', { name: /^Praline/ })).toContainText('not there')
  await beside.getByRole('button', { name: 'Restore' }).click()
  const opened = app.waitForEvent('load')
  await app.getByRole('dialog').getByRole('button', { name: 'Restore' }).click()
  await opened
  await expect(panel.getByRole('button', { name: 'Make a copy beside the data now' })).toBeVisible()
  const names = async () =>
    (await server.json<{ entries: { name: string }[] }>('/api/builds')).entries.map(({ name }) => name)
  expect(await names()).toEqual(['Marzipan', 'Nougat'])
  expect(readdirSync(join(server.folder, 'replaced'))).toHaveLength(1)
  expect(
    existsSync(join(server.folder, 'replaced', readdirSync(join(server.folder, 'replaced'))[0]!, 'jolly-gram.sqlite')),
  ).toBe(true)
  await server.kill()
  await server.start()
  expect(await names()).toEqual(['Marzipan', 'Nougat'])
})

test('an edit that waits for the old data goes to the list of what could not be written, not into the restored ones', async ({
  app,
  server,
}) => {
  await server.bringIn('marzipan')
  const file = join(server.folder, 'all.zip')
  await run('node', [jiti, 'scripts/archive.ts', file, '--data', server.folder])
  await app.goto(`${server.address}/builds/marzipan/parts?line=strap`)
  await expect(app.getByRole('heading', { name: 'Parts' })).toBeVisible()
  const field = app.getByLabel('Note', { exact: true }).first()
  await server.kill()
  await field.fill('typed while nobody was there')
  await field.blur()
  await expect(app.getByText(/not written yet|waits/).first()).toBeVisible()
  await run('node', [jiti, 'scripts/restore.ts', file, '--data', server.folder, '--yes'])
  const anew = app.waitForEvent('load', { timeout: 30_000 })
  await server.start()
  await anew
  const waiting = app.getByRole('button', { name: /1 not written/ })
  await expect(waiting).toBeVisible({ timeout: 20_000 })
  await waiting.click()
  await expect(app.getByText('before an archive took the place', { exact: false }).first()).toBeVisible()
  const { build } = await server.json<{ build: { lines: { id: string; note: string }[] } }>('/api/builds/marzipan')
  expect(build.lines.find(({ id }) => id === 'strap')!.note).not.toContain('nobody was there')
})

test('by command: refused while the application runs, and with a file that is none', async ({ server }) => {
  await server.bringIn('sherbet')
  const file = join(server.folder, 'all.zip')
  const { stdout } = await run('node', [jiti, 'scripts/archive.ts', file, '--data', server.folder])
  expect(stdout).toContain('1 builds')
  await expect(run('node', [jiti, 'scripts/restore.ts', file, '--data', server.folder, '--yes'])).rejects.toMatchObject(
    {
      stderr: expect.stringContaining('in use by another start'),
    },
  )
  await server.kill()
  await expect(
    run('node', [jiti, 'scripts/restore.ts', 'package.json', '--data', server.folder, '--yes']),
  ).rejects.toMatchObject({ stderr: expect.stringContaining('not an archive') })
  await server.start()
  expect((await server.json<{ entries: object[] }>('/api/builds')).entries).toHaveLength(1)
})

test('files that nothing names any more are told before they are cleared away', async ({ app, server }) => {
  await server.bringIn('sherbet')
  const folder = join(server.folder, 'logs')
  mkdirSync(folder, { recursive: true })
  writeFileSync(join(folder, 'log-of-nobody.csv.gz'), Buffer.alloc(3_000_000))
  const longAgo = new Date('2026-01-01T10:00:00Z')
  utimesSync(join(folder, 'log-of-nobody.csv.gz'), longAgo, longAgo)
  await app.goto(`${server.address}/settings#archive`)
  await app.getByRole('button', { name: 'Look for them' }).click()
  await expect(app.getByText('0 pictures and one log, 3 MB')).toBeVisible()
  expect(readdirSync(folder)).toHaveLength(1)
  await app.getByRole('button', { name: 'Clear them away' }).click()
  await app.getByRole('dialog').getByRole('button', { name: 'Clear them away' }).click()
  await expect(app.getByText('There are none.')).toBeVisible()
  expect(readdirSync(folder)).toHaveLength(0)
})

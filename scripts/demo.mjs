import { spawn } from 'node:child_process'
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt, ensureInstalled, root, startServer } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
const dataFolder = process.env.JOLLY_GRAM_DATA ?? join(root, '.data/demo')
const database = join(dataFolder, 'jolly-gram.sqlite')
if (process.argv.includes('--fresh'))
  for (const ending of ['', '-wal', '-shm']) rmSync(database + ending, { force: true })
const isNew = !existsSync(database)
const standIn = await startStandIn()
const { address } = await startServer({
  dataFolder,
  port: process.env.PORT ?? 4251,
  environment: {
    JOLLY_GRAM_SCALE: `127.0.0.1:${standIn.scalePort}`,
    JOLLY_GRAM_PRACTICE: `http://127.0.0.1:${standIn.controlPort}`,
  },
})
if (isNew) {
  const folder = join(root, 'demo/builds')
  for (const name of ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle']) {
    const file = readdirSync(folder).find(entry => entry === `${name}.build.json`)
    const answer = await fetch(`${address}/api/builds/import`, {
      method: 'POST',
      body: readFileSync(join(folder, file)),
    })
    if (!answer.ok) {
      console.error(`The demo build ${file} was refused: ${await answer.text()}`)
      process.exit(1)
    }
  }
}
if ((await (await fetch(`${address}/api/scales`)).json()).scales.length === 0) await loadScales()
if (isNew) {
  await loadDrawer()
  await loadLogs()
}
console.log(
  `Jolly Gram with its demo data is at ${address}${isNew ? '' : ' (as you left it; “npm run demo -- --fresh” starts over)'}`,
)

/** Starts the stand-in scale as a process of its own; resolves with its ports. */
function startStandIn() {
  const child = spawn(
    process.execPath,
    [join(root, 'node_modules/jiti/lib/jiti-cli.mjs'), join(root, 'simulators/scale/main.ts'), '0', '0'],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  )
  process.on('exit', () => child.kill())
  return new Promise((done, fail) => {
    child.stdout.once('data', text => done(JSON.parse(text)))
    child.once('exit', code => fail(new Error(`The practice scale did not start (${code}).`)))
  })
}

async function send(method, path, data) {
  const answer = await fetch(address + path, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(data),
  })
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
}

/** What lies in the drawer beyond the builds, and what the builder flies with on the ground. */
async function loadDrawer() {
  const { gear, kits, parts } = JSON.parse(readFileSync(join(root, 'demo/drawer.json'), 'utf8'))
  await send('PUT', '/api/settings', { ...(await (await fetch(`${address}/api/settings`)).json()), gear })
  await send('POST', '/api/parts', { parts: parts.map(part => ({ ...part, kitId: null })) })
  for (const kit of kits)
    await send('PUT', `/api/kits/${kit.id}`, { kit, parts: parts.filter(part => part.kitId === kit.id) })
}

/** Two scales, one of them drifting, the masses they are checked with, and their checks, counted back from today. */
async function loadScales() {
  const { references, scales, checks } = JSON.parse(readFileSync(join(root, 'demo/scales.json'), 'utf8'))
  for (const { id, ...fields } of references) await send('PUT', `/api/references/${id}`, fields)
  for (const { id, ...fields } of scales) await send('PUT', `/api/scales/${id}`, fields)
  for (const { scaleId, daysAgo, placings } of checks) {
    const placed = placings.map(({ on, displayG }) => ({
      displayG,
      references: on
        .map(id => references.find(r => r.id === id))
        .map(({ id, massG, toleranceG }) => ({ id, massG, toleranceG })),
    }))
    await send('POST', `/api/scales/${scaleId}/checks`, {
      takenAt: new Date(Date.now() - daysAgo * 86_400_000).toISOString(),
      placings: placed,
    })
  }
}

/** Logs of three flights lie beside the database, each named by its flight. */
async function loadLogs() {
  const folder = join(root, 'demo/logs')
  for (const name of readdirSync(folder)) {
    const answer = await fetch(`${address}/api/logs`, { method: 'POST', body: readFileSync(join(folder, name)) })
    if (!answer.ok) throw new Error(await answer.text())
    const { id: logId } = await answer.json()
    const change = { kind: 'flight', id: name.replace('.csv.gz', ''), set: { logId } }
    await send('POST', '/api/kept/flights', { edits: [{ changes: [change] }] })
  }
}

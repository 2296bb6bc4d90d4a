/** What the commands share: install when something is missing, build when something changed, run a program. */
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'

export const root = resolve(import.meta.dirname, '..')
const changedAt = path => (existsSync(path) ? statSync(path).mtimeMs : 0)

/** Runs a program in the project's folder with its output shown; ends this process when it fails. */
export function run(command, args, environment = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...environment } })
  if (status !== 0) process.exit(status ?? 1)
}

/** `npm ci` when nothing is installed, or something older than the lock file. */
export function ensureInstalled() {
  if (changedAt(join(root, 'node_modules/.package-lock.json')) >= changedAt(join(root, 'package-lock.json'))) return
  console.log('Installing what is missing (a few minutes the first time) …')
  run('npm', ['ci', '--no-audit', '--no-fund'])
}

function newestIn(folder) {
  let newest = 0
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    newest = Math.max(newest, changedAt(path), entry.isDirectory() ? newestIn(path) : 0)
  }
  return newest
}

/** Builds when the built server is missing or older than a source. */
export function ensureBuilt() {
  const sources = ['app', 'core', 'public', 'server', 'shared'].map(folder => newestIn(join(root, folder)))
  const files = ['nuxt.config.ts', 'package-lock.json'].map(file => changedAt(join(root, file)))
  if (changedAt(join(root, '.output/server/index.mjs')) > Math.max(...sources, ...files)) return
  console.log('Building (about half a minute) …')
  run('npx', ['nuxt', 'build'])
}

/**
 * Starts the built server on loopback with a data folder of its own; resolves once it answers.
 * Ends this process when the server ends first.
 */
export async function startServer({ dataFolder, port, environment = {} }) {
  const lan = process.argv.includes('--lan')
  const host = lan ? '0.0.0.0' : (process.env.HOST ?? '127.0.0.1')
  if (!lan && !/^(127\.|localhost$|::1$)/.test(host)) {
    console.error(
      `HOST=${host} would open the application to the network. Say “--lan” for that: it asks for a passphrase.`,
    )
    process.exit(2)
  }
  const server = spawn(process.execPath, [join(root, '.output/server/index.mjs')], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      HOST: host,
      NITRO_HOST: host,
      PORT: String(port),
      NITRO_PORT: String(port),
      JOLLY_GRAM_DATA: dataFolder,
      JOLLY_GRAM_LAN: lan ? '1' : '',
      ...environment,
    },
  })
  let ready = false
  // With the server goes everything that was started beside it.
  server.on('exit', code => {
    if (!ready && code !== 2)
      console.error(`The server did not start. If port ${port} is taken, choose another: PORT=4300`)
    process.exit(ready ? (code ?? 0) : code || 1)
  })
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
  const address = lan ? `http://127.0.0.1:${port}` : `http://${host.includes(':') ? `[${host}]` : host}:${port}`
  for (;;) {
    const answer = await fetch(`${address}/api/health`).catch(() => null)
    if (answer?.ok) {
      ready = true
      if (lan) console.log('Open on the network, with the passphrase. Settings shows a code for the phone.')
      return { address, server }
    }
    await new Promise(done => setTimeout(done, 40))
  }
}

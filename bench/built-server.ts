import { spawn, type ChildProcess } from 'node:child_process'
import { createServer } from 'node:net'

export async function freePort(): Promise<number> {
  return new Promise(done => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

/** Starts a built Nuxt server on a free port and waits until `path` answers. */
export async function startBuilt(
  entry: string,
  environment: Record<string, string>,
  path = '/',
): Promise<{ address: string; server: ChildProcess; readyMs: number }> {
  const port = await freePort()
  const from = performance.now()
  const server = spawn(process.execPath, [entry], {
    stdio: 'ignore',
    env: { ...process.env, HOST: '127.0.0.1', PORT: String(port), ...environment },
  })
  const address = `http://127.0.0.1:${port}`
  const until = from + 20_000
  while (server.exitCode === null && performance.now() < until) {
    const answer = await fetch(address + path).catch(() => null)
    if (answer?.ok) return { address, server, readyMs: performance.now() - from }
    await new Promise(done => setTimeout(done, 3))
  }
  server.kill()
  throw new Error(`${entry} did not answer. Build first: npm run build`)
}

import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { test as base, expect, type Page } from '@playwright/test'

const root = resolve(import.meta.dirname, '..')

/**
 * Below those the system gives out by itself, and a stretch of their own for each process of the runner: nobody takes a
 * port between its being found free and its use.
 */
const [firstPort, portsEach, stretches] = [11_000, 40, 500]
let nextPort = 0

export async function freePort(): Promise<number> {
  for (;;) {
    const port = firstPort + (process.pid % stretches) * portsEach + (nextPort++ % portsEach)
    const isFree = await new Promise<boolean>(done => {
      const probe = createServer()
        .once('error', () => done(false))
        .listen(port, '127.0.0.1', () => probe.close(() => done(true)))
    })
    if (isFree) return port
  }
}

/** A built server on a data folder of its own. */
export class OwnServer {
  readonly folder = mkdtempSync(join(tmpdir(), 'e2e-'))
  address = ''
  private process: ChildProcess | null = null

  async start(environment: Record<string, string> = {}): Promise<void> {
    const port = this.address ? Number(new URL(this.address).port) : await freePort()
    this.address = `http://127.0.0.1:${port}`
    this.process = spawn(process.execPath, [join(root, '.output/server/index.mjs')], {
      stdio: 'ignore',
      env: { ...process.env, HOST: '127.0.0.1', PORT: String(port), JOLLY_GRAM_DATA: this.folder, ...environment },
    })
    await expect
      .poll(async () => (await fetch(`${this.address}/api/health`).catch(() => null))?.ok ?? false, {
        timeout: 15_000,
        intervals: [30],
      })
      .toBe(true)
  }

  /** For a start that must fail: the code the server ends with. */
  async startAndWaitForEnd(environment: Record<string, string>): Promise<number | null> {
    this.process = spawn(process.execPath, [join(root, '.output/server/index.mjs')], {
      stdio: 'ignore',
      env: { ...process.env, PORT: new URL(this.address).port, JOLLY_GRAM_DATA: this.folder, ...environment },
    })
    return new Promise(done => {
      this.process!.once('exit', code => done(code))
    })
  }

  get pid(): number {
    return this.process!.pid!
  }

  /** Starts on data that may not be readable: resolves once it answers anything. */
  async startAnyhow(environment: Record<string, string> = {}): Promise<void> {
    const { port } = new URL(this.address)
    this.process = spawn(process.execPath, [join(root, '.output/server/index.mjs')], {
      stdio: 'ignore',
      env: { ...process.env, HOST: '127.0.0.1', PORT: port, JOLLY_GRAM_DATA: this.folder, ...environment },
    })
    await expect
      .poll(async () => (await fetch(`${this.address}/api/health`).catch(() => null))?.status ?? 0, {
        timeout: 15_000,
        intervals: [30],
      })
      .toBeGreaterThan(0)
  }

  /** Ends the server at once, as a power cut would. */
  async kill(): Promise<void> {
    if (this.process?.exitCode === null && this.process.signalCode === null) {
      const ended = new Promise(done => this.process?.once('exit', done))
      this.process.kill('SIGKILL')
      await ended
    }
  }

  async bringIn(...names: string[]): Promise<void> {
    for (const name of names) {
      const answer = await fetch(`${this.address}/api/builds/import`, {
        method: 'POST',
        body: readFileSync(join(root, `demo/builds/${name}.build.json`)),
      })
      expect(answer.ok, await answer.text()).toBe(true)
    }
  }

  async send(method: 'PUT' | 'POST', path: string, data: unknown, headers: Record<string, string> = {}): Promise<void> {
    const answer = await fetch(this.address + path, {
      method,
      headers: { 'content-type': 'application/json', ...headers },
      body: JSON.stringify(data),
    })
    expect(answer.ok, await answer.text()).toBe(true)
  }

  async end(): Promise<void> {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }

  async json<T = Record<string, unknown>>(path: string): Promise<T> {
    return (await fetch(this.address + path)).json() as Promise<T>
  }
}

export const demoBuilds = ['sherbet', 'praline', 'marzipan', 'nougat', 'treacle']

/** Does something and waits until the server has acknowledged the write it makes: “Saved” may still be there from before. */
export async function written(page: Page, act: () => Promise<unknown>, path = '/commands'): Promise<void> {
  const answered = page.waitForResponse(
    response => response.request().method() === 'POST' && response.url().includes(path) && response.ok(),
  )
  await act()
  await answered
}

/** Presses Space on a steady reading, as a person does: where it began to move again just then, once more when it is at rest. */
export async function take(page: Page, taken: () => Promise<boolean>) {
  await expect
    .poll(
      async () => {
        if (await taken()) return true
        if ((await page.getByTestId('steadiness').textContent())!.includes('steady for')) await page.keyboard.press(' ')
        return taken()
      },
      { intervals: [150] },
    )
    .toBe(true)
}

/** Waits until a page has loaded all others ahead: from then on it can do without the server. */
export async function loadedAhead(page: Page): Promise<void> {
  await page.waitForFunction(() => performance.getEntriesByName('pages loaded ahead').length > 0)
}

/** Every test has a server and a database of its own, and fails on any error the page reports. */
export const test = base.extend<{ server: OwnServer; app: Page }>({
  // eslint-disable-next-line no-empty-pattern -- the runner reads the names of the fixtures from this pattern
  server: async ({}, use) => {
    const server = new OwnServer()
    await server.start()
    await use(server)
    await server.end()
  },
  app: async ({ page, server }, use) => {
    const errors: string[] = []
    page.on('pageerror', error => errors.push(error.message))
    page.on('console', message => {
      if (message.type() === 'error' && !message.text().includes('Failed to load resource')) errors.push(message.text())
    })
    await page.goto(server.address)
    await use(page)
    expect(errors).toEqual([])
  },
})
export { expect } from '@playwright/test'

import { randomBytes } from 'node:crypto'
import { hostname, networkInterfaces } from 'node:os'
import type { H3Event } from 'h3'
import type { Application } from '../services/application'
import { DomainProblem } from '../problems'
import { passphraseService, type PassphraseService } from '../services/passphrase-service'

/** Whether the application was started to be reached from other devices (`npm start -- --lan`). */
export const isOnNetwork = () => process.env.JOLLY_GRAM_LAN === '1'

/** Names this machine has by itself, and those the builder has given it in Settings. */
export function machineNames(given: string): string[] {
  return [hostname(), ...given.split(' ').filter(name => name !== '')]
}

/** Whether a request was made at this machine itself. */
export const isAtTheMachine = (event: H3Event) => event.context.atTheMachine === true

/** The addresses a phone in the same network can open, those by name first. */
export function networkAddresses(names: string): string[] {
  const port = process.env.NITRO_PORT ?? process.env.PORT ?? '3000'
  const numbers = Object.values(networkInterfaces())
    .flatMap(list => list ?? [])
    .filter(entry => entry.family === 'IPv4' && !entry.internal)
    .map(entry => entry.address)
  return [...names.split(' ').filter(name => name !== ''), ...numbers].map(host => `http://${host}:${port}`)
}

let made: { readonly app: Application; readonly service: PassphraseService } | null = null
export async function usePassphrase(): Promise<PassphraseService> {
  const app = await useApplication()
  // Other data may have taken the place of those it was made for.
  if (made?.app === app) return made.service
  const service = passphraseService(
    app.secrets,
    app.sessions,
    {
      hash: async text => (await import('../network/hashing')).hashing.hash(text),
      verify: async (kept, text) => (await import('../network/hashing')).hashing.verify(kept, text),
    },
    process.env.JOLLY_GRAM_PASSPHRASE ?? '',
  )
  made = { app, service }
  return service
}

/** Only who sits at the machine may do this. */
export function requireAtTheMachine(event: H3Event, what: string): void {
  if (!isAtTheMachine(event)) throw new DomainProblem('at-the-machine', `${what} is done at the machine itself.`)
}

/** The key that seals session cookies: made once and kept with the data, so that a restart signs nobody out. */
export async function sealingKey(): Promise<string> {
  const { secrets } = await useApplication()
  const kept = secrets.get('sealing key')
  if (kept) return kept
  const key = randomBytes(32).toString('hex')
  secrets.put('sealing key', key)
  return key
}

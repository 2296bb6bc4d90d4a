import { randomBytes } from 'node:crypto'
import type { H3Event } from 'h3'
import { hostname, networkInterfaces } from 'node:os'
import { passphraseService } from '../services/passphrase-service'

/** Whether the application was started to be reached from other devices (`npm start -- --lan`). */
export const isOnNetwork = () => process.env.JOLLY_GRAM_LAN === '1'

/** Names this machine has by itself; the builder may give it others in Settings. */
export const machineNames = () => [hostname()]

/** Whether a request came in on this machine itself. */
export const isAtTheMachine = (event: H3Event) => event.context.atTheMachine === true

/** The addresses a phone in the same network can open. */
export function networkAddresses(): string[] {
  const port = process.env.NITRO_PORT ?? process.env.PORT ?? '3000'
  return Object.values(networkInterfaces()).flatMap(list => list ?? [])
    .filter(entry => entry.family === 'IPv4' && !entry.internal)
    .map(entry => `http://${entry.address}:${port}`)
}

let made: ReturnType<typeof passphraseService> | null = null
export async function usePassphrase() {
  const app = await useApplication()
  made ??= passphraseService(app.secrets, process.env.JOLLY_GRAM_PASSPHRASE ?? '')
  return made
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

import type { secretsRepository } from '../db/secrets-repository'
import { verifyPassphrase } from '../network/passphrase-hash'
import { DomainProblem } from '../problems'
import type { SessionService } from './session-service'

export const shortestPassphrase = 10
const longestPassphrase = 200
const hashName = 'passphrase'
const environmentHashName = 'passphrase from the environment'

/** How passphrases are hashed; what was kept by earlier versions is recognised besides. */
export interface Hashing {
  readonly hash: (text: string) => Promise<string>
  readonly verify: (kept: string, text: string) => Promise<boolean>
}

/** Why a text cannot be a passphrase, or ''. */
export function passphraseProblem(text: string): string {
  if (text.length < shortestPassphrase) return `A passphrase has at least ${shortestPassphrase} characters.`
  if (text.length > longestPassphrase) return `A passphrase has at most ${longestPassphrase} characters.`
  return new Set(text).size < 3 ? 'A passphrase has different characters: this one is nearly all the same.' : ''
}
const ofOldForm = (kept: string) => kept.startsWith('scrypt:')

/** The passphrase that opens the application to the network: set in Settings, or by the environment, which goes before. */
export function passphraseService(
  secrets: ReturnType<typeof secretsRepository>,
  sessions: Pick<SessionService, 'endAll'>,
  hashing: Hashing,
  fromEnvironment: string,
) {
  const normal = (text: string) => text.normalize('NFKC')
  const verifies = (kept: string, text: string) =>
    ofOldForm(kept) ? verifyPassphrase(kept, text) : hashing.verify(kept, normal(text)).catch(() => false)

  /** One at a time: hashing is made to be slow, and must not be done to the machine many times at once. */
  let last: Promise<unknown> = Promise.resolve()
  function inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = last.catch(() => undefined).then(work)
    last = turn
    return turn
  }

  /** A passphrase from the environment is hashed once and kept, so that a start with the same one signs nobody out. */
  let environment: Promise<string> | null = null
  const environmentHash = () =>
    (environment ??= inTurn(async () => {
      const kept = secrets.get(environmentHashName)
      if (kept && (await verifies(kept, fromEnvironment))) return kept
      const made = await hashing.hash(normal(fromEnvironment))
      if (kept) sessions.endAll()
      secrets.put(environmentHashName, made)
      return made
    }))
  const current = (): Promise<string | null> =>
    fromEnvironment !== '' ? environmentHash() : Promise.resolve(secrets.get(hashName))

  return {
    isSet: () => fromEnvironment !== '' || secrets.get(hashName) !== null,
    /** Whether the one that is set is of an earlier form or shorter than is asked for now. It opens all the same. */
    shouldRenew: () =>
      fromEnvironment !== '' ? passphraseProblem(fromEnvironment) !== '' : ofOldForm(secrets.get(hashName) ?? ''),
    async set(passphrase: string) {
      const problem = passphraseProblem(passphrase)
      if (problem) throw new DomainProblem('invalid', problem, 'passphrase')
      const hashed = await inTurn(() => hashing.hash(normal(passphrase)))
      secrets.put(hashName, hashed)
      sessions.endAll()
    },
    clear() {
      secrets.remove(hashName)
      sessions.endAll()
    },
    async matches(passphrase: string): Promise<boolean> {
      const hashed = await current()
      if (hashed === null || passphrase.length > longestPassphrase) return false
      return inTurn(() => verifies(hashed, passphrase))
    },
    /** Gets the passphrase of the environment ready. */
    async prepare(): Promise<void> {
      await current()
    },
  }
}
export type PassphraseService = ReturnType<typeof passphraseService>

import type { secretsRepository } from '../db/secrets-repository'
import { hashPassphrase, verifyPassphrase } from '../network/passphrase-hash'
import { DomainProblem } from '../problems'

export const shortestPassphrase = 8
const hashName = 'passphrase'

/** The passphrase that opens the application to the network: set in Settings, or by the environment, which goes before. */
export function passphraseService(secrets: ReturnType<typeof secretsRepository>, fromEnvironment: string) {
  let environmentHash: Promise<string> | null = null
  const current = (): Promise<string | null> => fromEnvironment !== '' ? environmentHash ??= hashPassphrase(fromEnvironment) : Promise.resolve(secrets.get(hashName))
  return {
    isSet: () => fromEnvironment !== '' || secrets.get(hashName) !== null,
    async set(passphrase: string) {
      if (passphrase.length < shortestPassphrase) throw new DomainProblem('invalid', `A passphrase has at least ${shortestPassphrase} characters.`, 'passphrase')
      if (passphrase.length > 200) throw new DomainProblem('invalid', 'A passphrase has at most 200 characters.', 'passphrase')
      secrets.put(hashName, await hashPassphrase(passphrase))
    },
    clear: () => { secrets.remove(hashName) },
    async matches(passphrase: string): Promise<boolean> {
      const hashed = await current()
      return hashed !== null && passphrase.length <= 200 && await verifyPassphrase(hashed, passphrase)
    },
    /** Changes when the passphrase does, so that older sessions end. */
    stamp: async () => (await current())?.slice(-24) ?? '',
  }
}

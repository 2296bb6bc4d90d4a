import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import type { Hashing } from '../services/passphrase-service'

const hash = new Hash(new Scrypt({}))

/** How passphrases are hashed. Loaded with the first of them: most starts never see one. */
export const hashing: Hashing = { hash: text => hash.make(text), verify: (kept, text) => hash.verify(kept, text) }

import { scrypt, timingSafeEqual } from 'node:crypto'

const cost = 2 ** 15
const keyBytes = 32

function derive(text: string, salt: Buffer): Promise<Buffer> {
  return new Promise((done, fail) => {
    scrypt(text.normalize('NFKC'), salt, keyBytes, { N: cost, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }, (error, key) =>
      error ? fail(error) : done(key),
    )
  })
}

/**
 * Whether a text is the passphrase that was kept in the form of earlier versions: scrypt (RFC 7914, N = 2¹⁵, r = 8, p =
 * 1) with a salt of its own. Takes the same time either way.
 */
export async function verifyPassphrase(kept: string, text: string): Promise<boolean> {
  const [kind, salt, key] = kept.split(':')
  if (kind !== 'scrypt' || !salt || !key) return false
  const wanted = Buffer.from(key, 'base64url')
  const got = await derive(text, Buffer.from(salt, 'base64url'))
  return wanted.length === got.length && timingSafeEqual(wanted, got)
}

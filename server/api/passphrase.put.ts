import { passphraseSchema, passphraseReplySchema } from '../../shared/schemas/network'

/** Sets the passphrase for the network, or takes it away (empty). Kept as a scrypt hash only. */
export default jsonRoute(passphraseReplySchema, async (event) => {
  const { passphrase } = await bodyOf(event, passphraseSchema)
  const secret = await usePassphrase()
  if (passphrase === '') secret.clear()
  else await secret.set(passphrase)
  return { passphraseSet: secret.isSet() }
})

import { passphraseSchema, passphraseReplySchema } from '../../shared/schemas/network'
import { DomainProblem } from '../problems'

/** Sets the passphrase for the network, or takes it away (empty). Kept as a hash only; at the machine itself only. */
export default jsonRoute(passphraseReplySchema, async event => {
  if (!isAtTheMachine(event))
    throw new DomainProblem('at-the-machine', 'The passphrase is changed on the machine itself.')
  const { passphrase } = await bodyOf(event, passphraseSchema)
  const secret = await usePassphrase()
  if (passphrase === '') secret.clear()
  else await secret.set(passphrase)
  return { passphraseSet: secret.isSet() }
})

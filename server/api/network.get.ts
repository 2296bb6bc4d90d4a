import QRCode from 'qrcode'
import { networkReplySchema } from '../../shared/schemas/network'

/** How the application can be reached from a phone: its addresses, each with a code to point a camera at. */
export default jsonRoute(networkReplySchema, async (event, app) => {
  const secret = await usePassphrase()
  return {
    on: isOnNetwork(),
    atTheMachine: isAtTheMachine(event),
    passphraseSet: secret.isSet(),
    shouldRenew: secret.isSet() && secret.shouldRenew(),
    fromEnvironment: (process.env.JOLLY_GRAM_PASSPHRASE ?? '') !== '',
    addresses: isOnNetwork()
      ? await Promise.all(
          networkAddresses(app.settings.load().networkNames).map(async address => ({
            address,
            code: `data:image/svg+xml;base64,${Buffer.from(await QRCode.toString(address, { type: 'svg', margin: 2 })).toString('base64')}`,
          })),
        )
      : [],
  }
})

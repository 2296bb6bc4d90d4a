import QRCode from 'qrcode'
import { networkReplySchema } from '../../shared/schemas/network'

/** How the application can be reached from a phone: its addresses, each with a code to point a camera at. */
export default jsonRoute(networkReplySchema, async () => ({
  on: isOnNetwork(),
  passphraseSet: (await usePassphrase()).isSet(),
  fromEnvironment: (process.env.JOLLY_GRAM_PASSPHRASE ?? '') !== '',
  addresses: isOnNetwork()
    ? await Promise.all(networkAddresses().map(async address => ({ address, code: `data:image/svg+xml;base64,${Buffer.from(await QRCode.toString(address, { type: 'svg', margin: 2 })).toString('base64')}` })))
    : [],
}))

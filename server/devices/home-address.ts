import { lookup } from 'node:dns/promises'
import { BlockList, isIP } from 'node:net'

/** Addresses of the network at home and of this machine itself: nothing out in the world is ever called. */
const atHome = new BlockList()
for (const [network, bits] of [
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['169.254.0.0', 16],
  ['127.0.0.0', 8],
] as const)
  atHome.addSubnet(network, bits, 'ipv4')
for (const [network, bits] of [
  ['fc00::', 7],
  ['fe80::', 10],
  ['::1', 128],
] as const)
  atHome.addSubnet(network, bits, 'ipv6')

export function isHomeAddress(address: string): boolean {
  const plain = address.replace(/^::ffff:/i, '')
  const family = isIP(plain)
  return family !== 0 && atHome.check(plain, family === 6 ? 'ipv6' : 'ipv4')
}

/** The address a host name stands for, where it lies in the network at home; null otherwise. Every address it stands for must. */
export async function homeAddressOf(host: string): Promise<string | null> {
  if (isIP(host)) return isHomeAddress(host) ? host : null
  const found = await lookup(host, { all: true }).catch(() => [])
  return found.length > 0 && found.every(({ address }) => isHomeAddress(address)) ? found[0]!.address : null
}

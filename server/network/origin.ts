/** Where a request came in and what it says of itself; all that decides whether it is let through. */
export interface Asked {
  readonly method: string
  /** The Host header. */
  readonly host: string
  readonly origin: string | undefined
  readonly fetchSite: string | undefined
  readonly contentLength: number
  /** The address of this machine the connection came in on. */
  readonly localAddress: string
}

export const mostBodyBytes = 16_000_000
const loopbackNames = /^(localhost|127(?:\.\d{1,3}){3}|\[::1\])(:\d+)?$/i

const bare = (address: string) => address.replace(/^::ffff:/, '')

/** Whether a connection came in on this machine's own loopback address, where nobody else can connect. */
export function isAtHome(localAddress: string): boolean {
  return ['127.0.0.1', '::1'].includes(bare(localAddress))
}

/** The host names this machine answers to where the connection came in: an address is only called by itself. */
function hostFits({ host, localAddress }: Asked, machineNames: readonly string[]): boolean {
  if (isAtHome(localAddress)) return loopbackNames.test(host)
  const name = host.replace(/:\d+$/, '').toLowerCase()
  return name === bare(localAddress) || name === `[${bare(localAddress)}]` || machineNames.some(known => name === known.toLowerCase() || name === `${known.toLowerCase()}.local`)
}

export type Refusal = 'foreign-host' | 'foreign-origin' | 'too-large'

/**
 * Why a request is turned away before anything looks at it, or null: a name pointing here that is not ours (DNS
 * rebinding), a write from another origin, a body beyond any build.
 */
export function refusalOf(asked: Asked, machineNames: readonly string[]): Refusal | null {
  if (!hostFits(asked, machineNames)) return 'foreign-host'
  if (asked.method === 'GET' || asked.method === 'HEAD') return null
  const { origin, fetchSite, host } = asked
  const foreign = origin !== undefined ? origin !== `http://${host}` : fetchSite !== undefined && fetchSite !== 'same-origin' && fetchSite !== 'none'
  if (foreign) return 'foreign-origin'
  return asked.contentLength > mostBodyBytes ? 'too-large' : null
}

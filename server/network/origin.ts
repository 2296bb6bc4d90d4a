/** Where a request came in and what it says of itself; all that decides whether it is let through. */
export interface RequestFacts {
  readonly method: string
  /** The Host header. */
  readonly host: string
  readonly origin: string | undefined
  readonly fetchSite: string | undefined
  readonly contentLength: number
  /** The most bytes the route asked for takes. */
  readonly mostBytes: number
  /** The address of this machine the connection came in on, and the one it came from. */
  readonly localAddress: string
  readonly remoteAddress: string
  /** Whether it says that somebody has passed it on. */
  readonly forwarded: boolean
}

/** Headers by which a proxy says that a request is not its own. */
export const forwardingHeaders = [
  'forwarded',
  'via',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-real-ip',
] as const

export const mostBodyBytes = 16_000_000
const loopbackNames = /^(?:localhost|127(?:\.\d{1,3}){3}|\[::1\])(?::\d{1,5})?$/i

const bare = (address: string) => address.replace(/^::ffff:/, '')

/** Whether an address is this machine’s own loopback address, where nobody else can connect. */
export function isLoopback(address: string): boolean {
  return ['127.0.0.1', '::1'].includes(bare(address))
}

/** Whether a request was made at this machine: on its loopback address, from there, and passed on by nobody. */
export function isAtHome({
  localAddress,
  remoteAddress,
  forwarded,
}: Pick<RequestFacts, 'localAddress' | 'remoteAddress' | 'forwarded'>): boolean {
  return isLoopback(localAddress) && isLoopback(remoteAddress) && !forwarded
}

/** The host names this machine answers to where the connection came in: an address is only called by itself or by a name it was given. */
function hostFits(facts: RequestFacts, machineNames: readonly string[]): boolean {
  if (isAtHome(facts)) return loopbackNames.test(facts.host)
  const name = facts.host.replace(/:\d{1,5}$/, '').toLowerCase()
  const local = bare(facts.localAddress)
  return (
    (!isLoopback(local) && (name === local || name === `[${local}]`)) ||
    machineNames.some(known => name === known.toLowerCase() || name === `${known.toLowerCase()}.local`)
  )
}

export type Refusal = 'not-open' | 'foreign-host' | 'foreign-origin' | 'too-large'

/**
 * Why a request is turned away before anything looks at it, or null: one that comes from elsewhere while the application is
 * not open to the network, a name pointing here that is not ours (DNS rebinding), a write from another origin, a body
 * beyond any build.
 */
export function refusalOf(
  facts: RequestFacts,
  { openToNetwork, machineNames }: { readonly openToNetwork: boolean; readonly machineNames: readonly string[] },
): Refusal | null {
  if (!isAtHome(facts) && !openToNetwork) return 'not-open'
  if (!hostFits(facts, machineNames)) return 'foreign-host'
  if (facts.contentLength > facts.mostBytes) return 'too-large'
  if (facts.method === 'GET' || facts.method === 'HEAD') return null
  const { origin, fetchSite, host } = facts
  const foreign =
    origin !== undefined
      ? origin !== `http://${host}`
      : fetchSite !== undefined && fetchSite !== 'same-origin' && fetchSite !== 'none'
  return foreign ? 'foreign-origin' : null
}

import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible'

/** So many passphrases a minute are tried for one address, and for all addresses together. */
export const mostFromOne = 10
export const mostFromAll = 40
const windowS = 60

/** Counts passphrases that are tried, before any is looked at: by the address they come from, and all together. */
export class Attempts {
  private readonly byAddress = new RateLimiterMemory({ points: mostFromOne, duration: windowS, keyPrefix: 'address' })
  private readonly together = new RateLimiterMemory({ points: mostFromAll, duration: windowS, keyPrefix: 'all' })

  /** Until when nobody of a name is let in, by a clock that cannot be put back or forward. */
  private readonly closedUntil = new Map<string, number>()

  constructor(private readonly nowMs: () => number = () => performance.now()) {}

  /** Counts one attempt. Milliseconds until the next may be made; 0 when this one may. */
  async admit(address: string): Promise<number> {
    const closedMs = Math.max(
      ...['all', `address ${address}`].map(name => (this.closedUntil.get(name) ?? 0) - this.nowMs()),
    )
    if (closedMs > 0) return closedMs
    const waitMs = await this.consume(address)
    if (waitMs > 0) {
      const all = await this.together.get('all')
      this.close((all?.remainingPoints ?? 1) <= 0 ? 'all' : `address ${address}`, waitMs)
    }
    return waitMs
  }

  private close(name: string, waitMs: number): void {
    for (const [other, until] of this.closedUntil) if (until <= this.nowMs()) this.closedUntil.delete(other)
    this.closedUntil.set(name, this.nowMs() + waitMs)
  }

  private async consume(address: string): Promise<number> {
    try {
      await this.byAddress.consume(address)
      await this.together.consume('all')
      return 0
    } catch (refused) {
      return Math.max(1, (refused as RateLimiterRes).msBeforeNext)
    }
  }

  /** The right one does not count. */
  async succeeded(address: string): Promise<void> {
    await this.byAddress.delete(address)
    await this.together.reward('all')
  }
}

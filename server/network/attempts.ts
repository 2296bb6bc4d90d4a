/** So many wrong passphrases a minute are answered; the next one has to wait. */
export const mostWrong = 10
const windowMs = 60_000

/** Counts wrong passphrases, by the address they come from. The clock is passed in. */
export class Attempts {
  private readonly wrong = new Map<string, number[]>()

  /** Milliseconds until this address may try again; 0 when it may. */
  waitMs(address: string, nowMs: number): number {
    const recent = (this.wrong.get(address) ?? []).filter(at => at > nowMs - windowMs)
    if (recent.length === 0) this.wrong.delete(address)
    else this.wrong.set(address, recent)
    return recent.length < mostWrong ? 0 : recent[recent.length - mostWrong]! + windowMs - nowMs
  }

  failed(address: string, nowMs: number): void {
    if (this.wrong.size > 1000) this.wrong.clear()
    this.wrong.set(address, [...(this.wrong.get(address) ?? []), nowMs])
  }

  succeeded(address: string): void {
    this.wrong.delete(address)
  }
}

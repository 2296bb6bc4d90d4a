/** Address of the practice scale's control door; null outside the demo. Loopback only. */
export function practiceAddress(): string | null {
  const address = process.env.JOLLY_GRAM_PRACTICE ?? ''
  return /^http:\/\/127\.0\.0\.1:\d{1,5}$/.test(address) ? address : null
}

/** A small seeded source of numbers in [0, 1): benches repeat exactly. */
export function seeded(seed: number): () => number {
  let state = (seed % 2147483646) + 1
  return () => (state = (state * 48271) % 2147483647) / 2147483647
}

/** Median duration of one call in milliseconds, after half a second of warming up. */
export function medianMs(work: () => void, rounds = 301): number {
  for (const until = performance.now() + 500; performance.now() < until;) work()
  const times: number[] = []
  for (let i = 0; i < rounds; i++) {
    const from = performance.now()
    work()
    times.push(performance.now() - from)
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!
}

/** Numbers that look like chance and come again for the same seed: from 0 to 1, and normal with mean 0 and variance 1. */
export interface Chance {
  readonly uniform: () => number
  readonly normal: () => number
}

/** Chance by a seed, for stand-ins and simulations. Sources: mulberry32, in the public domain; Box and Muller (1958). */
export function chanceOf(seed: number): Chance {
  let state = seed >>> 0
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t ^= t + Math.imul(t ^ (t >>> 7), 61 | t)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  return { uniform, normal: () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform()) }
}

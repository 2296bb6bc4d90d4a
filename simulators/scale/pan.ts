import { chanceOf } from '../../core/maths/numbers'

/** What the stand-in is like. Masses in grams, times in seconds. */
export interface PanTraits {
  readonly resolutionG: number
  readonly capacityG: number
  /** Standard deviation of the display at rest. */
  readonly noiseG: number
  /** Standard deviation from one placing to the next. */
  readonly placingG: number
  /** Time constant with which the display comes to rest. */
  readonly settleS: number
  /** What it shows of one gram. */
  readonly gain: number
  /** Change of gain for each degree away from 20 °C. */
  readonly gainPerDegree: number
  /** Creep of the zero, grams a minute. */
  readonly creepGPerMin: number
  readonly seed: number
}

export const pocketScale: PanTraits = {
  resolutionG: 0.01,
  capacityG: 200,
  noiseG: 0.0015,
  placingG: 0.007,
  settleS: 0.25,
  gain: 1.0022,
  gainPerDegree: 2e-5,
  creepGPerMin: 0.004,
  seed: 1,
}

/** What the display shows at one moment. */
export interface Display {
  readonly massG: number | null
  readonly stable: boolean
  readonly decimals: number
}

export const dialects = ['letters', 'commas', 'plain'] as const
export type Dialect = (typeof dialects)[number]

/**
 * A pan with masses on it: the display settles, is noisy, creeps, depends on the temperature and says overload. Time is
 * given from outside, so that the same seed and the same steps show the same figures.
 */
export class Pan {
  private readonly normal: () => number
  private loadG = 0
  private placedG = 0
  private shownG = 0
  private zeroG = 0
  private minutes = 0
  private zeroAtMin = 0
  temperatureC = 20

  constructor(readonly traits: PanTraits = pocketScale) {
    this.normal = chanceOf(traits.seed).normal
  }

  /** Puts these masses on, in the place of what was there. */
  put(massesG: readonly number[]): void {
    this.loadG = massesG.reduce((sum, massG) => sum + massG, 0)
    this.placedG = massesG.length === 0 ? 0 : this.traits.placingG * this.normal()
  }

  /** Whatever lies there now reads zero. */
  zero(): void {
    this.zeroG = this.shownG
    this.zeroAtMin = this.minutes
  }

  /** Lets time pass and reads the display. */
  after(seconds: number): Display {
    const { capacityG, resolutionG, noiseG, settleS, gain, gainPerDegree, creepGPerMin } = this.traits
    this.minutes += seconds / 60
    const target = this.loadG * (gain + gainPerDegree * (this.temperatureC - 20)) + this.placedG
    this.shownG = target + (this.shownG - target) * Math.exp(-seconds / settleS)
    const decimals = Math.max(0, Math.round(-Math.log10(resolutionG)))
    if (this.shownG > capacityG) return { massG: null, stable: false, decimals }
    const creepG = creepGPerMin * (this.minutes - this.zeroAtMin)
    const massG = Math.round((this.shownG - this.zeroG + creepG + noiseG * this.normal()) / resolutionG) * resolutionG
    return {
      massG: Number(massG.toFixed(decimals)),
      stable: Math.abs(this.shownG - target) < resolutionG / 2,
      decimals,
    }
  }
}

/** A display as one line of a dialect. */
export function lineOf({ massG, stable, decimals }: Display, dialect: Dialect): string {
  if (dialect === 'letters')
    return massG === null ? 'S +' : `S ${stable ? 'S' : 'D'} ${massG.toFixed(decimals).padStart(9)} g`
  if (dialect === 'commas')
    return massG === null
      ? 'OL,GS,+9999.99g'
      : `${stable ? 'ST' : 'US'},GS,${massG < 0 ? '-' : '+'}${Math.abs(massG).toFixed(decimals).padStart(8)}g`
  return massG === null ? 'OL' : `${massG.toFixed(decimals)} g`
}

import { usualConfidence } from '../core/limits/verdict'
import { noGear, type GroundGear, type Hand } from '../core/model/data'

/** The most commands one request carries. */
export const mostCommands = 32

/** What the builder has set outside the builds. */
export interface Settings {
  readonly currency: string
  readonly theme: 'system' | 'light' | 'dark'
  readonly ounces: boolean
  /** Confidence new builds start with, 0.5 to 0.9999. */
  readonly confidence: number
  readonly singleKeys: boolean
  /** host:port of the bench scale; empty for none. */
  readonly benchScale: string
  /** Names by which this machine is known in the network at home, with blanks between; empty for none but its own. */
  readonly networkNames: string
  /** How sure a hand with iron and knife is. */
  readonly hand: Hand
  /** What the builder flies with on the ground. */
  readonly gear: GroundGear
}

export const defaultSettings: Settings = {
  currency: '€',
  theme: 'system',
  ounces: false,
  confidence: usualConfidence,
  singleKeys: true,
  benchScale: '',
  networkNames: '',
  hand: 'usual',
  gear: noGear,
}

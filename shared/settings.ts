import { usualConfidence } from '../core/limits/verdict'
import { plainStyle, type FigureStyle } from '../core/text/display'
import type { LifeSlot } from '../core/aircraft/flown'
import { noGear, type GroundGear, type Hand } from '../core/model/data'

/** The most commands one request carries. */
export const mostCommands = 32

/** What the builder has set outside the builds. */
export interface Settings {
  readonly currency: string
  readonly theme: 'system' | 'light' | 'dark'
  readonly ounces: boolean
  /** The mark before the decimals, on screens; files have the point. */
  readonly decimal: FigureStyle['decimal']
  /** The order of a day's parts, on screens. */
  readonly days: FigureStyle['days']
  readonly firstWeekday: 'monday' | 'sunday' | 'saturday'
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
  /** After how many flights a kind of part is looked at; none where it is not said. */
  readonly lifeLimits: Readonly<Partial<Record<LifeSlot, number>>>
  /** A copy of everything is made once a day. */
  readonly automaticCopies: boolean
}

export const defaultSettings: Settings = {
  currency: '€',
  theme: 'system',
  ounces: false,
  decimal: plainStyle.decimal,
  days: plainStyle.days,
  firstWeekday: 'monday',
  confidence: usualConfidence,
  singleKeys: true,
  benchScale: '',
  networkNames: '',
  hand: 'usual',
  gear: noGear,
  lifeLimits: {},
  automaticCopies: true,
}

import type { FlightFinding, Flight, HeldFor, RestsOn, WorkedFlight } from '#core/aircraft/flown'
import type { MinutesAgainst } from '#core/aircraft/flight'
import { fixed, minutesFigure, signed } from '#core/text/display'
import { flightTimeWords } from '#core/text/units'
import { dayOf } from './day-of'

const several = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

/** The day of a flight without its year: `22 Nov`. */
export const flightDay = (flownAt: string): string => dayOf(flownAt.slice(0, 10), 'short').replace(/,? \d{4}$/, '')
export const flightTime = (flownAt: string): string => flownAt.slice(11, 16)

/** How often and how long it was flown, and since when. */
export function flownWords(flights: readonly Flight[]): string {
  if (flights.length === 0) return ''
  const minutes = flights.reduce((sum, { durationS }) => sum + durationS, 0) / 60
  return `${several(flights.length, 'flight', 'flights')}, ${minutesFigure(minutes)} min in the air since ${flightDay(flights[0]!.flownAt)}`
}

/** What a flight says against what was expected of it: a word, and the mark that goes with it. */
export function agreement(worked: WorkedFlight | undefined): { word: string; tone: 'clear' | 'over' | 'none' } {
  if (!worked) return { word: 'being worked out', tone: 'none' }
  if (worked.held) return { word: 'held', tone: 'over' }
  return worked.z === null ? { word: 'says nothing', tone: 'none' } : { word: 'agrees', tone: 'clear' }
}

const heldWords: Record<HeldFor, string> = {
  'no power fits':
    'No power of this pack fits its minutes and charge: check the minutes, the pack, and what was put back.',
  'less than the devices':
    'It would have asked for less power than the devices draw alone: check the minutes, the pack, and what was put back.',
  'does not agree': '',
}

/** Why a flight is held, in words. */
export function heldSentence({ held, z }: WorkedFlight): string {
  if (!held) return ''
  if (held !== 'does not agree') return heldWords[held]
  const more = z! > 0
  return (
    `It asked for ${more ? 'more' : 'less'} power than flights like it ever do: it teaches nothing until you say so. ` +
    `Usual causes: ${more ? 'wind, a worn or damaged prop, ' : ''}an old pack, another style than noted, wrong minutes.`
  )
}

const sourceWords = {
  'put back': 'what was put back',
  logged: 'the count on board',
  'landing volts': 'landing volts',
  assumed: 'assumed: 20 % left',
} as const

/** Where the charge of a flight is known from, in words. */
export function chargeFromWords({ used }: WorkedFlight): string {
  return used ? used.from.map(({ source }) => sourceWords[source]).join(' and ') : ''
}

/** Statements of a flight's charge that disagree with the surest one. */
export function chargeAgainstWords({ used }: WorkedFlight): string {
  if (!used || used.against.length === 0) return ''
  const told = used.against.map(({ source, mah }) => `${sourceWords[source]}, ${fixed(mah, 0)} mAh`).join('; ')
  return `Left out, because it disagrees with the surest: ${told}.`
}

/** On what minutes rest: `rests on 7 flights`. */
export function restsOnWords(restsOn: RestsOn | null, packFlights = 0): string {
  if (!restsOn) return ''
  const own =
    restsOn.own > 0
      ? `rests on ${several(restsOn.own, 'flight', 'flights')}`
      : `rests on ${several(restsOn.others, 'flight', 'flights')} of other craft in this style`
  return packFlights > 0 ? `${own}; the pack as its flights say` : own
}

/** Volts a flight was landed with, as they are typed. */
export function landingText(landing: Flight['landing']): string {
  if (!landing) return ''
  return landing.of === 'cell' ? `${landing.volts} a cell` : String(landing.volts)
}

export const severityWords = ['noticed', 'mild', 'bad', 'grave'] as const
export const findingTitle = (kind: FlightFinding['kind']) => kind.charAt(0).toUpperCase() + kind.slice(1)
export const flightTitle = ({ flownAt, durationS }: Pick<Flight, 'flownAt' | 'durationS'>) =>
  `${flightDay(flownAt)}, ${flightTime(flownAt)} · ${flightTimeWords(durationS)}`

const knownByWords: Readonly<Record<MinutesAgainst['from'], string>> = {
  flights: 'by flights on both',
  'bench tables': 'by their bench tables',
  'the class': 'by their class alone: a flight or a bench table of each would tell it better',
  'the same drive': 'by the grams alone: the drive is the same',
}
/** How much longer one would fly than now, and what that is known by. */
export const minutesAgainstWords = ({ deltaMin, spreadMin, from }: MinutesAgainst): string =>
  `${signed(deltaMin, 2)} ± ${fixed(spreadMin, 2)} min against now, ${knownByWords[from]}.`

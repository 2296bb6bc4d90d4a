import { describe, expect, it } from 'vitest'
import { loadoutFigure, type Forecast, type LoadoutCell, type SheetFlight } from '#core/aircraft/flight'
import { makeLine } from '#core/model/ledger'
import {
  headroomTag,
  loadoutFigureWords,
  loadoutsWords,
  loadoutTitle,
  longerWords,
  minutesWords,
  openWords,
} from './loadout-words'

const pack = makeLine({
  id: 'p',
  slot: 'pack',
  name: 'pack',
  pack: { label: 'P4', cells: 4, chemistry: 'LiPo', capacityMah: 650, cRating: null, plug: '' },
})
const judged = (word: 'Clear' | 'Over' | 'Too close to call', headroomG: number) =>
  ({ limitG: 250, verdict: { word, headroomG }, heaviest: null, card: {} }) as unknown as LoadoutCell['binding']
const cell = (more: Partial<LoadoutCell> = {}): LoadoutCell => ({
  key: 's.p',
  source: 'on the build',
  pack,
  choice: { setupId: 's', packLineId: 'p' },
  massG: 236.6,
  sigmaG: 0.5,
  openLines: 0,
  isCraft: true,
  judgements: [],
  binding: judged('Clear', 13.4),
  intoReserveG: 0,
  never: false,
  onPurpose: false,
  ...more,
})
const forecast = { why: null, minutes: 5, hardMinutes: 4, gentleMinutes: 7, thrustToWeightStart: 3.14 } as Forecast
const flight = (more: Partial<SheetFlight> = {}): SheetFlight => ({
  key: 's.p',
  forecast,
  missing: null,
  misfits: [],
  ...more,
})

describe('what a loadout says', () => {
  it('its headroom with a sign, and nothing where there is no verdict', () => {
    expect(headroomTag(cell())).toBe('+13.4')
    expect(headroomTag(cell({ binding: judged('Over', -2.04) }))).toBe('−2.0')
    expect(headroomTag(cell({ binding: null }))).toBe('')
  })
  it('the figure on view with its unit; minutes as a band, and that there are none', () => {
    const [minutes, thrust] = [loadoutFigure('minutes'), loadoutFigure('thrust')]
    expect(loadoutFigureWords(minutes, cell(), flight(), 60)).toBe(minutesWords(flight()))
    expect(minutesWords(flight())).toBe('4.0–7.0 min')
    expect(loadoutFigureWords(minutes, cell(), undefined, 60)).toBe('')
    const without = flight({ forecast: { ...forecast, why: 'It does not lift off.' } })
    expect([loadoutFigureWords(minutes, cell(), without, 60), minutesWords(without)]).toEqual([
      'no minutes',
      'It does not lift off.',
    ])
    expect(loadoutFigureWords(thrust, cell(), flight(), 60)).toBe('3.1 : 1')
    expect(loadoutFigureWords(thrust, cell(), without, 60)).toBe('')
  })
  it('in a sentence: pack, set-up, grams with their ±, verdict, what has no grams, minutes, what does not fit', () => {
    expect(loadoutTitle(cell(), 'guards', undefined)).toBe('P4 with guards: 236.60 g ± 0.98, Clear, +13.4 g. ')
    const open = cell({ openLines: 2, binding: null })
    expect(loadoutTitle(open, 'without guards', flight({ misfits: ['the plug', 'the strap'] }))).toBe(
      `P4 without guards: 236.60 g ± 0.98, no limit, 2 lines without grams. ${minutesWords(flight())}. ` +
        'Does not fit: the plug; the strap',
    )
    const nothing = cell({ binding: { ...judged('Clear', 0)!, verdict: null } })
    expect(loadoutTitle(nothing, 'guards', undefined)).toContain('Nothing that flies yet')
    expect([openWords(1), openWords(3)]).toEqual(['one line without grams', '3 lines without grams'])
  })
})

describe('what all loadouts say together', () => {
  it('how many of those that are flown are clear, and which are over on purpose', () => {
    const over = cell({ binding: judged('Over', -3), intoReserveG: null })
    expect(loadoutsWords([])).toBe('no pack yet')
    expect(loadoutsWords([cell({ never: true })])).toBe('no pack yet')
    expect(loadoutsWords([cell(), over, cell({ never: true })])).toBe('1 of 2 clear')
    expect(loadoutsWords([cell(), { ...over, onPurpose: true }])).toBe('1 of 2 clear · 1 over on purpose')
    // Into the reserve is clear, but not as it is wanted.
    expect(loadoutsWords([cell({ intoReserveG: 0.4 })])).toBe('0 of 1 clear')
  })
  it('and that there is no limit, or nothing that flies', () => {
    expect(loadoutsWords([cell({ binding: null })])).toBe('1 loadout, no limit')
    const nothing = cell({ binding: { ...judged('Clear', 0)!, verdict: null } })
    expect(loadoutsWords([nothing, nothing])).toBe('2 loadouts, nothing that flies yet')
  })
})

describe('how much longer one pack flies than another', () => {
  it.each([
    [{ share: 0.12, from: 0.11, to: 0.13 }, '12 % longer (11 to 13)'],
    [{ share: -0.12, from: -0.13, to: -0.11 }, '12 % shorter (11 to 13)'],
    [{ share: 0.012, from: 0.012, to: 0.012 }, '1.2 % longer'],
    [{ share: 0.0004, from: 0, to: 0.001 }, 'as long'],
  ])('%j', (by, words) => {
    expect(longerWords(by as Parameters<typeof longerWords>[0])).toBe(words)
  })
})

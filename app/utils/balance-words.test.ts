import { describe, expect, it } from 'vitest'
import type { Balance, Slide } from '#core/aircraft/balance'
import {
  bobMovesWords,
  bobWords,
  hangsSentence,
  hoverProblemWords,
  isWorthSliding,
  levelWords,
  nothingHangsSentence,
  slideCellWords,
  slideSentence,
} from './balance-words'

const slide: Slide = {
  byMm: 2.9,
  toMm: 2.9,
  frontAtMm: 4.1,
  frontRangeMm: [0, 14],
  missesMm: 0,
  remainsMm: 0,
  spreadMm: 6,
}
const hanging = (xMm: number, of: Partial<Slide> | null = {}) =>
  ({
    centre: { atMm: [xMm, 0, 10] },
    pack: of === null ? null : { name: 'P7' },
    slide: of === null ? null : { ...slide, ...of },
    hover: { loadsG: [60, 60, 63, 63] },
    layout: { rotors: [40, 40, -40, -40].map(x => ({ xMm: x, yMm: 40 })) },
  }) as unknown as Balance

describe('what is said of how a craft hangs', () => {
  it('says where fewer grams would send the bob', () => {
    expect([
      bobMovesWords(-1.1, 0.3),
      bobMovesWords(-1.1, 1.12),
      bobMovesWords(0.2, -0.5),
      bobMovesWords(3, 0.01),
    ]).toEqual([
      'The bob goes 0.3 mm forward, to 0.8 mm tail-heavy.',
      'The bob goes 1.1 mm forward, to the middle of the motors.',
      'The bob goes 0.5 mm back, to 0.3 mm tail-heavy.',
      'The bob stays where it is.',
    ])
  })
  it('names the heavy end, and by how much its motors work harder', () => {
    expect([bobWords(hanging(-1.2)).line, bobWords(hanging(2)).line, bobWords(hanging(0.4)).word]).toEqual([
      '1.2 mm tail-heavy',
      '2.0 mm nose-heavy',
      'Hangs true',
    ])
    expect(hangsSentence(hanging(-1.2))).toBe('The bob hangs behind the middle, so the rear motors work 5 % harder.')
    expect(hangsSentence({ ...hanging(-1.2), hover: null })).toBe('The bob hangs behind the middle.')
    expect(hangsSentence({ ...hanging(0), centre: null })).toMatch(/^Nothing here weighs anything yet/)
  })
  it('does not say of a craft known only as a whole that it weighs nothing', () => {
    const reference = {
      massG: 97,
      spreadG: 1,
      thrustG: null,
      priceCents: null,
      minutes: null,
      note: '',
      pictureIds: [],
    }
    expect(nothingHangsSentence({ reference })).toMatch(/^This craft is known only as a whole/)
    expect(nothingHangsSentence({ reference: null })).toMatch(/^Nothing here weighs anything yet/)
  })
  it('says what the pack is to do, and what is left at the end of the tray', () => {
    expect(slideSentence(hanging(-1.2))).toBe('Slide P7 2.9 mm forward: it hangs true.')
    expect(slideSentence(hanging(-1.2, { missesMm: 1, remainsMm: -0.6 }))).toBe(
      'Slide P7 2.9 mm forward, to the end of the tray: 0.6 mm tail-heavy is left.',
    )
    expect(slideSentence(hanging(1.2, { byMm: 0, missesMm: 2, remainsMm: 1.2 }))).toBe(
      'P7 lies at the end of the tray already: 1.2 mm nose-heavy is left.',
    )
    expect(slideSentence(hanging(0.3))).toBe('P7 lies where it belongs.')
    expect(slideSentence(hanging(1, null))).toBe('No pack flies in this loadout: there is nothing to slide.')
    expect([hanging(-1.2), hanging(0.3), hanging(2, null)].map(isWorthSliding)).toEqual([true, false, false])
  })
  it('a cell of the table has the front of the pack, or the way, or by how much it misses', () => {
    expect(
      [
        slide,
        { ...slide, frontAtMm: null },
        { ...slide, frontAtMm: null, byMm: 0 },
        { ...slide, missesMm: 1 },
        null,
      ].map(slideCellWords),
    ).toEqual(['4.1 mm', '2.9 mm forward', 'stays', 'misses by 1.0 mm', 'no pack'])
  })
  it('what is left of full throttle is told with the thrust where it is known', () => {
    const hover = { loadsG: [], greatestG: 1, levelShare: 0.97 }
    expect(levelWords(hover, null)).toBe('97.0 % of full throttle is left, level')
    expect(levelWords(hover, { ratio: 3.6, atLeast: false })).toBe('level 3.49 : 1 instead of 3.60')
    expect(levelWords(hover, { ratio: 3.6, atLeast: true })).toBe('level at least 3.49 : 1 instead of 3.60')
    expect(hoverProblemWords({ problem: 'few rotors' })).toBe(
      'With fewer than four rotors what each carries is not told.',
    )
    expect(hoverProblemWords(hover)).toBe('')
  })
})

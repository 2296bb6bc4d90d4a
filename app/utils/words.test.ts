import { describe, expect, it } from 'vitest'
import { makeBuild } from '../../core/changes/commands'
import { evidences, groups, makeLine, makeMass, type Weighing } from '#core/model/ledger'
import { estimatesOf } from '#core/mass/loadout'
import { ListingBiasTable } from '#core/mass/listings'
import { overviewOf } from '#core/mass/report'
import { startingCards } from '#core/limits/rules'
import { verdictWords } from '#core/limits/verdict'
import {
  evidenceTexture,
  groupTone,
  lineTitle,
  narrowingWords,
  overviewSentence,
  toneOf,
  verdictTone,
  weighedShareWords,
  weighingWords,
} from './words'

const weighing: Weighing = {
  takenAt: '2026-11-02T18:00:00.000Z',
  scaleId: 's',
  scaleName: 'blue pocket scale',
  checkId: 'c',
  method: 'on the pan',
  displaysG: [44.09],
  tare: null,
  contributions: {},
  supersedes: null,
}
const motors = makeLine({
  id: 'm',
  slot: 'motor',
  name: 'motors',
  quantity: 4,
  mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 44, valueCount: 4, weighing }),
})
const pack = makeLine({
  id: 'p',
  slot: 'pack',
  name: '4S 850 mAh',
  mass: makeMass({ versionId: 'w', evidence: 'guess', valueG: 99 }),
  pack: { label: 'P7', cells: 4, chemistry: 'LiPo', capacityMah: 850, cRating: null, plug: '' },
})

describe('how things are said', () => {
  it('every verdict, evidence and group has its tone and texture', () => {
    for (const word of verdictWords) expect(verdictTone[word]).toMatch(/clear|close|over/)
    for (const evidence of evidences) expect(evidenceTexture[evidence]).toBeTruthy()
    expect(new Set(groups.map(group => groupTone[group].name)).size).toBe(groups.length)
    expect(toneOf(null)).toBe('none')
  })
  it('a pack is called by its label', () => {
    expect(lineTitle(pack)).toBe('P7 · 4S 850 mAh')
    expect(lineTitle(motors)).toBe('motors')
  })
  it('a weighing says scale, day, pieces, display and check', () => {
    const said = weighingWords(motors.mass!, 4)
    expect(said).toContain(
      'Weighed on blue pocket scale on 2 November 2026, 4 of 4 pieces together, as fitted; it showed 44.09 g',
    )
    expect(said).toContain('corrected by the check in force then')
    expect(weighingWords({ ...motors.mass!, weighing: { ...weighing, checkId: null } }, 4)).toContain('was not checked')
    expect(weighingWords({ ...motors.mass!, pieceReadingsG: [11, 11.1] }, 4)).toContain('2 of 4 pieces one by one')
    expect(weighingWords({ ...motors.mass!, weighing: { ...weighing, method: 'typed' } }, 1)).toContain(
      'Typed on 2 November 2026 as shown on blue pocket scale, as fitted; it showed 44.09 g',
    )
    expect(weighingWords(pack.mass!, 1)).toBe('')
  })
  it('a craft weighed whole is not told to be unweighed', () => {
    expect([
      weighedShareWords({ weighedWhole: true, weighedLines: 1 }, 17),
      weighedShareWords({ weighedWhole: false, weighedLines: 1 }, 17),
      weighedShareWords({ weighedWhole: true, weighedLines: 17 }, 17),
      weighedShareWords({ weighedWhole: false, weighedLines: 0 }, 0),
    ]).toEqual(['weighed whole', '1 of 17 weighed', 'all 17 weighed', '0 of 0 weighed'])
  })
  it('what to weigh next promises to settle only what it settles', () => {
    const narrowing = {
      action: { kind: 'weigh' as const, lines: [pack] },
      spreadBeforeG: 22,
      spreadAfterG: 0.4,
      wordAfter: 'Clear' as const,
      settles: true,
    }
    expect(narrowingWords(narrowing, true)).toBe('Weigh the pack: it would settle it (± 22 becomes ± 0.40).')
    expect(narrowingWords(narrowing, false)).toBe('Weigh the pack: ± 22 becomes ± 0.40.')
    expect(
      narrowingWords(
        { ...narrowing, action: { kind: 'weigh', lines: [pack, { ...motors, slot: 'other' }] }, settles: false },
        true,
      ),
    ).toContain('the pack and motors')
  })
  it('the strip reads out whole', () => {
    const build = makeBuild({
      id: 'b',
      name: 'B',
      lines: [motors, pack],
      setups: [{ id: 's', name: 'as built', lineIds: [] }],
      flies: { setupId: 's', packLineId: 'p' },
      aim: {
        purpose: '',
        purposeKind: 'recreation' as const,
        places: [],
        cardIds: ['us-recreation'],
        reserveG: 0,
        confidence: 0.95,
        goalDryG: null,
        goalMinutes: null,
        goalPriceCents: null,
      },
    })
    const overview = overviewOf(build, build.flies, startingCards, estimatesOf(build, new ListingBiasTable()))
    expect(overviewSentence(overview)).toMatch(
      /^All-up weight 143 grams, plus or minus 22\. Drive 44 g, Flight pack 99 g\. Clear: 106\.\d g headroom under United States/,
    )
    expect(toneOf(overview.binding)).toBe('clear')
  })
})

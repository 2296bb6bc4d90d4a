import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ListingBiasTable } from '../../mass/listings'
import { makeLine, makeMass, type Line } from '../../model/ledger'
import {
  canFinish,
  displaysNeeded,
  isFinished,
  massOfDisplays,
  massOfDisplaysOrNull,
  nextRun,
  noRun,
  objection,
  panModes,
  piecesForOnePercent,
  piecesOnPan,
  runMessages,
  type OnThePan,
  type RunState,
} from './run-state'
import { expectedOnPan } from './run'
import { checked, coarse, taking } from './testing'
import { LineEstimates } from '../../mass/loadout'

const line = (id: string, quantity: number, eachG: number): Line =>
  makeLine({
    id,
    slot: quantity > 1 ? 'motor' : 'frame',
    name: id,
    quantity,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'listed', valueG: eachG, basis: 'as supplied' }),
  })
const frame = line('frame', 1, 40)
const motors = line('motors', 4, 9.1)
const honesty = new ListingBiasTable()
const estimates = new LineEstimates(honesty)
const tare = { id: 'zero', name: 'zero key', displayG: 0 }
const begun = nextRun(noRun, { type: 'begun', ids: ['frame', 'motors'] })
const at = (index: number, current: Line | null, state: RunState = begun) =>
  nextRun(state, { type: 'gone to', at: index, line: current })
const pan = (massG: number, more: Partial<OnThePan> = {}): OnThePan => ({
  display: { massG, reason: '' },
  ready: checked,
  tare,
  expected: null,
  ...more,
})

describe('a run over the lines', () => {
  it('begins with nothing read, and several pieces of a kind together', () => {
    expect(at(0, frame)).toMatchObject({ at: 0, mode: 'one piece', collectedG: [], message: '' })
    expect(at(1, motors)).toMatchObject({ at: 1, mode: 'all together' })
  })
  it('never leaves the list, and is finished behind its end', () => {
    expect(at(-5, frame).at).toBe(0)
    expect(isFinished(at(1, motors))).toBe(false)
    expect(at(9, null).at).toBe(2)
    expect(isFinished(at(9, null))).toBe(true)
    expect(isFinished(noRun)).toBe(false)
  })
  it('forgets what was read of a line, and the doubt, when it goes on', () => {
    const read = nextRun(nextRun(at(1, motors), { type: 'read', displayG: 9 }), { type: 'doubted' })
    expect(read).toMatchObject({ collectedG: [9], doubted: true })
    expect(at(0, frame, read)).toMatchObject({ collectedG: [], doubted: false, message: '', ids: begun.ids })
  })
  it('goes through the ways to put several pieces on, and says where there is one', () => {
    let state = at(1, motors)
    const seen = [state.mode]
    for (let i = 0; i < 3; i++) {
      state = nextRun(state, { type: 'pieces cycled', line: motors })
      seen.push(state.mode)
    }
    expect(seen).toEqual(['all together', 'one after another', 'one piece', 'all together'])
    const one = nextRun(at(0, frame), { type: 'pieces cycled', line: frame })
    expect(one).toMatchObject({ mode: 'one piece', message: runMessages.onePiece })
  })
  it('knows that a part trimmed on the scale is as fitted', () => {
    const supplied = nextRun(at(1, motors), { type: 'basis chosen', basis: 'as supplied' })
    expect(nextRun(supplied, { type: 'mode chosen', mode: 'before and after' }).basis).toBe('as fitted')
    expect(nextRun(supplied, { type: 'mode chosen', mode: 'in lifts' }).basis).toBe('as supplied')
  })
  it.each([
    ['one piece', 1, 1],
    ['all together', 4, 1],
    ['one after another', 1, 4],
    ['before and after', 4, 2],
    ['in lifts', 1, null],
  ] as const)('%s: %d on the pan, %s displays', (mode, pieces, needed) => {
    expect(piecesOnPan(mode, motors)).toBe(pieces)
    expect(displaysNeeded(mode, motors)).toBe(needed)
  })
  it('can be kept early where the pieces differ or the lifts are two', () => {
    const of = (mode: (typeof panModes)[number], collectedG: number[]) => canFinish({ ...begun, mode, collectedG })
    expect(of('one after another', [])).toBe(false)
    expect(of('one after another', [9])).toBe(true)
    expect(of('in lifts', [9])).toBe(false)
    expect(of('in lifts', [9, 9])).toBe(true)
    expect(of('one piece', [9])).toBe(false)
  })
})

describe('what speaks against taking a reading', () => {
  const expected = expectedOnPan(motors, 4, estimates)
  it('is no scale, no display, more than it carries', () => {
    const state = at(1, motors)
    expect(objection(state, pan(36, { ready: null }))).toBe(runMessages.noScale)
    expect(objection(state, pan(36, { display: { massG: null, reason: 'No scale is connected.' } }))).toBe(
      'No scale is connected.',
    )
    expect(objection(state, pan(36, { display: { massG: 36, reason: 'It has not come to rest.' } }))).toBe(
      'It has not come to rest.',
    )
    const { capacityG } = checked.scale
    expect(objection(state, pan(capacityG + 1))).toContain(`is more than ${checked.name} carries`)
    expect(objection(state, pan(capacityG))).toBeNull()
  })
  it('is doubt where it is far from what was expected, once', () => {
    const state = at(1, motors)
    expect(objection(state, pan(36.5, { expected }))).toBeNull()
    expect(objection(state, pan(80, { expected }))).toBe('doubt')
    expect(objection(nextRun(state, { type: 'doubted' }), pan(80, { expected }))).toBeNull()
    expect(objection(nextRun(state, { type: 'read', displayG: 9 }), pan(80, { expected }))).toBeNull()
    expect(objection(state, pan(80, { expected: null }))).toBeNull()
  })
  it('counts from the tray that lies on the pan', () => {
    const tray = { id: 't', name: 'tray', displayG: 43.5 }
    expect(objection(at(1, motors), pan(80, { expected, tare: tray }))).toBeNull()
  })
})

describe('the mass displays make', () => {
  const by = taking(checked)
  const mass = (mode: (typeof panModes)[number], displaysG: readonly number[], of = motors) =>
    massOfDisplays({ mode, basis: 'as fitted' }, by, of, displaysG, honesty)
  it('waits for the displays its mode needs', () => {
    for (const mode of panModes) expect(mass(mode, [])).toBeNull()
    expect(mass('before and after', [36])).toBeNull()
    expect(mass('in lifts', [36])).toBeNull()
  })
  it('is of one piece, of all, of their mean, of what is left, or of the lifts together', () => {
    expect(mass('one piece', [9.1])).toMatchObject({ valueCount: 1 })
    expect(mass('all together', [36.4])).toMatchObject({ valueCount: 4 })
    expect(mass('one after another', [9.1, 9.2, 9.0])).toMatchObject({
      valueCount: 1,
      pieceReadingsG: expect.any(Array),
    })
    expect(mass('one after another', [9.1])!.pieceReadingsG).toBeNull()
    expect(mass('before and after', [3, 1])!.valueG).toBeLessThan(estimates.of(motors).valueG)
    expect(mass('in lifts', [20, 16.4])!.valueG).toBeGreaterThan(mass('in lifts', [20, 10])!.valueG)
  })
  it('is refused where it comes out below nothing, or is none', () => {
    expect(() => mass('one piece', [-3])).toThrow(expect.objectContaining({ field: 'display', code: 'in range' }))
    expect(massOfDisplaysOrNull({ mode: 'one piece', basis: 'as fitted' }, by, motors, [-3], honesty)).toBeNull()
  })
})

describe('small pieces', () => {
  it('are weighed so many together that one is known to a hundredth', () => {
    const screws = line('screws', 40, 0.31)
    const together = piecesForOnePercent(screws, coarse)!
    expect(together).toBeGreaterThan(1)
    let compared = 0
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 50, noNaN: true }), eachG => {
        const wanted = piecesForOnePercent(line('x', 99, eachG), coarse)
        const heavier = piecesForOnePercent(line('x', 99, eachG * 2), coarse)
        if (wanted !== null) compared++
        if (wanted === null) expect(heavier).toBeNull()
        else expect(heavier ?? 1).toBeLessThanOrEqual(wanted)
      }),
    )
    expect(compared).toBeGreaterThan(20)
  })
  it('one alone, or of unknown grams, asks for nothing', () => {
    expect(piecesForOnePercent(frame, coarse)).toBeNull()
    expect(piecesForOnePercent({ ...motors, mass: null }, coarse)).toBeNull()
  })
})

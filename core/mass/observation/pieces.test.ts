import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyCommand, diffBuilds, applyPatch, CommandRefused } from '../../changes/commands'
import { sigmaG } from '../../maths/estimate'
import { makeLine, makeMass, type Build } from '../../model/ledger'
import { estimatesOf } from '../loadout'
import { pieceQuestion, placeOf, takeByDifference, type ReadyScale } from '../../deciding/weigh'
import {
  buildOf,
  check,
  checked,
  coarse,
  flown,
  gramsOf,
  guessedLine,
  lineOf,
  listed,
  madeUpLedger,
  nobody,
  taking,
  total,
  type,
  unchecked,
  weighed,
  weighOne,
  weighTogether,
} from '../../deciding/weigh/testing'
import { startingCards } from '../../limits/rules'

describe('better known is not changed', () => {
  const craft = buildOf([
    listed('frame', 'frame', 40),
    listed('motors', 'motor', 9.3, 4),
    listed('boards', 'board', 14),
    guessedLine('wires', 5),
    guessedLine('solder', 2),
  ])
  const whole = weighTogether(craft, 104.1)
  it('weighing the frame after the whole craft narrows: the whole goes on holding', () => {
    expect(sigmaG({ valueG: 0, contributions: { x: total(craft).sigmaG } })).toBeGreaterThan(1.5)
    const before = total(whole)
    expect(before.sigmaG).toBeLessThan(0.1)
    const after = weighOne(whole, 'frame', 41.3)
    expect(total(after).sigmaG).toBeLessThanOrEqual(1.03 * before.sigmaG)
    expect(total(after).massG).toBeCloseTo(before.massG, 1)
    // Then the line shows what the scale showed, and the others share the rest.
    expect(gramsOf(after, 'frame').valueG).toBeCloseTo(41.3 / check!.result.gain, 1)
    const others = ['motors', 'boards', 'wires', 'solder'].reduce((sum, id) => sum + gramsOf(after, id).valueG, 0)
    expect(others).toBeCloseTo(total(after).massG - gramsOf(after, 'frame').valueG, 9)
  })
  it('a slip mended takes the place of the figure it withdraws, and the total moves within its spread', () => {
    const slip = buildOf([
      listed('frame', 'frame', 40),
      makeLine({
        id: 'strap',
        slot: 'strap',
        name: 'strap',
        mass: makeMass({ versionId: 'slip', evidence: 'weighed', valueG: 0.1, resolutionG: 0.1 }),
      }),
    ])
    const seen = weighTogether(slip, 44.3)
    const mended = type(seen, 'strap', 4.1, 'mended')
    expect(total(mended).massG - total(seen).massG).toBeLessThan(1.96 * total(seen).sigmaG)
    expect(gramsOf(mended, 'strap').valueG).toBeCloseTo(4.1, 1)
    expect(gramsOf(mended, 'frame').valueG).toBeCloseTo(44.3 / check!.result.gain - 4.1, 1)
  })
  it('a ledger weighed line by line is the sum of its displays over their gain', () => {
    const one = ['frame', 'motors', 'boards', 'wires', 'solder'].reduce(
      (build, id, i) => weighOne(build, id, [41.3, 38.2, 13.9, 5.6, 2.1][i]!),
      craft,
    )
    expect(total(one).massG).toBeCloseTo((41.3 + 38.2 + 13.9 + 5.6 + 2.1) / check!.result.gain, 9)
    for (const line of one.lines) expect(line.further).toEqual([])
  })
  it('a weighing of a line already weighed is one more observation beside it', () => {
    const once = weighOne(craft, 'frame', 41.3, unchecked)
    const twice = weighOne(once, 'frame', 41.22)
    expect(lineOf(twice, 'frame').mass).toBe(lineOf(once, 'frame').mass)
    expect(lineOf(twice, 'frame').further).toHaveLength(1)
    expect(sigmaG(gramsOf(twice, 'frame'))).toBeLessThan(sigmaG(gramsOf(once, 'frame')))
    // The better scale has most of the say: the inverse-variance mean of the two.
    const [a, b] = [gramsOf(once, 'frame'), gramsOf(weighOne(craft, 'frame', 41.22), 'frame')]
    const [va, vb] = [sigmaG(a) ** 2, sigmaG(b) ** 2]
    expect(gramsOf(twice, 'frame').valueG).toBeCloseTo((a.valueG / va + b.valueG / vb) / (1 / va + 1 / vb), 6)
  })
  it('a weighing less sure than the listing lies beside it, and so does not widen', () => {
    const strap = buildOf([listed('strap', 'strap', 1.2)])
    const kitchen: ReadyScale = { scale: { ...coarse, resolutionG: 1 }, check: null, name: 'kitchen' }
    const after = weighOne(strap, 'strap', 1, kitchen)
    expect(lineOf(after, 'strap')).toMatchObject({ mass: { evidence: 'listed' }, further: [{ of: null }] })
    expect(total(after).sigmaG).toBeLessThan(total(strap).sigmaG)
  })
  it('what is cut by difference is another piece: the total moves by the difference and stays narrow', () => {
    const again = weighOne(weighOne(whole, 'motors', 38.2), 'motors', 38.21)
    const line = lineOf(again, 'motors')
    const mass = takeByDifference(taking(checked), line, 1.62, 0, nobody)
    const cut = applyCommand(again, {
      type: 'line.weigh',
      id: 'motors',
      mass,
      as: placeOf(mass, line, again, estimatesOf(again, nobody), nobody),
    })
    expect(lineOf(cut, 'motors')).toMatchObject({ edition: 1, further: [{ of: { quantity: 4, mass: line.mass } }] })
    expect(cut.observations[0]!.subjects.find(s => s.id === 'motors')).toMatchObject({ edition: 0, mass: line.mass })
    expect(total(cut).massG).toBeCloseTo(total(again).massG - 1.62 / check!.result.gain, 2)
    expect(total(cut).sigmaG).toBeLessThan(Math.hypot(total(again).sigmaG, 0.02))
    // The piece it is now may be weighed, and is then no longer tied to what it was.
    const cutAndWeighed = weighOne(cut, 'motors', 36.6)
    expect(lineOf(cutAndWeighed, 'motors').further.map(one => one.of === null)).toEqual([false, true])
    expect(total(cutAndWeighed).sigmaG).toBeLessThanOrEqual(total(cut).sigmaG + 1e-12)
  })
  it('another number of pieces is another piece: what was on the pan keeps what was known of it', () => {
    const fewer = applyCommand(whole, { type: 'lines.change', changes: [{ id: 'motors', fields: { quantity: 3 } }] })
    expect(lineOf(fewer, 'motors').edition).toBe(1)
    const then = weighOne(fewer, 'motors', 28.7)
    expect(then.observations[0]!.subjects.find(s => s.id === 'motors')).toMatchObject({
      quantity: 4,
      edition: 0,
      mass: { evidence: 'listed' },
    })
    expect(gramsOf(then, 'motors').valueG).toBeCloseTo(28.7 / check!.result.gain, 1)
  })
  it('a line deleted after it became better known still explains what was on the pan', () => {
    const known = weighOne(whole, 'wires', 6.1)
    const without = applyCommand(known, { type: 'lines.delete', ids: ['wires'] })
    expect(total(without).massG).toBeCloseTo(total(known).massG - gramsOf(known, 'wires').valueG, 6)
    expect(total(without).sigmaG).toBeLessThan(0.1)
  })
  it(
    'weighings kept before there were editions count for the piece while its grams are the same, and ' +
      'go on when it becomes better known',
    () => {
      const old: Build = {
        ...whole,
        observations: whole.observations.map(o => ({
          ...o,
          subjects: o.subjects.map(({ edition: _edition, ...subject }) => subject),
        })),
      }
      expect(total(old)).toEqual(total(whole))
      const after = weighOne(old, 'frame', 41.3)
      expect(total(after).sigmaG).toBeLessThanOrEqual(1.03 * total(old).sigmaG)
      expect(lineOf(after, 'frame').edition).toBe(0)
      const swapped = applyCommand(old, {
        type: 'lines.change',
        changes: [
          {
            id: 'frame',
            fields: { mass: makeMass({ versionId: 'else', evidence: 'weighed', valueG: 20 }) },
            anotherPiece: true,
          },
        ],
      })
      expect(gramsOf(swapped, 'frame').valueG).toBe(20)
      expect(total(swapped).massG).toBeCloseTo(total(old).massG - gramsOf(old, 'frame').valueG + 20, 3)
    },
  )
  it('something on the pan without grams says nothing of the others until it has some', () => {
    const open = buildOf([...craft.lines, makeLine({ id: 'tape', slot: 'other', name: 'tape' })])
    const seen = weighTogether(open, 106)
    expect(gramsOf(seen, 'frame').valueG).toBe(gramsOf(open, 'frame').valueG)
    const said = type(seen, 'tape', 1.9, 'tape-1')
    expect(total(said).massG).toBeCloseTo(106 / check!.result.gain, 1)
    expect(total(said).sigmaG).toBeLessThan(0.1)
  })
  it('refuses more weighings beside a line than it keeps, and every command is undone by its patch', () => {
    const again = weighOne(weighOne(craft, 'frame', 41.3), 'frame', 41.31)
    const full: Build = {
      ...again,
      lines: again.lines.map(line =>
        line.id === 'frame' ? { ...line, further: Array.from({ length: 200 }, () => line.further[0]!) } : line,
      ),
    }
    expect(() => weighOne(full, 'frame', 41.3)).toThrow(CommandRefused)
    for (const next of [
      weighOne(whole, 'frame', 41.3),
      weighOne(again, 'frame', 41.2),
      type(whole, 'wires', 4, 'w1'),
      applyCommand(whole, { type: 'lines.delete', ids: ['wires'] }),
    ]) {
      const from = next.lines.length < 5 || next.observations.length > 0 ? whole : again
      expect(applyPatch(next, diffBuilds(from, next), 'backwards')).toEqual(from)
    }
  })
})

describe('same piece or another', () => {
  const near = (solderG: number) =>
    weighTogether(
      buildOf([
        weighed(guessedLine('frame', 40), 40.02),
        weighed(guessedLine('pack', 90), 90.1),
        guessedLine('wires', 5),
        guessedLine('solder', solderG),
      ]),
      136.8,
    )
  const asked = (before: Build, after: Build, id: string) =>
    pieceQuestion(before, after, id, flown, startingCards, nobody)
  it('against a guess or a listing alone nothing is asked, however far off', () => {
    const alone = buildOf([guessedLine('frame', 40)])
    expect(asked(alone, weighOne(alone, 'frame', 80), 'frame')).toBeNull()
    const craft = near(2)
    expect(asked(craft, weighOne(craft, 'wires', 4.9), 'wires')).toBeNull()
  })
  it('asks where it does not go with what the line was weighed as, or with what it was part of', () => {
    const craft = near(2)
    const heavy = weighOne(craft, 'frame', 43)
    expect(asked(craft, heavy, 'frame')).toMatchObject({
      lineId: 'frame',
      contradicted: { title: 'the weighings before' },
      until: 'another',
    })
    const wires = weighOne(craft, 'wires', 9)
    expect(asked(craft, wires, 'wires')).toMatchObject({ contradicted: { title: 'whole' } })
  })
  it('“another” leaves the earlier weighings to what the piece was', () => {
    const craft = near(2)
    const heavy = weighOne(craft, 'frame', 43)
    const question = asked(craft, heavy, 'frame')!
    const another = applyCommand(heavy, {
      type: 'line.another',
      id: 'frame',
      versionId: question.versionId,
      was: question.was,
    })
    expect(lineOf(another, 'frame')).toMatchObject({ edition: 1, further: [] })
    expect(gramsOf(another, 'frame').valueG).toBeCloseTo(43 / check!.result.gain, 2)
    expect(total(another).massG - total(craft).massG).toBeCloseTo(2.98 / check!.result.gain, 2)
    expect(total(another).sigmaG).toBeLessThan(Math.hypot(total(craft).sigmaG, 0.02))
    expect(() =>
      applyCommand(craft, { type: 'line.another', id: 'frame', versionId: 'gone', was: question.was }),
    ).toThrow('other grams by now')
  })
  it('what one piece cannot be is another one until somebody says it is the same; then the weighings of it hold again', () => {
    const craft = near(2)
    const slip = asked(craft, weighOne(craft, 'wires', 44.9), 'wires')!
    expect(slip).toMatchObject({ until: 'another', contradicted: { title: 'whole' } })
    const taken = weighOne(craft, 'wires', 44.9, checked, 'another piece')
    for (const line of taken.lines) expect(gramsOf(taken, line.id).valueG).toBeGreaterThan(0)
    const same = applyCommand(taken, { type: 'line.same', id: 'wires', was: slip.was })
    const direct = weighOne(craft, 'wires', 44.9, checked, 'estimate')
    expect(total(same).massG).toBeCloseTo(total(direct).massG, 9)
    expect(total(same).sigmaG).toBeCloseTo(total(direct).sigmaG, 9)
    const twice = weighOne(craft, 'frame', 43, checked, 'another piece')
    expect(applyCommand(twice, { type: 'line.same', id: 'frame', was: lineOf(craft, 'frame').mass! })).toMatchObject({
      lines: [
        { mass: lineOf(craft, 'frame').mass, further: [{ mass: lineOf(twice, 'frame').mass, of: null }] },
        {},
        {},
        {},
      ],
    })
    // A weighing beside the estimate comes back as well.
    const again = weighOne(weighOne(craft, 'frame', 40.03), 'frame', 40.01)
    const other = applyCommand(again, {
      type: 'lines.change',
      changes: [
        {
          id: 'frame',
          fields: { mass: makeMass({ versionId: 'new', evidence: 'weighed', valueG: 48 }) },
          anotherPiece: true,
        },
      ],
    })
    expect(
      lineOf(
        applyCommand(other, { type: 'line.same', id: 'frame', was: lineOf(again, 'frame').mass! }),
        'frame',
      ).further.map(one => one.of),
    ).toEqual([null, null])
    expect(() => applyCommand(craft, { type: 'line.same', id: 'frame', was: lineOf(craft, 'frame').mass! })).toThrow(
      'always was',
    )
  })
  it('asks beyond two of its standard uncertainties, and beyond four takes it for another until somebody says', () => {
    const craft = near(2)
    const at = (displayG: number) => asked(craft, weighOne(craft, 'frame', displayG, checked, 'further'), 'frame')
    /** The least display, by halving, from which on this is so. */
    const from = (isSo: (displayG: number) => boolean) => {
      let [low, high] = [40.1, 41]
      if (isSo(low) || !isSo(high)) [low, high] = [40, 42]
      for (let n = 0; n < 30; n++) {
        const middle = (low + high) / 2
        if (isSo(middle)) high = middle
        else low = middle
      }
      return high
    }
    expect(at(from(g => at(g)?.contradicted != null))!.contradicted!.z).toBeCloseTo(2, 3)
    expect(at(from(g => at(g)?.until === 'another'))!.contradicted!.z).toBeCloseTo(4, 3)
  })
  it('asks where the two answers give different words, although nothing is contradicted', () => {
    // The frame was weighed on the coarse scale, and 0.3 g decides: the same piece is Clear with the whole, another is not.
    const craft = weighTogether(
      buildOf([{ ...guessedLine('frame', 150), slot: 'frame' }, guessedLine('pack', 90), guessedLine('wires', 8)]),
      248.9,
    )
    const after = weighOne(craft, 'frame', 151)
    expect(asked(craft, after, 'frame')).toMatchObject({
      contradicted: null,
      wordSame: 'Clear',
      wordAnother: 'Too close to call',
    })
  })
})

describe('over made-up ledgers with weighings', () => {
  it('weighing a line again widens no loadout; weighing it first by at most 3 %', () => {
    const hits = { first: 0, again: 0, observed: 0, beside: 0 }
    let worst = 1
    fc.assert(
      fc.property(
        madeUpLedger,
        fc.nat(8),
        fc.boolean(),
        fc.double({ min: 0.9, max: 1.1, noNaN: true }),
        (build, which, onGood, factor) => {
          const line = build.lines[which % build.lines.length]!
          const first = line.mass!.evidence !== 'weighed'
          const after = weighOne(
            build,
            line.id,
            Number((gramsOf(build, line.id).valueG * factor).toFixed(2)) || 0.01,
            onGood ? checked : unchecked,
          )
          const beside = lineOf(after, line.id).further.length > 0
          if (first) hits.first++
          else hits.again++
          if (beside) hits.beside++
          if (build.observations.length > 0) hits.observed++
          const ratio = total(after).sigmaG / total(build).sigmaG
          worst = Math.max(worst, ratio)
          expect(ratio).toBeLessThanOrEqual(beside ? 1 + 1e-9 : 1.03)
        },
      ),
      { numRuns: 1500, seed: 20_261_127 },
    )
    expect(Math.min(hits.first, hits.again, hits.beside)).toBeGreaterThan(300)
    expect(hits.observed).toBeGreaterThan(500)
    expect(worst).toBeGreaterThan(1)
  })
  it('another scale moves a typed figure only where both share a cause, and the weighing is named', () => {
    const typed = (id: string, valueG: number) =>
      makeLine({
        id,
        slot: 'other',
        name: id,
        mass: makeMass({ versionId: `t-${id}`, evidence: 'weighed', valueG, resolutionG: 0.01 }),
      })
    const build = buildOf([typed('pack', 250), typed('frame', 100)])
    const after = weighOne(build, 'frame', 99.9)
    const estimates = estimatesOf(after, nobody)
    const pack = lineOf(after, 'pack')
    expect(estimates.of(pack).valueG).toBeLessThan(250)
    const [mover] = estimates.movedBy(pack)
    expect(mover).toMatchObject({ id: lineOf(after, 'frame').further[0]!.mass.versionId })
    expect(estimates.before(pack).valueG + mover!.shiftG).toBeCloseTo(estimates.of(pack).valueG, 9)
    const apart = buildOf([weighed(guessedLine('pack', 250), 250, unchecked), typed('frame', 100)])
    const moved = weighOne(apart, 'frame', 99.9)
    expect(estimatesOf(moved, nobody).movedBy(lineOf(moved, 'pack'))).toEqual([])
    expect(gramsOf(moved, 'pack').valueG).toBe(gramsOf(apart, 'pack').valueG)
  })
})

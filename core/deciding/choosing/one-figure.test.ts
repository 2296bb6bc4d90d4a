import { shelfEntry } from '../shelf'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyCommand } from '../../changes/commands'
import { gramsWithSpread } from '../../text/display'
import { lineOfPart, makePart, type Part } from '../../parts/drawer'
import { sigmaG } from '../../maths/estimate'
import { noGear } from '../../aircraft/fit'
import { sheetCells } from '../../aircraft/flight'
import { makeLine, makeMass, type Build, type Evidence, type Line, type LoadoutChoice } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { allLoadouts, estimatesOf } from '../../mass/loadout'
import { coverageFactor95 } from '../../maths/numbers'
import {
  bindingJudgement,
  chosenCards,
  judgeUnderCard,
  loadoutVerdicts,
  overviewOf,
  reportRows,
} from '../../mass/report'
import { startingCards } from '../../limits/rules'
import { openLinesOf, poseProblem, planSteps, makeShaving, type PlanningSetting } from '../shave'
import { checked, buildOf, unchecked, weighTogether } from '../weigh/testing'
import { candidateRows } from './index'

const nobody = new ListingBiasTable()
const evidences: readonly Evidence[] = ['guess', 'listed', 'weighed', 'worked out']
const part = fc.record({
  evidence: fc.constantFrom(...evidences),
  grams: fc.integer({ min: 20, max: 3500 }),
  quantity: fc.constantFrom(1, 1, 2, 4),
  slot: fc.constantFrom<Line['slot']>('frame', 'motor', 'board', 'strap', 'camera'),
})
const pack = fc.record({ evidence: fc.constantFrom(...evidences), grams: fc.integer({ min: 1500, max: 9000 }) })
const shape = fc.record({
  parts: fc.array(part, { minLength: 2, maxLength: 6 }),
  packs: fc.array(pack, { minLength: 1, maxLength: 3 }),
  lamp: part,
  onTwo: fc.nat(5),
  duplicated: fc.nat(5),
  open: fc.constantFrom(false, false, false, true),
  cards: fc.subarray(['us-recreation', 'eu-open-a1-home-built', 'uk-flyer-100', 'jp-100'], { minLength: 1 }),
  reserveG: fc.constantFrom(0, 0, 2.5),
  together: fc.option(
    fc.record({ from: fc.nat(5), off: fc.double({ min: -0.02, max: 0.02, noNaN: true }), onGood: fc.boolean() }),
  ),
  fly: fc.nat(20),
  never: fc.option(fc.nat(20)),
})
const mass = (versionId: string, evidence: Evidence, centigrams: number) =>
  makeMass({ versionId, evidence, valueG: centigrams / 100 })

/** A build with a drawer part on two lines, a duplicated line, set-ups, packs, and maybe a weighing of several lines together. */
function made(of: typeof shape extends fc.Arbitrary<infer T> ? T : never): { build: Build; parts: readonly Part[] } {
  const drawer = of.parts.map((one, i) =>
    makePart({
      id: `part${i}`,
      slot: one.slot,
      name: `part ${i}`,
      owned: 9,
      mass: mass(`p${i}`, one.evidence, one.grams),
    }),
  )
  const own = drawer.map((one, i) => lineOfPart(one, `l${i}`, of.parts[i]!.quantity))
  const twice = lineOfPart(drawer[of.onTwo % drawer.length]!, 'twice', 1)
  const copy: Line = { ...own[of.duplicated % own.length]!, id: 'copy', partId: null }
  const lamp = makeLine({
    id: 'lamp',
    slot: 'payload',
    name: 'lamp',
    removable: true,
    mass: mass('lamp', of.lamp.evidence, of.lamp.grams),
  })
  const packs = of.packs.map((one, i) =>
    makeLine({ id: `pack${i}`, slot: 'pack', name: `pack ${i}`, mass: mass(`pk${i}`, one.evidence, one.grams) }),
  )
  const open = of.open ? [makeLine({ id: 'open', slot: 'strap', name: 'open' })] : []
  const bare = buildOf([...own, twice, copy, lamp, ...open, ...packs])
  const setups = [
    { id: 's', name: 'bare', lineIds: [] },
    { id: 'lit', name: 'with lamp', lineIds: ['lamp'] },
  ]
  const choices = setups.flatMap(({ id }) => packs.map((line): LoadoutChoice => ({ setupId: id, packLineId: line.id })))
  const build: Build = {
    ...bare,
    setups,
    flies: choices[of.fly % choices.length]!,
    neverFlown: of.never === null ? [] : [choices[of.never % choices.length]!],
    aim: {
      ...bare.aim,
      cardIds: of.cards,
      places: ['United States', 'European Union', 'United Kingdom', 'Japan'],
      reserveG: of.reserveG,
    },
  }
  if (!of.together) return { build, parts: drawer }
  const ids = [...own, twice, copy].slice(of.together.from % 4).map(line => line.id)
  const sumG = ids.reduce(
    (sum, id) =>
      sum + build.lines.find(line => line.id === id)!.quantity * build.lines.find(line => line.id === id)!.mass!.valueG,
    0,
  )
  return {
    build: weighTogether(
      build,
      Number((sumG * (1 + of.together.off)).toFixed(2)),
      of.together.onGood ? checked : unchecked,
      ids,
    ),
    parts: drawer,
  }
}

describe('one loadout has one figure', () => {
  it('in head, sheet, report, shelf, cards, Choosing, Packs and Shave, over 500 builds', () => {
    const hits = { together: 0, clear: 0, over: 0, close: 0, shared: 0, several: 0, heaviest: 0, shave: 0 }
    fc.assert(
      fc.property(shape, given => {
        const { build, parts } = made(given)
        const estimates = estimatesOf(build, nobody)
        const cards = chosenCards(build, startingCards)
        const head = overviewOf(build, build.flies, startingCards, estimates)
        const word = head.binding?.verdict?.word ?? null
        const figure = gramsWithSpread(head.massG, head.spreadG)
        const same = (where: string, massG: number, sigma: number, its: string | null) => {
          expect(massG, where).toBeCloseTo(head.massG, 9)
          expect(sigma, where).toBeCloseTo(head.sigmaG, 9)
          expect(gramsWithSpread(massG, sigma * coverageFactor95), where).toBe(figure)
          expect(its, where).toBe(word)
        }
        const cell = sheetCells(build, [], cards, estimates).find(
          c => c.choice.setupId === build.flies.setupId && c.choice.packLineId === build.flies.packLineId,
        )!
        same('Packs', cell.massG, cell.sigmaG, cell.binding?.verdict?.word ?? null)
        const [verdicts] = loadoutVerdicts(build, [build.flies], cards, estimates)
        same('verdicts', verdicts!.massG, verdicts!.sigmaG, verdicts!.binding?.verdict?.word ?? null)
        const row = reportRows(build, startingCards, nobody).find(
          r => r.choice.setupId === build.flies.setupId && r.choice.packLineId === build.flies.packLineId,
        )
        // Loadouts never flown are not reported.
        if (row) {
          expect(row.auwG).toBeCloseTo(head.massG, 9)
          expect(gramsWithSpread(row.auwG, row.spreadG)).toBe(figure)
        }
        const shelf = shelfEntry(build, startingCards, nobody)
        same('Shelf', shelf.massG, shelf.sigmaG, shelf.word)
        expect(
          bindingJudgement(cards.map(card => judgeUnderCard(build, build.flies, card, estimates)))?.verdict?.word ??
            null,
        ).toBe(word)
        for (const [i, card] of cards.entries()) {
          const one = judgeUnderCard(build, build.flies, card, estimates)
          expect(verdicts!.judgements[i]!.massG).toBeCloseTo(one.massG, 9)
          expect(verdicts!.judgements[i]!.verdict?.word).toBe(one.verdict?.word)
          if (one.heaviest) hits.heaviest++
        }
        const choosing = candidateRows({
          build,
          fittedId: 'l0',
          parts,
          choice: build.flies,
          cards: startingCards,
          estimates,
          gear: noGear,
        })[0]!
        expect(choosing.auwG).toBeCloseTo(head.massG, 9)
        expect(choosing.verdict?.word ?? null).toBe(word)
        // Shave stands on the same weights: what has to come down is the loadout itself, and after no step nothing has changed.
        const setting: PlanningSetting = {
          build,
          choice: build.flies,
          cards: startingCards,
          estimates,
          goal: { kind: 'clear' },
          slipFactor: 1,
        }
        if (openLinesOf(setting).length === 0) {
          const { problem } = poseProblem(setting)
          const whole = cards.findIndex(card => card.counts === 'take-off')
          for (const target of problem.targets) expect(Number.isFinite(target.massG)).toBe(true)
          if (whole >= 0 && cards.length === 1) {
            expect(problem.targets[0]!.massG).toBeCloseTo(head.massG, 9)
            expect(sigmaG({ valueG: 0, contributions: problem.targets[0]!.contributions })).toBeCloseTo(head.sigmaG, 9)
            hits.shave++
          }
          const nothing = makeShaving({ id: 'x', what: 'leave the lamp', kind: 'leave off', lineId: 'lamp' })
          const listed = applyCommand(build, { type: 'shaving.put', shaving: nothing })
          const [step] = planSteps({ ...setting, build: listed }, [nothing])
          const off =
            build.flies.setupId === 'lit'
              ? overviewOf(
                  {
                    ...build,
                    lines: build.lines.map(line => (line.id === 'lamp' ? { ...line, state: 'off' as const } : line)),
                  },
                  build.flies,
                  startingCards,
                  estimates,
                ).massG
              : head.massG
          expect(step!.massG).toBeCloseTo(off, 9)
        }
        if (build.observations.length > 0) hits.together++
        if (word === 'Clear') hits.clear++
        else if (word === 'Over') hits.over++
        else hits.close++
        if (cards.length > 1) hits.several++
        if (allLoadouts(build).length > 1) hits.shared++
      }),
      { numRuns: 500, seed: 20261127 },
    )
    for (const [what, count] of Object.entries(hits)) expect(count, what).toBeGreaterThan(20)
  }, 120_000)
})

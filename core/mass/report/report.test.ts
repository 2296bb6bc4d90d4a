import { makeBuild } from '../../changes/commands'
import { shelfEntry } from '../../deciding/shelf'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addEstimates, sigmaG } from '../../maths/estimate'
import {
  blankAim,
  evidences,
  makeLine,
  makeMass,
  subjectOf,
  type Build,
  type Line,
  type Slot,
} from '../../model/ledger'
import { ListingBiasTable } from '../listings'
import { allLoadouts, countedLines, defaultLoadout, estimatesOf, LineEstimates, loadoutMasses } from '../loadout'
import { startingCards } from '../../limits/rules'
import {
  bindingJudgement,
  weighedWhole,
  chosenCards,
  judgeUnderCard,
  loadoutVerdicts,
  overviewOf,
  reportRows,
  spreadShares,
} from './index'

function grams(id: string, slot: Slot, valueG: number, more: Partial<Line> = {}): Line {
  return makeLine({
    id,
    slot,
    name: id,
    mass: makeMass({ versionId: `v-${id}`, evidence: 'weighed', valueG, ownSpreadG: 0 }),
    ...more,
  })
}
function buildOf(lines: Line[], more: Partial<Build> = {}): Build {
  return makeBuild({
    id: 'b',
    name: 'B',
    aim: { ...blankAim(), cardIds: ['uk-flyer-100', 'jp-100'] },
    lines,
    setups: [{ id: 's', name: 'all', lineIds: lines.filter(l => l.role !== 'airframe').map(l => l.id) }],
    flies: { setupId: 's', packLineId: lines.find(l => l.slot === 'pack')?.id ?? null },
    ...more,
  })
}
const estimates = () => new LineEstimates(new ListingBiasTable())

describe('weighed whole', () => {
  const build = buildOf([grams('frame', 'frame', 60), grams('p', 'pack', 37)])
  const whole = {
    id: 'o',
    title: 'whole',
    takenAt: '2026-11-01T10:00:00.000Z',
    scaleId: 's',
    scaleName: 'S',
    checkId: null,
    displaysG: [97],
    tareDisplayG: null,
    valueG: 97,
    contributions: {},
    state: 'taken in' as const,
    pictureIds: [],
    subjects: build.lines.map(subjectOf),
  }
  it('is what flies now, piece for piece, in a weighing that holds', () => {
    expect(weighedWhole({ observations: [whole] }, { counted: build.lines })).toBe(true)
    expect(weighedWhole({ observations: [{ ...whole, state: 'held' }] }, { counted: build.lines })).toBe(false)
    expect(weighedWhole({ observations: [whole] }, { counted: [...build.lines, grams('lamp', 'payload', 5)] })).toBe(
      false,
    )
    expect(
      weighedWhole(
        { observations: [whole] },
        { counted: build.lines.map(line => (line.id === 'p' ? { ...line, edition: 1 } : line)) },
      ),
    ).toBe(false)
    expect(
      weighedWhole(
        { observations: [whole] },
        { counted: build.lines.map(line => (line.id === 'p' ? { ...line, quantity: 2 } : line)) },
      ),
    ).toBe(false)
    expect(weighedWhole({ observations: [] }, { counted: [] })).toBe(false)
    const told = (observations: Build['observations']) =>
      shelfEntry({ ...build, observations }, startingCards, new ListingBiasTable()).weighedWhole
    expect([told([whole]), told([{ ...whole, state: 'held' }])]).toEqual([true, false])
  })
})

describe('what a card counts', () => {
  const build = buildOf([
    grams('frame', 'frame', 60),
    grams('lamp', 'payload', 5, { role: 'payload', removable: true }),
    grams('p', 'pack', 37),
  ])
  const under = (id: string) =>
    judgeUnderCard(
      build,
      build.flies,
      startingCards.find(c => c.id === id)!,
      estimates(),
    )

  it('Japan leaves out removable accessories: one verdict changes and the other does not', () => {
    expect(under('jp-100')).toMatchObject({ massG: 97, leftOut: ['lamp'], verdict: { word: 'Clear' } })
    expect(under('uk-flyer-100')).toMatchObject({ massG: 102, leftOut: [], verdict: { word: 'Over' } })
  })
  it('the heaviest loadout allowed stands for the maximum take-off mass', () => {
    const two = buildOf([...build.lines, grams('q', 'pack', 200)])
    const eu = startingCards.find(c => c.id === 'eu-open-a1-home-built')!
    expect(judgeUnderCard(two, two.flies, eu, estimates())).toMatchObject({
      massG: 265,
      verdict: { word: 'Over' },
      heaviest: { packLineId: 'q' },
    })
    const never = { ...two, neverFlown: [{ setupId: 's', packLineId: 'q' }] }
    expect(judgeUnderCard(never, never.flies, eu, estimates())).toMatchObject({
      massG: 102,
      verdict: { word: 'Clear' },
    })
  })
  it(
    'not the heaviest by mean decides, but the least probable: a pack that is only guessed is not ' +
      'Clear in its cell and too close by itself',
    () => {
      const eu = startingCards.find(c => c.id === 'eu-open-a1-home-built')!
      const guess = makeLine({
        id: 'q',
        slot: 'pack',
        name: 'q',
        mass: makeMass({ versionId: 'v-q', evidence: 'guess', valueG: 107 }),
      })
      const two = buildOf([grams('frame', 'frame', 130), grams('heavy', 'pack', 112), guess])
      expect(judgeUnderCard(two, two.flies, eu, estimates())).toMatchObject({
        heaviest: { packLineId: 'q' },
        verdict: { word: 'Too close to call' },
      })
      const asked = { ...two, aim: { ...two.aim, cardIds: [eu.id] } }
      expect(shelfEntry(asked, [eu], new ListingBiasTable())).toMatchObject({
        word: 'Too close to call',
        loadout: 'all · heavy',
        decidedBy: 'all · q',
      })
      expect(
        shelfEntry({ ...asked, flies: { setupId: 's', packLineId: 'q' } }, [eu], new ListingBiasTable()).decidedBy,
      ).toBeNull()
      expect(loadoutVerdicts(two, allLoadouts(two), [eu], estimates()).map(one => one.binding?.verdict?.word)).toEqual([
        'Too close to call',
        'Too close to call',
      ])
    },
  )
  it('a pack nobody has said the grams of is not Clear; one that is Over is Over all the same', () => {
    const eu = startingCards.find(c => c.id === 'eu-open-a1-home-built')!
    const open = { ...grams('q', 'pack', 0), mass: null }
    const two = buildOf([grams('frame', 'frame', 130), grams('known', 'pack', 90), open])
    expect(judgeUnderCard(two, two.flies, eu, estimates())).toMatchObject({
      heaviest: { packLineId: 'q' },
      openLines: 1,
      verdict: { word: 'Too close to call' },
    })
    const over = buildOf([...two.lines, grams('brick', 'pack', 180)])
    expect(judgeUnderCard(over, over.flies, eu, estimates())).toMatchObject({
      heaviest: { packLineId: 'brick' },
      openLines: 0,
      verdict: { word: 'Over' },
    })
  })
  it('the worst verdict binds, whatever the order of the cards', () => {
    const both = [under('jp-100'), under('uk-flyer-100')]
    expect(bindingJudgement(both)?.card.id).toBe('uk-flyer-100')
    expect(bindingJudgement([...both].reverse())?.card.id).toBe('uk-flyer-100')
    expect(bindingJudgement([])).toBeNull()
  })
  it('a line without grams keeps the verdict from being Clear, and never makes Over better', () => {
    const open = buildOf([grams('frame', 'frame', 20), { ...grams('x', 'strap', 0), mass: null }])
    const judged = judgeUnderCard(
      open,
      open.flies,
      startingCards.find(c => c.id === 'jp-100')!,
      estimates(),
    )
    expect(judged).toMatchObject({ openLines: 1, verdict: { word: 'Too close to call' } })
  })
})

const anyLine = fc.record({
  slot: fc.constantFrom<Slot>('frame', 'motor', 'camera', 'pack', 'payload', 'guard'),
  evidence: fc.constantFrom(...evidences),
  valueG: fc.double({ min: 0, max: 60, noNaN: true }),
  quantity: fc.integer({ min: 1, max: 5 }),
  optional: fc.boolean(),
  fitted: fc.boolean(),
})
const anyBuild = fc.array(anyLine, { minLength: 1, maxLength: 25 }).map(list =>
  buildOf(
    list.map((l, i) =>
      makeLine({
        id: `l${i}`,
        slot: l.slot,
        name: `line ${i}`,
        quantity: l.quantity,
        state: l.fitted ? 'fitted' : 'off',
        role: l.optional ? 'fitting' : 'airframe',
        mass: makeMass({ versionId: `v${i}`, evidence: l.evidence, valueG: l.valueG }),
      }),
    ),
  ),
)

describe('loadout sums', () => {
  it('the fast sheet equals adding every estimate key by key', () => {
    fc.assert(
      fc.property(anyBuild, build => {
        const two = { ...build, setups: [...build.setups, { id: 'none', name: 'bare', lineIds: [] }] }
        const table = estimates()
        for (const { choice, massG, sigmaG: sigma } of loadoutMasses(two, allLoadouts(two), table)) {
          const slow = addEstimates(countedLines(two, choice).map(l => table.of(l)))
          expect(massG).toBeCloseTo(slow.valueG, 9)
          expect(sigma).toBeCloseTo(sigmaG(slow), 9)
        }
      }),
    )
  })
  const observed = (build: Build, share: number, offG: number): Build => {
    const subjects = build.lines.filter(l => l.mass).slice(0, Math.max(1, Math.round(share * build.lines.length)))
    if (subjects.length === 0) return build
    const booked = addEstimates(subjects.map(l => estimates().of(l))).valueG
    return {
      ...build,
      observations: [
        {
          id: 'o',
          title: 'stage',
          takenAt: '2026-11-01T10:00:00Z',
          scaleId: 's',
          scaleName: 's',
          checkId: null,
          pictureIds: [],
          displaysG: [booked],
          tareDisplayG: 0,
          valueG: Math.max(0, booked + offG),
          contributions: { 'weighing:o': 0.01, 'gain:s:unchecked': 0.002 * booked },
          subjects: subjects.map(subjectOf),
          state: 'taken in',
        },
      ],
    }
  }
  const share = fc.double({ min: 0, max: 1, noNaN: true })
  const offG = fc.double({ min: -3, max: 3, noNaN: true })
  it('so it does after weighings of several lines, when causes of one line stand in all', () => {
    fc.assert(
      fc.property(anyBuild, share, offG, (plain, part, off) => {
        const build = observed(plain, part, off)
        const table = estimatesOf(build, new ListingBiasTable())
        for (const { choice, massG, sigmaG: sigma } of loadoutMasses(build, allLoadouts(build), table)) {
          const slow = addEstimates(countedLines(build, choice).map(l => table.of(l)))
          expect(massG).toBeCloseTo(slow.valueG, 8)
          expect(sigma).toBeCloseTo(sigmaG(slow), 8)
        }
      }),
    )
  })
  it('estimates kept from edit to edit are those made afresh', () => {
    const hits = { onPan: 0, apart: 0 }
    fc.assert(
      fc.property(anyBuild, share, offG, fc.nat(), (plain, part, off, at) => {
        const before = observed(plain, part, off)
        const first = estimatesOf(before, new ListingBiasTable())
        loadoutMasses(before, allLoadouts(before), first)
        const editedId = before.lines[at % before.lines.length]!.id
        const onPan = before.observations.some(o => o.subjects.some(subject => subject.id === editedId))
        const edited = {
          ...before,
          lines: before.lines.map((l, i) =>
            i === at % before.lines.length && l.mass
              ? { ...l, mass: { ...l.mass, versionId: 'edited', valueG: l.mass.valueG + 1 } }
              : l,
          ),
        }
        const kept = first.for(edited, new ListingBiasTable())
        if (onPan) hits.onPan++
        else hits.apart++
        // What a weighing speaks of changes what it says of the others; what it does not speak of leaves everything else as it is.
        expect(kept === first).toBe(!onPan || edited.lines.every((line, i) => line.mass === before.lines[i]!.mass))
        const fresh = estimatesOf(edited, new ListingBiasTable())
        for (const [i, mass] of loadoutMasses(edited, allLoadouts(edited), kept).entries()) {
          const again = loadoutMasses(edited, allLoadouts(edited), fresh)[i]!
          expect(mass.massG).toBeCloseTo(again.massG, 9)
          expect(mass.sigmaG).toBeCloseTo(again.sigmaG, 9)
        }
        expect(first.for({ ...edited, observations: [] }, new ListingBiasTable()) === first).toBe(
          before.observations.length === 0,
        )
      }),
    )
    expect(Math.min(hits.onPan, hits.apart)).toBeGreaterThan(10)
  })
  it('groups, report and shelf agree with the total', () => {
    let onShelf = 0
    fc.assert(
      fc.property(anyBuild, build => {
        const overview = overviewOf(build, build.flies, startingCards, estimates())
        const entry = shelfEntry(build, startingCards, new ListingBiasTable())
        expect(overview.groups.reduce((sum, g) => sum + g.estimate.valueG, 0)).toBeCloseTo(overview.massG, 9)
        const row = reportRows(build, startingCards, new ListingBiasTable()).find(
          r => r.choice.packLineId === overview.counted.find(l => l.slot === 'pack')?.id,
        )
        const shown = defaultLoadout(build)
        expect(entry.massG).toBe(overviewOf(build, shown, startingCards, estimates()).massG)
        if (!row || row.choice.setupId !== build.flies.setupId) return
        onShelf++
        expect(row.auwG).toBeCloseTo(overview.massG, 9)
      }),
    )
    expect(onShelf).toBeGreaterThan(10)
  })
  it('one thing on two lines is one cause: head, sheet, report, shelf and cards give one figure, to the last digit', () => {
    let repeated = 0
    const twice = fc.array(fc.nat(), { maxLength: 4 })
    fc.assert(
      fc.property(anyBuild, twice, share, offG, (plain, copies, part, off) => {
        // Lines that are the same part of the drawer, or copies of a line that was weighed on the pan.
        const extra = copies.map((at, i) => {
          const of = plain.lines[at % plain.lines.length]!
          const weighing =
            i % 2 === 0
              ? null
              : {
                  takenAt: '2026-11-01T10:00:00Z',
                  scaleId: 's',
                  scaleName: 's',
                  checkId: null,
                  method: 'on the pan' as const,
                  displaysG: [5],
                  tare: null,
                  supersedes: null,
                  contributions: { 'weighing:w': 0.02, 'tared:t': 0.01, 'gain:s:unchecked': -0.01 },
                }
          const mass =
            of.mass && weighing
              ? { ...of.mass, evidence: 'weighed' as const, weighing, versionId: `copy-${i}` }
              : of.mass
          return { ...of, id: `x${i}`, name: `copy ${i}`, mass }
        })
        repeated += extra.length
        const build = observed({ ...plain, lines: [...plain.lines, ...extra] }, part, off)
        const honesty = new ListingBiasTable()
        const table = estimatesOf(build, honesty)
        const cards = chosenCards(
          { ...build, aim: { ...build.aim, cardIds: startingCards.map(card => card.id) } },
          startingCards,
        )
        const asked = { ...build, aim: { ...build.aim, cardIds: cards.map(card => card.id) } }
        const rows = reportRows(asked, startingCards, honesty)
        const sheet = loadoutVerdicts(asked, allLoadouts(asked), cards, table)
        for (const [i, choice] of allLoadouts(asked).entries()) {
          const head = overviewOf(asked, choice, startingCards, table)
          const slow = addEstimates(countedLines(asked, choice).map(l => table.of(l)))
          expect(head.massG).toBeCloseTo(slow.valueG, 8)
          expect(head.sigmaG).toBeCloseTo(sigmaG(slow), 8)
          expect([sheet[i]!.massG, sheet[i]!.sigmaG, rows[i]!.auwG, rows[i]!.spreadG]).toEqual([
            head.massG,
            head.sigmaG,
            head.massG,
            head.spreadG,
          ])
          for (const [c, judgement] of head.judgements.entries()) {
            expect([
              sheet[i]!.judgements[c]!.massG,
              sheet[i]!.judgements[c]!.sigmaG,
              sheet[i]!.judgements[c]!.verdict,
            ]).toEqual([judgement.massG, judgement.sigmaG, judgement.verdict])
            expect([rows[i]!.cards[c]!.massG, rows[i]!.cards[c]!.probability]).toEqual([
              judgement.massG,
              judgement.verdict?.probability ?? null,
            ])
          }
        }
        const entry = shelfEntry(asked, startingCards, honesty)
        const flown = overviewOf(asked, defaultLoadout(asked), startingCards, table)
        expect([entry.massG, entry.sigmaG, entry.word, entry.probability]).toEqual([
          flown.massG,
          flown.sigmaG,
          flown.binding?.verdict?.word ?? null,
          flown.binding?.verdict?.probability ?? null,
        ])
      }),
      { numRuns: 500 },
    )
    expect(repeated).toBeGreaterThan(300)
  })
  it('a weighed line and its copy weigh twice as much with twice the spread of the one weighing, everywhere', () => {
    const weighing = {
      takenAt: '2026-11-01T10:00:00Z',
      scaleId: 's',
      scaleName: 's',
      checkId: null,
      method: 'on the pan' as const,
      displaysG: [20],
      tare: null,
      supersedes: null,
      contributions: { 'weighing:w': 0.3 },
    }
    const mass = makeMass({ versionId: 'v', evidence: 'weighed', valueG: 20, weighing })
    const build = buildOf([
      makeLine({ id: 'a', slot: 'motor', name: 'a', mass }),
      makeLine({ id: 'b', slot: 'motor', name: 'b', mass: { ...mass, versionId: 'w' } }),
    ])
    expect(loadoutMasses(build, [build.flies], estimatesOf(build, new ListingBiasTable()))[0]).toMatchObject({
      massG: 40,
      sigmaG: 0.6,
    })
  })
  it('dry mass has neither pack nor payload, and only fitted lines have a price', () => {
    const build = buildOf([
      grams('frame', 'frame', 20, { priceEachCents: 199 }),
      grams('guard', 'guard', 3, { role: 'fitting', priceEachCents: 101, quantity: 1 }),
      grams('cam', 'payload', 30, { role: 'payload' }),
      grams('p', 'pack', 40),
      grams('old', 'strap', 2, { state: 'off', priceEachCents: 99999 }),
    ])
    const overview = overviewOf(build, build.flies, startingCards, estimates())
    expect(overview.dry.valueG).toBe(23)
    expect(overview.massG).toBe(93)
    expect([overview.priceCents, overview.unpricedLines]).toEqual([300, 2])
  })
})

describe('what would narrow the total', () => {
  it('shares of the doubt add up to one', () => {
    fc.assert(
      fc.property(anyBuild, build => {
        const table = estimates()
        const counted = countedLines(build, build.flies)
        const total = addEstimates(counted.map(l => table.of(l)))
        const shares = spreadShares(counted, total, table)
        if (shares.length > 0) expect(shares.reduce((sum, s) => sum + s.share, 0)).toBeCloseTo(1, 6)
      }),
    )
  })
})

describe('what is no craft yet', () => {
  const of = (lines: Line[]): Build =>
    buildOf(lines, { aim: { ...blankAim(), cardIds: ['us-recreation'], places: ['United States'] } })
  const strap = makeLine({
    id: 's',
    slot: 'strap',
    name: 'Strap',
    mass: makeMass({ versionId: 's', evidence: 'weighed', valueG: 2 }),
  })
  const frame = makeLine({
    id: 'f',
    slot: 'frame',
    name: 'Frame',
    mass: makeMass({ versionId: 'f', evidence: 'weighed', valueG: 40 }),
  })
  const wordOf = (build: Build) => {
    const estimates = estimatesOf(build, new ListingBiasTable())
    const overview = overviewOf(build, build.flies, startingCards, estimates)
    const [cell] = loadoutVerdicts(build, [build.flies], chosenCards(build, startingCards), estimates)
    expect(cell!.binding?.verdict?.word).toBe(overview.binding?.verdict?.word)
    expect(shelfEntry(build, startingCards, new ListingBiasTable()).word).toBe(overview.binding?.verdict?.word ?? null)
    return { word: overview.binding?.verdict?.word ?? null, limitG: overview.binding?.limitG ?? null }
  }
  it('an empty build and a lone strap are not Clear; the limit still stands', () => {
    for (const lines of [[], [strap]])
      expect(wordOf(of(lines))).toEqual({ word: null, limitG: expect.closeTo(249.4758035, 6) })
    expect(wordOf(of([strap, frame])).word).toBe('Clear')
  })
  it('a lone strap that is too heavy is Over all the same', () => {
    expect(wordOf(of([{ ...strap, quantity: 200 }])).word).toBe('Over')
  })
})

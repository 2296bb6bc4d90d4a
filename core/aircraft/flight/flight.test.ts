import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import drawerFile from '../../../demo/drawer.json'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import pralineFile from '../../../demo/builds/praline.build.json'
import sherbetFile from '../../../demo/builds/sherbet.build.json'
import treacleFile from '../../../demo/builds/treacle.build.json'
import { applyCommand } from '../../changes/commands'
import type { Part } from '../../parts/drawer'
import { noGear } from '../fit'
import { blankAim, makeLine, makeMass, packLabel, type Build, type Line, type PackFacts } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { allLoadouts, countedLines, estimatesOf } from '../../mass/loadout'
import { blankFlightPlan, fullCellV, styles, type FlightPlan } from '../power'
import { judgeUnderCard, bindingJudgement, overviewOf } from '../../mass/report'
import { shelfEntry } from '../../deciding/shelf'
import { intoReserveG } from '../../limits/verdict'
import { startingCards } from '../../limits/rules'
import { craftOf, deviceWatts, type Craft } from '../currents'
import {
  carryOf,
  daysBetween,
  flightPlanOf,
  flightPoints,
  flightReport,
  forecast,
  frontierOf,
  longerBy,
  packMisfits,
  packNotes,
  sheetCells,
  sheetFlight,
  sheetFlights,
  triedPacks,
  worthOf,
} from './index'

const demo: Record<string, Build> = Object.fromEntries(
  [marzipanFile, nougatFile, pralineFile, sherbetFile, treacleFile].map(file => [
    file.build.id,
    file.build as unknown as Build,
  ]),
)
const parts = drawerFile.parts as unknown as Part[]
const honesty = new ListingBiasTable()
const packOf = (facts: Partial<PackFacts>, grams = 80, properties: Line['properties'] = { resistanceMohm: 9 }) =>
  makeLine({
    id: 'p',
    slot: 'pack',
    name: 'Pack',
    properties,
    pack: {
      label: 'P',
      cells: 4,
      chemistry: 'LiPo',
      capacityMah: 720,
      cRating: 75,
      plug: 'two bullets 2 mm, 30 A class',
      ...facts,
    },
    mass: makeMass({ versionId: 'p', evidence: 'weighed', valueG: grams }),
  })
const craftWith = (build: Build, pack: Line, plan: FlightPlan = blankFlightPlan) =>
  craftOf([...countedLines(build, { ...build.flies, packLineId: null }), pack], pack, plan) as Craft

describe('the loadout sheet', () => {
  it.each(Object.keys(demo))(
    '%s: every cell has the weight and verdicts of that loadout judged by itself, the default those of the Shelf',
    id => {
      const build = { ...demo[id]!, neverFlown: allLoadouts(demo[id]!).slice(-1) }
      const estimates = estimatesOf(build, honesty)
      const cells = sheetCells(build, [], startingCards, estimates)
      expect(cells.map(cell => cell.choice).sort((a, b) => a.setupId.localeCompare(b.setupId))).toEqual(
        allLoadouts(build).sort((a, b) => a.setupId.localeCompare(b.setupId)),
      )
      for (const cell of cells) {
        const alone = startingCards.map(card => judgeUnderCard(build, cell.choice, card, estimates))
        cell.judgements.forEach((judgement, i) => {
          expect(judgement.massG).toBeCloseTo(alone[i]!.massG, 9)
          expect(judgement.sigmaG).toBeCloseTo(alone[i]!.sigmaG, 9)
          expect(judgement.verdict?.word).toBe(alone[i]!.verdict?.word)
          if (alone[i]!.verdict) expect(judgement.verdict!.probability).toBeCloseTo(alone[i]!.verdict!.probability, 9)
        })
        expect(cell.binding?.card.id).toBe(bindingJudgement(alone)?.card.id)
        expect(cell.massG).toBeCloseTo(overviewOf(build, cell.choice, startingCards, estimates).massG, 9)
      }
      const own = build.aim.cardIds.flatMap(cardId => startingCards.filter(card => card.id === cardId))
      const entry = shelfEntry(build, startingCards, honesty)
      const flown = sheetCells(build, [], own, estimates).find(
        cell => cell.choice.setupId === build.flies.setupId && cell.choice.packLineId === build.flies.packLineId,
      )!
      expect(flown.massG).toBeCloseTo(entry.massG, 9)
      expect(flown.binding?.verdict?.word ?? null).toBe(entry.word)
    },
  )

  it('a tried pack weighs in as if it alone were added, and touches no other cell', () => {
    const build = demo.marzipan!
    const estimates = estimatesOf(build, honesty)
    const tried = triedPacks(build, parts)
    expect(tried.map(t => t.source)).toContain('drawer')
    expect(tried.map(t => t.source)).toContain('typical')
    const [bare, more] = [
      sheetCells(build, [], startingCards, estimates),
      sheetCells(build, tried, startingCards, estimates),
    ]
    expect(more.slice(0, bare.length).map(cell => cell.massG)).toEqual(bare.map(cell => cell.massG))
    const d1 = tried.find(t => packLabel(t.line) === 'D1')!
    const added = applyCommand(build, { type: 'lines.add', lines: [d1.line], beforeId: null })
    for (const cell of more.filter(c => c.pack.id === d1.line.id))
      expect(cell.massG).toBeCloseTo(overviewOf(added, cell.choice, [], estimates).massG, 9)
  })

  it('marks what is flown over on purpose and what is never flown, and forgets it with the pack', () => {
    const choice = { setupId: 'ridge', packLineId: 'p7' }
    const decided = applyCommand(
      applyCommand(demo.marzipan!, { type: 'flying.set', fields: { overOnPurpose: [choice] } }),
      { type: 'loadout.never', choice: { setupId: 'day', packLineId: 'p4' }, never: true },
    )
    const cells = sheetCells(decided, [], startingCards, estimatesOf(decided, honesty))
    expect(cells.filter(cell => cell.onPurpose).map(cell => cell.key)).toEqual(['ridge.p7'])
    expect(cells.filter(cell => cell.never).map(cell => cell.key)).toEqual(['day.p4'])
    expect(applyCommand(decided, { type: 'lines.delete', ids: ['p7'] }).flying!.overOnPurpose).toEqual([])
    expect(applyCommand(decided, { type: 'setup.delete', id: 'ridge' }).flying!.overOnPurpose).toEqual([])
    expect(() =>
      applyCommand(decided, { type: 'flying.set', fields: { overOnPurpose: [{ setupId: 'gone', packLineId: null }] } }),
    ).toThrow(/no such set-up/)
  })

  it('the best under the limit are Clear, lightest first, each with more minutes than the one before', () => {
    const build = demo.marzipan!
    const estimates = estimatesOf(build, honesty)
    const cells = sheetCells(
      build,
      triedPacks(build, parts),
      startingCards.filter(card => card.id === 'us-recreation'),
      estimates,
    )
    const minutes = new Map(
      sheetFlights(build, cells, flightPlanOf(build), null).map(flight => [flight.key, flight.forecast!.minutes]),
    )
    const best = frontierOf(cells, key => minutes.get(key)!)
    expect(best.length).toBeGreaterThan(1)
    best.slice(1).forEach((cell, i) => {
      expect(cell.massG).toBeGreaterThan(best[i]!.massG)
      expect(minutes.get(cell.key)!).toBeGreaterThan(minutes.get(best[i]!.key)!)
    })
    const beats = (key: string) =>
      cells.filter(
        cell =>
          cell.binding?.verdict?.word === 'Clear' &&
          cell.massG <= cells.find(c => c.key === key)!.massG &&
          minutes.get(cell.key)! > minutes.get(key)!,
      )
    for (const cell of best) expect(beats(cell.key)).toEqual([])
  })

  it('says which pack does not fit, and why', () => {
    const misfits = packMisfits(demo.marzipan!, { setupId: 'day', packLineId: 'p4' }, noGear)
    expect(misfits).toEqual(['Capacitor is rated 16 V, a full pack is 16.8 V'])
    const wrong = applyCommand(demo.praline!, {
      type: 'lines.change',
      changes: [{ id: 'q1', fields: { pack: { ...demo.praline!.lines.find(l => l.id === 'q1')!.pack!, cells: 6 } } }],
    })
    expect(packMisfits(wrong, { setupId: 'guards', packLineId: 'q1' }, noGear).join()).toMatch(/at most 3 cells/)
  })
})

describe('a forecast', () => {
  const build = demo.marzipan!
  it('takes hover power, style and the watts of each device: checked by hand', () => {
    const pack = packOf({})
    const craft = craftWith(build, pack)
    const lines = [...countedLines(build, { ...build.flies, packLineId: null }), pack]
    const flown = forecast(craft, lines, pack, 240, { ...blankFlightPlan, style: 'hover' })
    expect(flown.meanW).toBeCloseTo((17.0799 / 0.38) * Math.sqrt(1.225 / craft.densityKgM3) + craft.avionicsW, 3)
    expect(flown.meanW).toBeCloseTo(flown.hoverW, 9)
    const watts = deviceWatts(lines, pack)
    expect(watts.find(d => d.lineId === 'vtx')).toMatchObject({ from: 'said' })
    expect(watts.find(d => d.lineId === 'vtx')!.watts).toBeCloseTo((9 * 1.14) / 0.85, 9)
    expect(watts.find(d => d.lineId === 'receiver')!.watts).toBeCloseTo((5 * 0.06) / 0.85, 9)
    expect(watts.find(d => d.lineId === 'board')).toMatchObject({ from: 'typical' })
    expect(craft.avionicsW).toBeCloseTo(
      watts.reduce((sum, d) => sum + d.watts, 0),
      12,
    )
  })
  it('keeps its band around the usual minutes, and harder styles never last longer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 300, max: 4000 }),
        fc.double({ min: 100, max: 500, noNaN: true }),
        fc.integer({ min: 0, max: 60 }),
        (cells, capacityMah, massG, reservePercent) => {
          const pack = packOf({ cells, capacityMah }, 80, null)
          const flown = styles.map(style => {
            const plan = { ...blankFlightPlan, style, reservePercent }
            const craft = craftWith(build, pack, plan)
            return forecast(craft, [pack], pack, massG, plan)
          })
          for (const f of flown) {
            expect(f.hardMinutes).toBeLessThanOrEqual(f.minutes)
            expect(f.gentleMinutes).toBeGreaterThanOrEqual(f.minutes)
            expect(f.why === null).toBe(f.minutes > 0)
          }
          flown.slice(1).forEach((f, i) => expect(f.minutes).toBeLessThanOrEqual(flown[i]!.minutes))
        },
      ),
      { numRuns: 60 },
    )
  })
  it('is heavier by a gram, shorter by what a gram is worth; without the grams of one minute, longer by one', () => {
    const choice = { setupId: 'day', packLineId: 'p7' }
    const plan = flightPlanOf(build)
    const minutes = (massG: number) => sheetFlight(build, choice, massG, plan).forecast!.minutes
    const worth = worthOf(build, choice, 248, plan, () => 40)!
    expect(60 * (minutes(247.5) - minutes(248.5))).toBeCloseTo(worth.secondsPerGram, 9)
    expect(minutes(248 - worth.gramsForOneMinute!) - minutes(248)).toBeCloseTo(1, 6)
    expect(worth.lighterFrame!.seconds).toBeCloseTo(60 * (minutes(244) - minutes(248)), 9)
  })
  it('says instead of minutes that a pack cannot give the power', () => {
    const weak = applyCommand(build, {
      type: 'lines.change',
      changes: [{ id: 'p4', fields: { properties: { resistanceMohm: 500 } } }],
    })
    const { forecast: flown } = sheetFlight(weak, { setupId: 'day', packLineId: 'p4' }, 233, {
      ...flightPlanOf(weak),
      style: 'race',
    })
    expect(flown).toMatchObject({ minutes: 0, endedBy: 'collapse', thrustToWeightEnd: null })
    expect(flown!.why).toMatch(/P4 cannot give \d+ W: its volts collapse/)
    expect(
      flightReport({ ...weak, flying: { ...flightPlanOf(weak), style: 'race' } }, startingCards, honesty).find(
        row => row.choice.packLineId === 'p4',
      ),
    ).toMatchObject({ minutes: null, withoutMinutes: expect.stringMatching(/volts collapse/) })
  })
  it('starts at the pack’s own end voltage where it has one', () => {
    const [full, own] = [null, { chargePolicy: 'own end voltage', chargeToV: 4.2, resistanceMohm: 9 }].map(properties =>
      packOf({ chemistry: 'LiHV' }, 80, properties ?? { resistanceMohm: 9 }),
    )
    const craft = craftWith(build, full!)
    const [a, b] = [full!, own!].map(pack => flightPoints(craft, pack, 230, { ...blankFlightPlan, reservePercent: 0 }))
    expect(a![0]!.charge).toBe(1)
    expect(b![0]!.charge).toBeCloseTo(0.8 + (0.1 * (4.2 - 4.12)) / (4.23 - 4.12), 9)
    expect(b!.at(-1)!.timeS).toBeLessThan(a!.at(-1)!.timeS)
    expect(a![0]!.packV).toBeLessThan(4 * fullCellV('LiHV'))
  })
  it('names the weakest link at full throttle', () => {
    const row = sheetFlight(
      demo.nougat!,
      { setupId: 'nests', packLineId: 'n1' },
      255,
      flightPlanOf(demo.nougat!),
    ).forecast!
    expect(row.weakest!.name).toBe('plug')
    expect(row.weakest!.share).toBeCloseTo(row.start!.currentA / 30, 9)
    expect(row.thrustToWeightStart).toBeGreaterThan(row.thrustToWeightEnd!)
  })
  it('asks for what is missing', () => {
    const bare: Build = {
      ...build,
      aim: blankAim(),
      lines: build.lines.map(line => (line.slot === 'propeller' ? { ...line, properties: null } : line)),
    }
    expect(sheetFlight(bare, { setupId: 'day', packLineId: 'p4' }, 233, blankFlightPlan)).toMatchObject({
      forecast: null,
      missing: { lineId: 'props' },
    })
    expect(
      sheetFlight(
        { ...bare, lines: bare.lines.filter(l => l.slot !== 'propeller') },
        { setupId: 'day', packLineId: 'p4' },
        233,
        blankFlightPlan,
      ).missing,
    ).toMatchObject({ lineId: null })
  })
  it('is surer about the difference of two packs than about either', () => {
    const cells = sheetCells(build, [], startingCards, estimatesOf(build, honesty))
    const flights = sheetFlights(build, cells, flightPlanOf(build), null)
    const [p7, p4] = ['day.p7', 'day.p4'].map(key => flights.find(flight => flight.key === key)!)
    const longer = longerBy(p7!, p4!)!
    expect(longer.share).toBeCloseTo(p7!.forecast!.minutes / p4!.forecast!.minutes - 1, 12)
    const band = p7!.forecast!.gentleMinutes / p7!.forecast!.hardMinutes
    expect((1 + longer.to) / (1 + longer.from)).toBeLessThan(1 + (band - 1) / 10)
  })
})

describe('a pack nobody has said', () => {
  it('weighs in and is judged; it has no minutes, no amps and no place in what could be carried', () => {
    const build = demo.nougat!
    const more = applyCommand(build, {
      type: 'lines.add',
      lines: [
        makeLine({
          id: 'new',
          slot: 'pack',
          name: 'New pack',
          mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 70 }),
        }),
      ],
      beforeId: null,
    })
    const estimates = estimatesOf(more, new ListingBiasTable())
    const cell = sheetCells(more, [], startingCards, estimates).find(c => c.pack.id === 'new')!
    expect(cell.massG).toBeCloseTo(overviewOf(more, cell.choice, [], estimates).massG, 9)
    expect(cell.binding?.verdict?.word).toBeDefined()
    const [flight] = sheetFlights(more, [cell], blankFlightPlan, noGear)
    expect(flight).toMatchObject({
      forecast: null,
      missing: { missing: 'Say what the pack is: cells, chemistry and mAh.', lineId: 'new' },
      misfits: [],
    })
  })
})

describe('what could be carried', () => {
  const build = demo.marzipan!
  const cards = startingCards.filter(card => card.id === 'us-recreation')
  it('is the heaviest pack that is still Clear with the reserve kept: a hair more is not', () => {
    const estimates = estimatesOf(build, honesty)
    const like = build.lines.find(l => l.id === 'p7')!.pack!
    const cells = sheetCells(build, triedPacks(build, parts), cards, estimates)
    const carry = carryOf(build, { setupId: 'day', packLineId: 'p7' }, like, cells, cards, estimates)
    const isClear = (grams: number) => {
      const at = applyCommand(build, {
        type: 'lines.change',
        changes: [
          { id: 'p7', fields: { mass: makeMass({ versionId: 'carried-pack', evidence: 'weighed', valueG: grams }) } },
        ],
      })
      return (
        intoReserveG(
          judgeUnderCard(at, { setupId: 'day', packLineId: 'p7' }, cards[0]!, estimatesOf(at, honesty)).verdict!,
          build.aim.reserveG,
        ) === 0
      )
    }
    expect(build.aim.reserveG).toBe(0.5)
    expect(isClear(carry.roomG! - 0.01)).toBe(true)
    expect(isClear(carry.roomG! + 0.01)).toBe(false)
    expect(packLabel(carry.best!.pack)).toBe('D2')
    expect(carry.typicalMah![0]).toBeCloseTo((carry.roomG! * 850) / 112, 6)
  })
  it('is nothing when even without a pack it is over', () => {
    const heavy = applyCommand(build, {
      type: 'lines.change',
      changes: [{ id: 'frame', fields: { mass: makeMass({ versionId: 'x', evidence: 'weighed', valueG: 400 }) } }],
    })
    expect(
      carryOf(
        heavy,
        { setupId: 'day', packLineId: 'p7' },
        build.lines.find(l => l.id === 'p7')!.pack!,
        [],
        cards,
        estimatesOf(heavy, honesty),
      ),
    ).toMatchObject({ roomG: null, best: null })
  })
})

describe('the care of a pack', () => {
  it('counts days over months and leap years', () => {
    expect(daysBetween('2024-02-27', '2024-03-01')).toBe(3)
    expect(daysBetween('2026-10-03', '2026-10-03')).toBe(0)
  })
  it('warns of one left full, not of one at storage', () => {
    const left = (properties: Line['properties']) => packNotes(packOf({}, 80, properties), '2026-10-10')
    expect(left({ lastChargedOn: '2026-10-01', chargePolicy: 'full' }).join()).toMatch(/9 days ago.*ages and sags/)
    expect(left({ lastChargedOn: '2026-10-01', chargePolicy: 'storage' })).toEqual(['Charged 9 days ago.'])
    expect(left({ lastChargedOn: '2026-10-07' }).join()).toMatch(/3 days ago.*ages and sags/)
    expect(left({ lastChargedOn: '2026-10-08' })).toEqual(['Charged 2 days ago.'])
    expect(left({ lastChargedOn: '2026-10-09' })).toEqual(['Charged yesterday.'])
    expect(left({ packState: 'tired', cautions: 'Dented.' })).toHaveLength(2)
    expect(left(null)).toEqual([])
  })
})

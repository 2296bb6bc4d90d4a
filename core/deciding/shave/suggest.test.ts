import { describe, expect, it } from 'vitest'
import drawerFile from '../../../demo/drawer.json'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { applyCommand } from '../../changes/commands'
import { makePart, type Part, type Placement } from '../../parts/drawer'
import { noGear } from '../../aircraft/fit'
import { makeMass, type Build } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf, loadoutMasses } from '../../mass/loadout'
import { startingCards } from '../../limits/rules'
import { differenceSpreadG } from '../weigh'
import { checked, fine, unchecked } from '../weigh/testing'
import { calculators, materialSavesG, spliceG, wiresG } from '../../mass/mass-calculators'
import {
  afterShaving,
  effectOf,
  hasGrams,
  isPriced,
  makeShaving,
  openShavings,
  planSteps,
  poseProblem,
  reachesGoal,
  shavedG,
  shavingCents,
  suggestShavings,
  takesOffG,
  type PlanningSetting,
  type Suggestion,
} from './index'

const [marzipan, nougat] = [marzipanFile, nougatFile].map(file => file.build as unknown as Build) as [Build, Build]
const parts = drawerFile.parts as unknown as Part[]
const estimatesFor = (build: Build) => estimatesOf(build, new ListingBiasTable())
let made = 0
const suggest = (
  build: Build,
  puttingOn = false,
  drawer: readonly Part[] = [],
  placements: readonly Placement[] = [],
) =>
  suggestShavings({
    build,
    choice: build.flies,
    estimates: estimatesFor(build),
    gear: noGear,
    parts: drawer,
    placements,
    puttingOn,
    newId: () => `s${++made}`,
  })
const settingOf = (build: Build, goal: PlanningSetting['goal'] = { kind: 'clear' }): PlanningSetting => ({
  build,
  choice: build.flies,
  cards: startingCards,
  estimates: estimatesFor(build),
  goal,
  slipFactor: 1,
})
const massG = (build: Build, choice = build.flies) => loadoutMasses(build, [choice], estimatesFor(build))[0]!.massG
function takenUp(build: Build, { candidate, shaving }: Suggestion): Build {
  const added = candidate ? applyCommand(build, { type: 'lines.add', lines: [candidate], beforeId: null }) : build
  return applyCommand(added, { type: 'shaving.put', shaving })
}

describe('packs as a way to take grams off', () => {
  const heavy: Build = { ...marzipan, flies: { ...marzipan.flies, packLineId: 'p7' } }
  const own = suggest(heavy).filter(
    s => s.shaving.candidateId !== null && heavy.lines.find(line => line.id === s.shaving.candidateId)?.slot === 'pack',
  )
  it('those of the build that are lighter than the one looked at are offered, with the minutes they cost', () => {
    expect(own.length).toBeGreaterThan(0)
    for (const { because, shaving } of own) {
      const [was, then] = /^(\d+\.\d\d) g now, (\d+\.\d\d) g with it/.exec(because)!.slice(1).map(Number) as [
        number,
        number,
      ]
      expect(then).toBeLessThan(was)
      expect(because).toMatch(/\d{1,3}\.\d minutes become \d{1,3}\.\d/)
      expect(shaving.gramsG).toBeCloseTo(was - then, 6)
      // By the loadout looked at, the whole of it: not against flying without a pack.
      expect(takesOffG(takenUp(heavy, { because, shaving }), shaving, heavy.flies, estimatesFor(heavy))).toBeCloseTo(
        shaving.gramsG,
        1,
      )
    }
  })
  it('done, the other pack flies; what flew could go there again, and the step is taken back as one', () => {
    const { shaving } = own[0]!
    const after = afterShaving(heavy, shaving, estimatesFor(heavy))
    expect(effectOf(takenUp(heavy, own[0]!), shaving)).toEqual({
      kind: 'pack',
      lineId: 'p7',
      packLineId: shaving.candidateId,
    })
    expect(after.flies.packLineId).toBe(shaving.candidateId)
    expect(after.lines.find(line => line.id === 'p7')).toMatchObject({
      state: 'candidate',
      insteadOf: shaving.candidateId,
    })
    expect(massG(after)).toBeCloseTo(massG(heavy) - shaving.gramsG, 1)
    expect(
      poseProblem(settingOf(takenUp(heavy, own[0]!)), [shaving]).problem.items[0]!.gramsG.every(
        grams => grams <= shaving.gramsG + 0.01,
      ),
    ).toBe(true)
  })
  it('those of the drawer come with the line they need; lost ones and heavier ones are not offered', () => {
    const weighed = (id: string, valueG: number, more: Partial<Part> = {}) =>
      makePart({
        id,
        slot: 'pack',
        name: id,
        owned: 1,
        mass: makeMass({ versionId: id, evidence: 'weighed', valueG }),
        pack: { ...heavy.lines.find(line => line.id === 'p7')!.pack!, label: id, capacityMah: 550 },
        ...more,
      })
    const found = suggest(heavy, false, [
      weighed('light', 60),
      weighed('gone', 60, { lost: 1 }),
      weighed('heavy', 190),
    ]).filter(s => s.candidate)
    expect(found.map(s => s.candidate!.name)).toEqual(['light'])
    expect(found[0]!.because).toContain('it lies in the drawer')
    const elsewhere: Placement = {
      partId: 'light',
      buildId: 'n',
      buildName: 'Nougat',
      lineId: 'x',
      quantity: 1,
      state: 'fitted',
    }
    expect(suggest(heavy, false, [weighed('light', 60)], [elsewhere]).find(s => s.candidate)!.because).toMatch(
      /; it is on Nougat$/,
    )
    expect(
      suggest(heavy, false, [weighed('light', 60, { owned: 2 })], [elsewhere]).find(s => s.candidate)!.because,
    ).toMatch(/; it lies in the drawer$/)
    const build = takenUp(heavy, found[0]!)
    expect(openShavings(build).map(s => s.id)).toContain(found[0]!.shaving.id)
    expect(massG(afterShaving(build, found[0]!.shaving, estimatesFor(build)))).toBeCloseTo(
      massG(heavy) - heavy.lines.find(line => line.id === 'p7')!.mass!.valueG + 60,
      1,
    )
    expect(parts.some(part => part.slot === 'pack')).toBe(true)
  })
  it('with grams to come off only what takes off is suggested, with grams to spare only what puts on', () => {
    for (const build of [marzipan, nougat]) {
      const bigger = applyCommand(build, { type: 'lines.change', changes: [{ id: 'pad', fields: { state: 'off' } }] })
      for (const { shaving } of suggest(bigger, false, parts))
        expect([shaving.kind === 'put on', shaving.gramsG > 0], shaving.what).toEqual([false, true])
      const on = suggest(bigger, true, parts)
      expect(on.length).toBeGreaterThan(0)
      for (const { shaving } of on) expect([shaving.kind, shaving.gramsG < 0], shaving.what).toEqual(['put on', true])
    }
  })
})

describe('what a list of shavings knows and does not', () => {
  const put = (build: Build, shaving: ReturnType<typeof makeShaving>) =>
    applyCommand(build, { type: 'shaving.put', shaving })
  it('a price nobody said is unknown; cutting costs nothing; a candidate brings its own price', () => {
    const swap = makeShaving({ id: 'x', what: 'lighter strap', kind: 'lighter strap', lineId: 'strap', gramsG: 1 })
    expect(swap.cents).toBeNull()
    expect(isPriced(nougat, swap)).toBe(false)
    expect(isPriced(nougat, makeShaving({ id: 'x', what: 'cut', kind: 'cut', lineId: 'pad', gramsG: 1 }))).toBe(true)
    const build = put({ ...nougat, shave: null }, swap)
    const [step] = planSteps(settingOf(build), [swap])
    expect(step).toMatchObject({ priced: false, cents: shavingCents(build, swap, 1) })
    const strap = nougat.lines.find(line => line.id === 'strap')!
    const priced = applyCommand(build, {
      type: 'lines.add',
      lines: [{ ...strap, id: 'thin', state: 'candidate', insteadOf: 'strap', priceEachCents: 240 }],
      beforeId: null,
    })
    expect(isPriced(priced, { ...swap, candidateId: 'thin' })).toBe(true)
    expect(shavingCents(priced, { ...swap, candidateId: 'thin' }, 1)).toBeGreaterThanOrEqual(240)
  })
  it('without grams it waits: it is in no plan until somebody says or works them out', () => {
    const open = makeShaving({ id: 'x', what: 'trim', kind: 'trim leads', lineId: 'motors' })
    expect(hasGrams(nougat, open)).toBe(false)
    expect(openShavings(put(nougat, open)).map(s => s.id)).not.toContain('x')
    expect(openShavings(put(nougat, { ...open, gramsG: 1.5 })).map(s => s.id)).toContain('x')
    expect(hasGrams(nougat, makeShaving({ id: 'x', what: 'leave off', kind: 'leave off', lineId: 'pad' }))).toBe(true)
  })
  it('a goal in grams counts what is done, by the scale where it has spoken', () => {
    const done = applyCommand(nougat, {
      type: 'shaving.do',
      id: 'leads',
      mass: nougat.lines.find(line => line.id === 'motors')!.mass,
      realG: 2.4,
      on: '2026-11-01',
    })
    expect(shavedG(done)).toBeCloseTo(2.4, 9)
    const goal = { kind: 'grams', gramsG: 5 } as const
    const target = poseProblem(settingOf(done, goal)).problem.targets[0]!
    expect(target.massG - target.goalG).toBeCloseTo(2.6, 9)
    expect(reachesGoal(settingOf(done, { kind: 'grams', gramsG: 2.4 }), [])).toBe(true)
    expect(reachesGoal(settingOf(done, { kind: 'grams', gramsG: 2.5 }), [])).toBe(false)
    const ofLedger = applyCommand(nougat, {
      type: 'shaving.do',
      id: 'pad',
      mass: null,
      realG: null,
      on: '2026-11-01',
      gramsG: 1.62,
    })
    expect(shavedG(ofLedger)).toBeCloseTo(1.62, 9)
  })
  it('leads that were cut are shorter afterwards: at the motor, and in the plan of leads', () => {
    const told: Build = {
      ...nougat,
      lines: nougat.lines.map(line =>
        line.id === 'motors' ? { ...line, properties: { ...line.properties, leadLengthMm: 150 } } : line,
      ),
    }
    const before = told.lines.find(line => line.id === 'motors')!
    const mass = makeMass({ versionId: 'cut', evidence: 'weighed', valueG: before.mass!.valueG - 2.7, valueCount: 4 })
    const after = applyCommand(told, {
      type: 'shaving.do',
      id: 'leads',
      mass,
      realG: 2.7,
      on: '2026-11-01',
      leadMm: 72,
    })
    expect(after.lines.find(line => line.id === 'motors')).toMatchObject({
      properties: { leadLengthMm: 72 },
      mass: { valueG: before.mass!.valueG - 2.7 },
    })
    expect(after.fit!.wires.find(wire => wire.from === 'motors')).toMatchObject({ haveMm: 72 })
    expect(after.fit!.wires.filter(wire => wire.from !== 'motors')).toEqual(
      told.fit!.wires.filter(wire => wire.from !== 'motors'),
    )
  })
  it('what came off by the scale at hand is as sure as two of its displays', () => {
    // Two tared readings of a 0.01 g scale of 0.008 g: each √(0.008² + 0.01²/12) and its share of the step, the tare common to both.
    const spread = differenceSpreadG(checked, 20, 3)
    expect(spread).toBeGreaterThan(1.96 * Math.hypot(0.008, 0.008))
    expect(spread).toBeLessThan(0.05)
    expect(differenceSpreadG(unchecked, 20, 3)).toBeGreaterThan(5 * spread)
    // A gain nobody has checked counts with what came off, not with the whole.
    expect(differenceSpreadG(fine, 200, 100)).toBeGreaterThan(differenceSpreadG(fine, 200, 1))
  })
  it('splices, another material and holes in plastic can be worked out', () => {
    const of = (key: string, values: Record<string, string | number>) =>
      calculators.find(c => c.key === key)!.work(values).grams!
    expect(of('splice', { awg: 28, lengthMm: 30, count: 3 })).toBeCloseTo(-(wiresG(28, 38, 3) + 0.15), 9)
    expect(spliceG(28, 30, 3)).toBeCloseTo(wiresG(28, 38, 3) + 0.15, 9)
    expect(of('material', { gramsG: 5.59, material: 'alloy steel', then: 'titanium alloy (Ti-6Al-4V)' })).toBeCloseTo(
      5.59 * (1 - 4.43 / 7.85),
      9,
    )
    expect(materialSavesG(1, 'nylon 6/6', 'alloy steel')).toBeLessThan(0)
    expect(() => materialSavesG(1, 'cheese', 'alloy steel')).toThrow('material of the list')
    // Eight holes of 6 mm through 3 mm of printed nylon.
    expect(of('hole', { diameterMm: 6, thicknessMm: 3, material: 'nylon (printed)', count: 8 })).toBeCloseTo(
      (8 * Math.PI * 9 * 3 * 1.08) / 1000,
      9,
    )
  })
})

import { describe, expect, it } from 'vitest'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { applyCommand, type Command } from '../../changes/commands'
import { noGear } from '../../aircraft/fit'
import { isSaidWire } from '../../model/data'
import { makeMass, type Build } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { overviewOf } from '../../mass/report'
import { startingCards } from '../../limits/rules'
import { screwForm, screwG, wiresG } from '../../mass/mass-calculators'
import { allowedPlans, cheapestOfAll } from './exhaustive'
import {
  afterAll,
  afterShaving,
  effectOf,
  hands,
  makeShaving,
  massAfter,
  openShavings,
  planSteps,
  poseProblem,
  reachesGoal,
  schoolsOf,
  shavingCents,
  slipFactorOf,
  suggestShavings,
  takesOffG,
  takesTooMuch,
  type PlanningSetting,
  type SuggestionSetting,
} from './index'

const nougat = nougatFile.build as unknown as Build
const estimates = estimatesOf(nougat, new ListingBiasTable())
const setting: PlanningSetting = {
  build: nougat,
  choice: nougat.flies,
  cards: startingCards,
  estimates,
  goal: { kind: 'clear' },
  slipFactor: 1,
}
const massOf = (build: Build) => overviewOf(build, build.flies, startingCards, estimates)
const suggested = (build: Build, more: Partial<SuggestionSetting> = {}) =>
  suggestShavings({
    build,
    choice: build.flies,
    estimates: estimatesOf(build, new ListingBiasTable()),
    gear: noGear,
    parts: [],
    placements: [],
    puttingOn: false,
    newId: () => 'new',
    ...more,
  })
const shaving = (id: string) => nougat.shave!.shavings.find(s => s.id === id)!

describe('a shaving done to the ledger', () => {
  it('takes off what was forecast, with the spread of line and difference together', () => {
    const before = massOf(nougat)
    const after = massOf(afterShaving(nougat, shaving('leads'), estimates))
    expect(before.massG - after.massG).toBeCloseTo(2.7, 6)
    expect(after.sigmaG).toBeCloseTo(Math.hypot(before.sigmaG, 0.3 / 1.959964), 6)
    expect(massOf(afterShaving(nougat, shaving('pad'), estimates)).massG).toBeCloseTo(before.massG - 1.62, 2)
  })
  it('is one step of the journal: done, counted, not done twice', () => {
    const after = afterShaving(nougat, shaving('leads'), estimates)
    expect(after.shave!.shavings.find(s => s.id === 'leads')).toMatchObject({ state: 'done' })
    expect(after.lines.find(l => l.id === 'motors')!.mass).toMatchObject({
      evidence: 'worked out',
      origin: 'shaved: cut the motor leads to 75 mm',
    })
    expect(() =>
      applyCommand(after, { type: 'shaving.do', id: 'leads', mass: null, realG: null, on: '2026-11-01' }),
    ).toThrow(/done already/)
    expect(
      afterShaving(
        after,
        after.shave!.shavings.find(s => s.id === 'leads')!,
        estimates,
      ),
    ).toBe(after)
  })
  it('swaps a candidate in, leaves a line off, and does nothing where nobody said what it touches', () => {
    const put = (command: Command) => applyCommand(nougat, command)
    const withCandidate = put({
      type: 'lines.add',
      lines: [
        {
          ...nougat.lines.find(l => l.id === 'strap')!,
          id: 'thin',
          name: 'Thin strap',
          state: 'candidate',
          insteadOf: 'strap',
        },
      ],
      beforeId: null,
    })
    const swap = makeShaving({
      id: 'swap',
      what: 'thin strap',
      kind: 'lighter strap',
      lineId: 'strap',
      candidateId: 'thin',
    })
    expect(effectOf(withCandidate, swap)).toEqual({ kind: 'swap', candidateId: 'thin' })
    expect(afterShaving(withCandidate, swap, estimates).lines.find(l => l.id === 'strap')!.state).toBe('candidate')
    expect(effectOf(nougat, makeShaving({ id: 'x', what: 'something', kind: 'other' }))).toEqual({ kind: 'none' })
    expect(() =>
      applyCommand(put({ type: 'shaving.put', shaving: makeShaving({ id: 'x', what: 'something', kind: 'other' }) }), {
        type: 'shaving.do',
        id: 'x',
        mass: null,
        realG: null,
        on: '2026-11-01',
      }),
    ).toThrow(/which fitted line/)
  })
  it('books what the scale said, for every kind of step: the craft is lighter by exactly that', () => {
    const strap = nougat.lines.find(l => l.id === 'strap')!
    const listed = (id: string, valueG: number) => makeMass({ versionId: id, evidence: 'listed', valueG })
    const build = applyCommand(nougat, {
      type: 'lines.add',
      lines: [
        { ...strap, id: 'thin', name: 'Thin strap', state: 'candidate', insteadOf: 'strap', mass: listed('thin', 0.4) },
        { ...strap, id: 'guard', name: 'Guard', mass: listed('guard', 3.5) },
        { ...strap, id: 'foot', name: 'Foot', state: 'off', mass: listed('foot', 2) },
      ],
      beforeId: null,
    })
    const steps = [
      [makeShaving({ id: 'x', what: 'thin strap', kind: 'lighter strap', lineId: 'strap', candidateId: 'thin' }), 0.5],
      [makeShaving({ id: 'x', what: 'no guard', kind: 'leave off', lineId: 'guard' }), 0.5],
      [makeShaving({ id: 'x', what: 'trim', kind: 'trim leads', lineId: 'guard', gramsG: 2 }), 0.5],
      [makeShaving({ id: 'x', what: 'a foot', kind: 'put on', lineId: 'foot', gramsG: -2 }), -3.1],
      [makeShaving({ id: 'x', what: 'a lamp', kind: 'put on', gramsG: -2 }), -3.1],
    ] as const
    for (const [step, realG] of steps) {
      const listing = applyCommand(build, { type: 'shaving.put', shaving: step })
      const mass = massAfter(
        listing,
        step,
        line => estimates.before(line),
        { gramsG: realG, spreadG: 0.03, weighed: true, on: '2026-11-01' },
        () => 'new',
      )
      const after = applyCommand(listing, { type: 'shaving.do', id: 'x', mass, realG, on: '2026-11-01' })
      expect(massOf(build).massG - massOf(after).massG, step.what).toBeCloseTo(realG, 6)
    }
    // As much as was booked, or within 5 mg of it, or more: nothing of it is left.
    const restOf = (offG: number) =>
      massAfter(
        applyCommand(build, { type: 'shaving.put', shaving: steps[1][0] }),
        steps[1][0],
        () => ({ valueG: 3.5, contributions: {} }),
        { gramsG: offG, spreadG: 0.03, weighed: true, on: '2026-11-01' },
        () => 'new',
      )
    expect([restOf(3.4948)?.valueG.toFixed(4), restOf(3.4952)]).toEqual(['0.0052', null])
    const gone = applyCommand(build, { type: 'shaving.put', shaving: steps[1][0] })
    expect(
      massAfter(
        gone,
        steps[1][0],
        line => estimates.before(line),
        { gramsG: 3.6, spreadG: 0.03, weighed: true, on: '2026-11-01' },
        () => 'new',
      ),
    ).toBeNull()
  })
  it('an unknown spread is three tenths of the grams, and a slip costs half to a practised hand, twice to one that learns', () => {
    expect([4, -4, 0.1].map(gramsG => makeShaving({ id: 'x', what: 'x', kind: 'other', gramsG }).spreadG)).toEqual([
      1.2, 1.2, 0.05,
    ])
    const build: Build = {
      ...nougat,
      lines: nougat.lines.map(line => (line.id === 'pad' ? { ...line, priceEachCents: 1000 } : line)),
    }
    const drill = makeShaving({
      id: 'x',
      what: 'x',
      kind: 'drill',
      lineId: 'pad',
      gramsG: 1,
      slipPercent: 10,
      cents: 50,
    })
    expect(hands.map(hand => shavingCents(build, drill, slipFactorOf[hand]))).toEqual([100, 150, 250])
  })
  it('never takes more off a line than it has: not by one step, not by several of a plan', () => {
    const pad = nougat.lines.find(l => l.id === 'pad')!
    const padG = estimates.before(pad).valueG
    const cut = (id: string, gramsG: number) =>
      makeShaving({ id, what: id, kind: 'cut', lineId: 'pad', gramsG, evidence: 'weighed', spreadG: 0.02 })
    const build: Build = {
      ...nougat,
      shave: {
        ...nougat.shave!,
        shavings: [cut('one', 0.6 * padG), cut('other', 0.6 * padG), cut('slip', padG + 3.5)],
      },
    }
    const before = (line: typeof pad) => estimates.before(line)
    expect(takesTooMuch(build, build.shave!.shavings[2]!, before, padG + 3.5)).toMatchObject({
      line: { id: 'pad' },
      lineG: padG,
    })
    expect(takesTooMuch(build, build.shave!.shavings[0]!, before, 0.6 * padG)).toBeNull()
    const { problem } = poseProblem({ ...setting, build, goal: { kind: 'grams', gramsG: 0.1 } })
    expect(problem.lines).toEqual([
      { ids: ['one', 'other', 'slip'], gramsG: [0.6 * padG, 0.6 * padG, padG + 3.5], mostG: padG },
    ])
    expect([...allowedPlans(problem)].map(items => items.map(item => item.id).join())).toEqual(['', 'one', 'other'])
    // What a scale says of a part that is left off may be a little more than was booked, not much more.
    const off = makeShaving({ id: 'off', what: 'no pad', kind: 'leave off', lineId: 'pad' })
    const leaving: Build = { ...nougat, shave: { ...nougat.shave!, shavings: [off] } }
    expect(takesTooMuch(leaving, off, before, padG + 0.05, 0.06)).toBeNull()
    expect(takesTooMuch(leaving, off, before, padG + 3.5, 0.06)).toMatchObject({ lineG: padG })
  })
  it('takes nothing off a loadout that does not fly what it touches, and what the all-up weights differ by off one that does', () => {
    const lamp = { ...nougat.lines.find(l => l.id === 'strap')!, id: 'lamp', role: 'payload' as const }
    const build: Build = {
      ...nougat,
      lines: [...nougat.lines, lamp],
      setups: [...nougat.setups, { id: 'lit', name: 'lit', lineIds: ['lamp'] }],
    }
    const off = makeShaving({ id: 'off', what: 'no lamp', kind: 'leave off', lineId: 'lamp' })
    expect(takesOffG(build, off, build.flies, estimates)).toBeCloseTo(0, 9)
    expect(takesOffG(build, off, { ...build.flies, setupId: 'lit' }, estimates)).toBeCloseTo(
      estimates.of(lamp).valueG,
      9,
    )
    expect(takesOffG(nougat, shaving('leads'), nougat.flies, estimates)).toBeCloseTo(2.7, 6)
  })
  it('leaves no trace of itself in others when it is deleted', () => {
    const tied = applyCommand(nougat, {
      type: 'shaving.put',
      shaving: { ...shaving('coax'), needs: ['leads'], excludes: ['strap'] },
    })
    expect(
      applyCommand(tied, { type: 'shaving.delete', id: 'leads' }).shave!.shavings.find(s => s.id === 'coax'),
    ).toMatchObject({ needs: [], excludes: ['strap'] })
  })
})

describe('what the builder decides beside the grams', () => {
  it('a dry goal is met by the mean of what flies without pack and payload', () => {
    const { dry } = massOf(nougat)
    const asked: PlanningSetting = { ...setting, goal: { kind: 'dry', gramsG: dry.valueG - 4 } }
    const { problem } = poseProblem(asked)
    expect(problem.targets).toHaveLength(1)
    expect(problem.targets[0]).toMatchObject({ guard: 0, goalG: dry.valueG - 4 })
    expect(problem.targets[0]!.massG).toBeCloseTo(dry.valueG, 9)
    const best = cheapestOfAll(problem)!
    const after = massOf(
      afterAll(
        nougat,
        best.items.map(item => shaving(item.id)),
        estimates,
      ),
    )
    expect(after.dry.valueG).toBeLessThanOrEqual(dry.valueG - 4 + 1e-9)
    expect(
      reachesGoal(
        asked,
        best.items.map(item => shaving(item.id)),
      ),
    ).toBe(true)
    expect(reachesGoal(asked, [])).toBe(false)
    // The mount of the payload is an airframe line or not: what is no part of the dry mass brings nothing here.
    const strapAlone = {
      ...nougat,
      lines: nougat.lines.map(line => (line.id === 'strap' ? { ...line, role: 'payload' as const } : line)),
    }
    expect(
      poseProblem({ ...asked, build: strapAlone }).problem.items.find(item => item.id === 'strap')!.gramsG[0],
    ).toBe(0)
  })
  it('a learning hand pays twice for slips, a practised one half', () => {
    const dear = {
      ...nougat,
      lines: nougat.lines.map(line => (line.id === 'motors' ? { ...line, priceEachCents: 2000 } : line)),
    }
    expect([0.5, 1, 2, 100].map(factor => shavingCents(dear, shaving('leads'), factor))).toEqual([30, 60, 120, 2000])
  })
  it('what is planned is part of every plan until it is let go or left out', () => {
    const planned = applyCommand(nougat, { type: 'shavings.plan', ids: ['titanium', 'coax'] })
    const locks = (build: Build) =>
      Object.fromEntries(poseProblem({ ...setting, build }).problem.items.map(item => [item.id, item.lock]))
    expect(locks(planned)).toMatchObject({ titanium: 'in', coax: 'in', strap: null })
    const other = applyCommand(planned, { type: 'shavings.plan', ids: ['coax'] })
    expect(other.shave!.shavings.find(s => s.id === 'titanium')!.state).toBe('idea')
    const done = afterShaving(nougat, shaving('leads'), estimates)
    expect(() => applyCommand(done, { type: 'shavings.plan', ids: ['leads'] })).toThrow(
      '“cut the motor leads to 75 mm” is done already.',
    )
  })
})

describe('the problem posed for a build', () => {
  it('starts over, and its optimum by all subsets is Clear in the whole ledger, step by step to the verdict', () => {
    expect(massOf(nougat).binding!.verdict!.word).toBe('Over')
    const posed = poseProblem(setting)
    expect(posed.problem.items).toHaveLength(openShavings(nougat).length)
    const best = cheapestOfAll(posed.problem)!
    const chosen = best.items.map(item => shaving(item.id))
    expect(chosen.length).toBeGreaterThanOrEqual(3)
    expect(chosen.length).toBeLessThanOrEqual(4)
    expect(reachesGoal(setting, chosen)).toBe(true)
    const steps = planSteps(setting, chosen)
    const end = massOf(
      afterAll(
        nougat,
        steps.map(s => s.shaving),
        estimates,
      ),
    )
    expect(steps.at(-1)!.massG).toBeCloseTo(end.massG, 9)
    expect(steps.at(-1)!.probability).toBeCloseTo(end.binding!.verdict!.probability, 12)
    expect(steps.at(-1)).toMatchObject({ word: 'Clear', enough: true })
    expect(steps.slice(0, -1).every(step => !step.enough)).toBe(true)
    expect(steps.reduce((sum, step) => sum + step.offG, 0)).toBeCloseTo(massOf(nougat).massG - end.massG, 9)
  })
  it('knows the price of a slip, and that a line left off cannot be trimmed as well', () => {
    const [, price] = [shaving('case'), nougat.lines.find(l => l.id === 'vtx')!.priceEachCents!]
    expect(shavingCents(nougat, shaving('case'), 1)).toBe(Math.round(price * 0.1))
    const both = applyCommand(nougat, {
      type: 'shaving.put',
      shaving: makeShaving({ id: 'padcut', what: 'cut the pad in half', kind: 'cut', lineId: 'pad', gramsG: 0.8 }),
    })
    expect(poseProblem({ ...setting, build: both }).problem.groups).toContainEqual(['pad', 'padcut'])
  })
  it('for grams alone looks at the mean; refused and done ones are left out; every loadout can be asked for', () => {
    const asked = poseProblem({ ...setting, goal: { kind: 'grams', gramsG: 5 } })
    expect(asked.problem.targets).toHaveLength(1)
    expect(asked.problem.targets[0]!.massG - asked.problem.targets[0]!.goalG).toBeCloseTo(5, 9)
    const refused = applyCommand(nougat, {
      type: 'shaving.put',
      shaving: { ...shaving('drill'), state: 'refused', why: 'the plate is thin enough' },
    })
    expect(openShavings(refused).map(s => s.id)).not.toContain('drill')
    const every = applyCommand(nougat, { type: 'shave.set', fields: { everyLoadout: true } })
    expect(poseProblem({ ...setting, build: every }).problem.targets).toHaveLength(2)
  })
  it('suggests lighter candidates, fittings and leads that are too long, each with its sum, once', () => {
    const lighter = applyCommand(nougat, {
      type: 'lines.add',
      lines: [
        {
          ...nougat.lines.find(l => l.id === 'strap')!,
          id: 'thin',
          name: 'Thin strap',
          state: 'candidate',
          insteadOf: 'strap',
          mass: { ...nougat.lines.find(l => l.id === 'strap')!.mass!, versionId: 'thin', valueG: 2 },
        },
      ],
      beforeId: null,
    })
    let n = 0
    const found = suggested(lighter, { newId: () => `n${++n}` })
    const swap = found.find(s => s.shaving.candidateId === 'thin')!
    expect(swap.because).toContain('2.00 g with it')
    const screws = found.find(s => s.shaving.what.startsWith('titanium screws'))!
    expect(screws.because).toMatch(/^\d+\.\d\d g of alloy steel, \d+\.\d\d g of titanium$/)
    expect(screws.shaving.gramsG).toBeCloseTo(
      Number(screws.because.split(' ')[0]) - Number(screws.because.split(', ')[1]!.split(' ')[0]),
      1,
    )
    expect(found.some(s => s.shaving.what === 'the lightest strap of its class')).toBe(true)
    const taken = applyCommand(lighter, { type: 'shaving.put', shaving: swap.shaving })
    expect(suggested(taken).map(s => s.shaving.candidateId)).not.toContain('thin')
  })
})

describe('what is worth putting on', () => {
  const on = (id: string, grams: number, gain: number) =>
    makeShaving({ id, what: id, kind: 'put on', gramsG: -grams, spreadG: 0.05, gain, evidence: 'weighed' })
  const light: Build = {
    ...nougat,
    flies: { setupId: 'as-built', packLineId: 'n1' },
    shave: {
      ...nougat.shave!,
      shavings: [on('sounder', 1.9, 3), on('feet', 12, 2), on('guards', 14, 4), on('aerial', 3, 1)],
    },
  }
  const asked: PlanningSetting = { ...setting, build: light, choice: light.flies, goal: { kind: 'put on' } }
  it('is the most that is brought while it stays Clear with the reserve, held against all subsets', () => {
    const { problem, shavings } = poseProblem(asked)
    const best = cheapestOfAll(problem)!
    const chosen = shavings.filter(s => best.items.some(item => item.id === s.id))
    expect(reachesGoal(asked, chosen)).toBe(true)
    const brings = (of: readonly { gain: number }[]) => of.reduce((sum, s) => sum + s.gain, 0)
    for (let bits = 0; bits < 16; bits++) {
      const other = shavings.filter((_, i) => bits & (1 << i))
      if (reachesGoal(asked, other)) expect(brings(other)).toBeLessThanOrEqual(brings(chosen))
    }
    expect(brings(chosen)).toBe(8)
  })
  it('comes on board as a line of its own, or as the line that was off', () => {
    const after = afterShaving(light, light.shave!.shavings[0]!, estimates)
    expect(after.lines.at(-1)).toMatchObject({ name: 'sounder', state: 'fitted', mass: { valueG: 1.9 } })
    const off: Build = {
      ...light,
      lines: light.lines.map(line => (line.id === 'pad' ? { ...line, state: 'off' as const } : line)),
    }
    const back = suggested(off, { puttingOn: true }).find(s => s.shaving.lineId === 'pad')!
    expect(effectOf(off, back.shaving)).toEqual({ kind: 'on', lineId: 'pad' })
    expect(afterShaving(off, back.shaving, estimates).lines.find(l => l.id === 'pad')!.state).toBe('fitted')
  })
  it('is suggested where a candidate is heavier, and takes the place of what is fitted', () => {
    const board = nougat.lines.find(l => l.id === 'n1')!
    const bigger = {
      ...board,
      id: 'bigger',
      name: 'Bigger pack',
      state: 'candidate' as const,
      insteadOf: 'n1',
      pack: { ...board.pack!, capacityMah: 1100 },
      mass: { ...board.mass!, versionId: 'bigger', valueG: board.mass!.valueG + 6 },
    }
    const withBigger: Build = { ...light, lines: [...light.lines, bigger] }
    const { shaving: found, because } = suggested(withBigger, { puttingOn: true }).find(
      s => s.shaving.candidateId === 'bigger',
    )!
    expect(found).toMatchObject({ kind: 'put on', gramsG: -6 })
    expect(because).toMatch(/^79\.34 g now, 85\.34 g with it; \d+\.\d minutes become \d+\.\d$/)
    const [was, then] = /(\d{1,3}\.\d) minutes become (\d{1,3}\.\d)/.exec(because)!.slice(1).map(Number) as [
      number,
      number,
    ]
    expect(then).toBeGreaterThan(was)
    expect(openShavings({ ...withBigger, shave: { ...withBigger.shave!, shavings: [found] } })).toEqual([])
    const posed = poseProblem({
      ...asked,
      build: { ...withBigger, shave: { ...withBigger.shave!, shavings: [found] } },
    })
    expect(posed.problem.items[0]!.gramsG[0]).toBeCloseTo(-6, 2)
  })
  it('is never part of a plan to come back under', () => {
    expect(openShavings(light)).toEqual([])
    expect(openShavings(light, 'put on')).toHaveLength(4)
  })
})

describe('two schools', () => {
  const schools = schoolsOf(nougat, estimates)
  const named = (question: string) => schools.find(s => s.question === question)!
  it('have one present way each, and nothing heavier than steel among the screws', () => {
    expect(schools.map(s => s.question)).toEqual([
      'Screws',
      'Leads',
      'Motor leads',
      'Plug of the pack, both halves',
      'Boards',
      'What holds the pack',
      'Props on the motors',
      'Boards in the frame',
    ])
    for (const school of schools) expect(school.ways.filter(way => way.now)).toHaveLength(1)
    const titanium = named('Screws').ways.find(way => /titanium/.test(way.name))!.againstG[0]
    const nylon = named('Screws').ways.find(way => /nylon/.test(way.name))!.againstG[0]
    expect(titanium).toBeLessThan(-1)
    expect(nylon).toBeLessThan(titanium)
  })
  it('agree with the plans they come from: slack by the wire, a plug by its pair, a stack by its classes', () => {
    const slackG = nougat.fit!.wires.reduce(
      (sum, wire) => sum + (isSaidWire(wire) && wire.slackMm > 0 ? wiresG(wire.awg, wire.slackMm, wire.count) : 0),
      0,
    )
    expect(named('Leads').ways.find(way => way.name === 'cut to the way alone')!.againstG[0]).toBeCloseTo(-slackG, 9)
    expect(
      named('Plug of the pack, both halves').ways.find(way => way.name.startsWith('two bullets 3.5 mm'))!.againstG[0],
    ).toBeCloseTo(4, 9)
    const board = estimates.of(nougat.lines.find(l => l.id === 'board')!).valueG
    expect(named('Boards').ways.find(way => way.name === 'stack of 20 mm')!.againstG[0]).toBeCloseTo(
      3.6 + 5.5 - board,
      9,
    )
  })
  it('weigh plugs against solder by the pair and the number of motors, whichever is there now', () => {
    expect(named('Motor leads').ways.map(way => [way.now, way.againstG[0]])).toEqual([
      [true, 0],
      [false, 1],
    ])
    const withPlugs: Build = {
      ...nougat,
      lines: nougat.lines.map(line =>
        line.slot === 'motor' ? { ...line, properties: { ...line.properties, plug: 'two-pin 2.0 mm pitch' } } : line,
      ),
    }
    const plugged = schoolsOf(withPlugs, estimates).find(s => s.question === 'Motor leads')!
    expect(plugged.ways[1]).toMatchObject({
      name: 'soldered straight to the board',
      againstG: [-1.8, -1.8],
      minutes: 20,
      loss: 2,
      cents: 0,
    })
    const solder = suggested(withPlugs).find(s => s.shaving.kind === 'direct solder')!
    expect(solder.shaving).toMatchObject({ lineId: 'motors', gramsG: 1.8, evidence: 'worked out' })
  })
  it('hold a strap against a rubber ring, screwed props against wedged ones, soft boards against hard ones, each by its own sum', () => {
    const strap = estimates.of(nougat.lines.find(line => line.slot === 'strap')!).valueG
    expect(named('What holds the pack').ways[1]).toMatchObject({
      name: 'rubber ring',
      againstG: [0.3 - strap, 0.9 - strap],
    })
    const screw = (length: number) => 8 * screwG(screwForm('M2', 'button'), length, 7.85)
    expect(named('Props on the motors').ways[1]).toMatchObject({
      againstG: [-screw(8), -screw(5)],
      words: expect.stringContaining('never over people'),
    })
    const layer = (kind: 'grommet' | 'spacer', heightMm: number) => ({
      id: kind,
      name: kind,
      kind,
      lineId: null,
      heightMm,
      widthMm: null,
      lengthMm: null,
      turnDeg: 0,
      bare: 'none' as const,
      port: null,
    })
    const mounted = (kind: 'grommet' | 'spacer') =>
      schoolsOf({ ...nougat, fit: { ...nougat.fit!, stack: { layers: [layer(kind, 4)] } } }, estimates).find(
        s => s.question === 'Boards in the frame',
      )!
    // 4 × π/4 (5² − 2.2²) × 4 mm, in silicone at 1.20 and nylon at 1.14 g/cm³.
    expect(mounted('grommet').ways[1]!.againstG[0]).toBeCloseTo(-0.0152, 4)
    expect(mounted('spacer').ways[1]!.againstG[0]).toBeCloseTo(0.0152, 4)
  })
  it('say nothing where there are no data', () => {
    expect(schoolsOf({ ...nougat, fit: null, lines: [] }, estimates)).toEqual([])
  })
})

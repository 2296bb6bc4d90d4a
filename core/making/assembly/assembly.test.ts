import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import pralineFile from '../../../demo/builds/praline.build.json'
import sherbetFile from '../../../demo/builds/sherbet.build.json'
import treacleFile from '../../../demo/builds/treacle.build.json'
import { applyCommand, describeCommand, diffBuilds } from '../../changes/commands'
import type { JointPlan } from '../../model/data'
import { makeLine, makeMass, type Build, type Line } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { allowedLoadouts, countedLines, estimatesOf } from '../../mass/loadout'
import { overviewOf } from '../../mass/report'
import { startingCards } from '../../limits/rules'
import {
  assemblyOf,
  blankAssembly,
  circleWords,
  connectionsOf,
  expectedAfter,
  inOrder,
  maidenChecks,
  movedStep,
  progressOf,
  repairPath,
  schools,
  sequenceOf,
  standingOf,
  stepsOf,
  waitsFor,
  whyBlocked,
  type Assembly,
  type AssemblyStep,
  type OwnStep,
  type StepRecord,
} from './index'

const [sherbet, praline, marzipan, nougat, treacle] = [
  sherbetFile,
  pralineFile,
  marzipanFile,
  nougatFile,
  treacleFile,
].map(file => file.build as unknown as Build) as [Build, Build, Build, Build, Build]
const all = [sherbet, praline, marzipan, nougat, treacle]
function sorted(build: Build, assembly: Assembly = assemblyOf(build)): readonly AssemblyStep[] {
  const order = sequenceOf(build, build.flies, assembly)
  if ('cycle' in order) throw new Error(circleWords(order.cycle))
  return order.steps
}
const ids = (build: Build) =>
  sorted(build)
    .map(step => step.id)
    .join(' ')
const step = (build: Build, id: string) => sorted(build).find(s => s.id === id)!
const record = (build: Build, stepId: string, fields: Partial<StepRecord>) =>
  applyCommand(build, { type: 'assembly.record', stepId, fields })
const at = '2026-11-20T10:00:00.000Z'

describe('the sequence of each demo build', () => {
  it('follows from its parts', () => {
    expect(ids(sherbet)).toBe(
      'dry-fit frame-base motors-place board-in motors-join first-power motors-test video camera ' +
        'second-power bind settings close pack-on props weigh maiden',
    )
    expect(ids(praline)).toBe(
      'dry-fit frame-base motors-place board-in capacitor motors-join first-power motors-test radio ' +
        'video camera second-power bind settings close pack-on guards props weigh maiden',
    )
    expect(ids(marzipan)).toBe(
      'dry-fit frame-base motors-place board-in capacitor motors-join first-power motors-test radio ' +
        'video camera device-navigation second-power video-activate bind settings close pack-on props ' +
        'weigh maiden',
    )
    expect(ids(nougat)).toBe(
      'dry-fit frame-base motors-place leads-trim board-in capacitor motors-join first-power ' +
        'motors-test radio video camera device-heat second-power video-activate bind settings close ' +
        'pack-on props weigh maiden',
    )
    expect(ids(treacle)).toBe(
      'dry-fit frame-base motors-place board-in capacitor motors-join first-power motors-test radio ' +
        'video camera device-navigation second-power video-activate bind settings close loose-load ' +
        'pack-on directions props weigh maiden',
    )
  })
  it('has no capacitor on the ducted single cell, plugs in place of solder, and a limiter for one cell', () => {
    expect(sorted(sherbet).some(s => s.id === 'capacitor' || s.id === 'radio')).toBe(false)
    expect(step(sherbet, 'motors-join')).toMatchObject({ title: 'Plug the motors in' })
    expect(step(sherbet, 'first-power').need[0]).toBe('current limiter for one cell')
  })
  it('warns of the feed at the very step of a low-volt transmitter, and of a capacitor that is rated too low', () => {
    expect(step(marzipan, 'video').cautions[0]).toBe(
      'A full pack has 16.8 V: more than its 13 V. Check the pad with a meter before the wire goes on.',
    )
    expect(step(marzipan, 'capacitor').cautions[0]).toBe(
      'Rated 16 V, a full pack has 16.8 V: it can burst. Take a higher one.',
    )
    const onPack: Build = {
      ...marzipan,
      lines: marzipan.lines.map(line => (line.id === 'vtx' ? { ...line, feed: { from: 'pack', output: '' } } : line)),
    }
    expect(step(onPack, 'video').cautions[0]).toBe('Its feed reaches 16.8 V, it bears 13 V: do not connect it there.')
    // A camera on its ready cable cannot be put on the pack by mistake.
    expect(step(marzipan, 'camera').cautions).toEqual([])
  })
  it('has a step of its own for the directions of pushed props, before they go on', () => {
    expect(step(treacle, 'props').after).toContain('directions')
    expect(step(treacle, 'settings').facts.join(' ')).toContain('props reversed')
    expect(all.filter(build => sorted(build).some(s => s.id === 'directions'))).toEqual([treacle])
  })
  it('a stack of two boards, a coating and a separate regulator get steps of their own', () => {
    const extra = [
      makeLine({ id: 'esc', slot: 'speed controller', name: 'Four in one' }),
      makeLine({ id: 'coat', slot: 'coating', name: 'Clear coat' }),
    ]
    const build: Build = { ...nougat, lines: [...nougat.lines, ...extra] }
    expect(ids(build)).toContain('first-power stack motors-test radio')
    expect(ids(build)).toContain('settings coat close')
    expect(step(build, 'board-in').parts.map(part => part.lineId)).toContain('esc')
    expect(step(build, 'stack').parts).toEqual([{ lineId: 'board', pieces: 1 }])
    expect(step(build, 'coat').facts[0]).toMatch(/^Mask: .*barometer/)
  })
  it('the props go on after everything else, and nothing but weighing and flying follows, in every school', () => {
    for (const build of all) {
      for (const school of Object.keys(schools)) {
        const steps = sorted(build, { ...blankAssembly, school })
        expect(
          steps.slice(steps.findIndex(s => s.id === 'props')).map(s => s.id),
          `${build.id}, ${school}`,
        ).toEqual(['props', 'weigh', 'maiden'])
      }
    }
  })
  it('motors are spun only when the board that drives the speed controller is on it, and it is told there how it sits', () => {
    const fit = { ...nougat.fit!, mounting: { ...nougat.fit!.mounting, boardUpsideDown: true } }
    const two: Build = {
      ...nougat,
      fit,
      lines: [...nougat.lines, makeLine({ id: 'esc', slot: 'speed controller', name: 'Four in one' })],
    }
    for (const school of Object.keys(schools)) {
      const order = sorted(two, { ...blankAssembly, school }).map(s => s.id)
      expect(order.indexOf('stack'), school).toBeLessThan(order.indexOf('motors-test'))
    }
    const upsideDown = 'The board hangs upside down: tell the flight-controller firmware.'
    expect(step(two, 'stack').facts).toContain(upsideDown)
    expect(step(two, 'board-in').facts).not.toContain(upsideDown)
    expect(step({ ...nougat, fit }, 'board-in').facts).toContain(upsideDown)
  })
  it('names no plate, strap or pad that is not there, and binds a radio that is in the board or nowhere yet', () => {
    const whoop: Build = {
      ...sherbet,
      fit: null,
      lines: sherbet.lines
        .filter(line => line.slot !== 'strap' && line.slot !== 'pad')
        .map(line => (line.slot === 'frame' || line.slot === 'board' ? { ...line, properties: null } : line)),
    }
    const words = JSON.stringify(sorted(whoop).map(({ title, why, facts, cautions }) => [title, why, facts, cautions]))
    expect(words).not.toMatch(/top plate|bottom plate|strap/i)
    expect(step(whoop, 'pack-on').title).toBe(
      `${whoop.lines.find(line => line.id === whoop.flies.packLineId)!.name.split(',')[0]} in its place`,
    )
    expect(step(whoop, 'bind').facts).toEqual([
      'Nobody has said where the receiver is: say at the board that it holds one, or add its line.',
    ])
    expect(step(sherbet, 'bind').facts).toEqual([])
    expect(step(nougat, 'pack-on').title).toMatch(/^Strap and Pad, and /)
  })
  it(
    'says the low-volt warning as Packs has it: its own, where the flight ends, or the usual, and is ' +
      'nearly empty for an empty build',
    () => {
      expect(step(marzipan, 'settings').facts.join(' ')).toContain('3.70 V a cell, 14.8 V for the pack of 4')
      expect(step(treacle, 'settings').facts.join(' ')).toContain('2.90 V a cell, 5.8 V for the pack of 2')
      expect(step(sherbet, 'settings').facts.join(' ')).toContain('3.50 V a cell, 3.5 V for the pack of 1')
      expect(sorted({ ...sherbet, lines: [], flies: { ...sherbet.flies, packLineId: null } }).map(s => s.id)).toEqual([
        'dry-fit',
        'close',
        'weigh',
        'maiden',
      ])
    },
  )
})

describe('what is on board', () => {
  it('every piece of every line comes on in exactly one step, in every loadout and school', () => {
    for (const build of all) {
      for (const choice of allowedLoadouts(build)) {
        const pieces = new Map<string, number>()
        for (const part of stepsOf(build, choice).flatMap(s => s.parts))
          pieces.set(part.lineId, (pieces.get(part.lineId) ?? 0) + part.pieces)
        expect(Object.fromEntries(pieces)).toEqual(
          Object.fromEntries(countedLines(build, choice).map(line => [line.id, line.quantity])),
        )
      }
    }
  })
  it('holds for any joints, however many screws they ask for, and whatever is missing', () => {
    const jointOf = (name: string, holds: JointPlan['holds'], count: number): JointPlan => ({
      ...nougat.fit!.joints[0]!,
      id: name,
      name,
      holds,
      count,
      beyond: 'nothing',
    })
    fc.assert(
      fc.property(
        fc.tuple(fc.nat(30), fc.nat(30), fc.nat(30)),
        fc.subarray(nougat.lines.map(line => line.id)),
        ([motor, board, top], gone) => {
          const build: Build = {
            ...nougat,
            fit: {
              ...nougat.fit!,
              joints: [jointOf('Feet', 'motors', motor), jointOf('Below', 'boards', board), jointOf('Lid', null, top)],
            },
            lines: nougat.lines.filter(line => !gone.includes(line.id)),
          }
          const pieces = new Map<string, number>()
          for (const part of stepsOf(build, build.flies).flatMap(s => s.parts))
            pieces.set(part.lineId, (pieces.get(part.lineId) ?? 0) + part.pieces)
          expect(Object.fromEntries(pieces)).toEqual(
            Object.fromEntries(countedLines(build, build.flies).map(line => [line.id, line.quantity])),
          )
        },
      ),
      { numRuns: 200 },
    )
  })
  it('screws stay with what their joint holds, whatever the joint is called', () => {
    const screwsAt = (name: string, holds: JointPlan['holds']) => {
      const joints = nougat.fit!.joints.map(joint => (joint.id === 'motors' ? { ...joint, name, holds } : joint))
      return step({ ...nougat, fit: { ...nougat.fit!, joints } }, 'motors-place').parts.filter(
        part => part.lineId === 'screws',
      )
    }
    expect(screwsAt('Arms and feet', 'motors')).toEqual([{ lineId: 'screws', pieces: 16 }])
    expect(screwsAt('Motors on the arms', 'something else')).toEqual([])
  })
  it('grams grow from step to step and end at the all-up weight of the ledger, to the last digit', () => {
    for (const build of all) {
      const estimates = estimatesOf(build, new ListingBiasTable())
      const overview = overviewOf(build, build.flies, startingCards, estimates)
      const steps = sorted(build)
      const grams = steps.map(s => expectedAfter(steps, s.id, build, build.flies, estimates).estimate.valueG)
      for (let i = 1; i < grams.length; i++) expect(grams[i]).toBeGreaterThanOrEqual(grams[i - 1]! - 1e-9)
      expect(grams.at(-1)).toBe(overview.massG)
      expect(expectedAfter(steps, 'maiden', build, build.flies, estimates).lines).toEqual(overview.counted)
    }
  })
  it('sixteen of twenty screws sit in the motors, the rest comes with the top plate', () => {
    const estimates = estimatesOf(nougat, new ListingBiasTable())
    const screws = (id: string) =>
      expectedAfter(sorted(nougat), id, nougat, nougat.flies, estimates).lines.find(line => line.id === 'screws')
        ?.quantity
    expect([screws('frame-base'), screws('motors-place'), screws('props')]).toEqual([undefined, 16, 20])
    const one = estimates.of({ ...nougat.lines.find(line => line.id === 'screws')!, quantity: 16 }).valueG
    const whole = estimates.of(nougat.lines.find(line => line.id === 'screws')!).valueG
    expect(one).toBeCloseTo(whole * 0.8, 9)
  })
  it('screws no joint speaks of come on with what they hold, by kind and number, and it is said that this is assumed', () => {
    const screws = (quantity: number, motor: Line['properties'], more: readonly Line[] = []): Build => ({
      ...nougat,
      fit: null,
      lines: [
        ...nougat.lines.flatMap(line =>
          line.id === 'screws'
            ? [{ ...line, quantity }]
            : line.slot === 'motor'
              ? [{ ...line, properties: motor }]
              : [line],
        ),
        ...more,
      ],
    })
    const at = (build: Build) =>
      sorted(build).flatMap(s => s.parts.filter(part => part.lineId === 'screws').map(part => [s.id, part.pieces]))
    expect(at(screws(16, { pattern: ['9×9 M2'] }))).toEqual([['motors-place', 16]])
    expect(at(screws(20, { pattern: ['9×9 M2'] }))).toEqual([
      ['motors-place', 16],
      ['close', 4],
    ])
    expect(at(screws(12, { pattern: ['3 on 6.6 M1.4'] }))).toEqual([['motors-place', 12]])
    expect(at(screws(12, null))).toEqual([['motors-place', 12]])
    expect(at(screws(4, null))).toEqual([['board-in', 4]])
    expect(at(screws(7, null))).toEqual([['close', 7]])
    // Of another thread than the motors take they hold something else.
    expect(at(screws(16, { pattern: ['9×9'], screwThread: 'M3' }))).toEqual([['close', 16]])
    expect(
      at(screws(8, { pattern: ['9×9'] }, [makeLine({ id: 'posts', slot: 'standoff', name: 'Posts', quantity: 4 })])),
    ).toEqual([
      ['frame-base', 4],
      ['close', 4],
    ])
    expect(step(screws(16, { pattern: ['9×9 M2'] }), 'motors-place').facts).toContain(
      '16 of M2 × 10 socket cap are taken to be these screws, by kind and number: no joint of Fit says so.',
    )
    expect(step(nougat, 'motors-place').facts.join(' ')).not.toContain('taken to be')
  })
  it('a skipped step brings nothing on board, and a line nobody has weighed is said to be open', () => {
    const build = record(
      { ...nougat, lines: nougat.lines.map(line => (line.id === 'lead' ? { ...line, mass: null } : line)) },
      'capacitor',
      { skippedWhy: 'short leads' },
    )
    const estimates = estimatesOf(build, new ListingBiasTable())
    const here = expectedAfter(sorted(build), 'first-power', build, build.flies, estimates)
    expect(here.lines.map(line => line.id)).not.toContain('capacitor')
    expect(here.open).toBe(1)
  })
})

const own = (id: string, after: string[], phase: OwnStep['phase'] = 'close'): OwnStep => ({
  id,
  title: `Own ${id}`,
  words: '',
  phase,
  after,
  minutes: 3,
})

describe('the order', () => {
  const keeps = (steps: readonly AssemblyStep[]) => {
    const place = new Map(steps.map((s, i) => [s.id, i]))
    return steps.every(s => waitsFor(s).every(other => !place.has(other) || place.get(other)! < place.get(s.id)!))
  }
  it('never puts a step before what it waits for, whatever is wished, in any school', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...all),
        fc.constantFrom(...Object.keys(schools), 'gone template'),
        fc.array(fc.nat(40), { maxLength: 30 }),
        fc.array(fc.tuple(fc.nat(40), fc.boolean()), { maxLength: 12 }),
        (build, school, wishes, moves) => {
          const steps = stepsOf(build, build.flies)
          const wished = [...new Set(wishes.map(i => steps[i % steps.length]!.id))]
          let order = inOrder(steps, school, wished)
          for (const [i, down] of moves) {
            if ('cycle' in order) throw new Error('no circle here')
            expect(keeps(order.steps)).toBe(true)
            expect(order.steps).toHaveLength(steps.length)
            const moved = movedStep(order.steps, order.steps[i % steps.length]!.id, (down ? 1 : -1) * (1 + (i % 4)))
            if ('problem' in moved) continue
            const next = inOrder(steps, school, moved.order)
            if ('cycle' in next) throw new Error('no circle here')
            expect(next.steps.map(s => s.id)).toEqual(moved.order)
            order = next
          }
        },
      ),
      { numRuns: 300 },
    )
  })
  it('the schools differ where practitioners do, and nowhere else', () => {
    const order = (school: string) => sorted(nougat, { ...blankAssembly, school }).map(s => s.id)
    expect(order('boards first').indexOf('video')).toBeLessThan(order('boards first').indexOf('motors-place'))
    expect(order('motors first').indexOf('motors-test')).toBeLessThan(order('motors first').indexOf('radio'))
    expect(order('plugs first').indexOf('video')).toBeLessThan(order('plugs first').indexOf('motors-join'))
    expect(order('boards first').toSorted()).toEqual(order('motors first').toSorted())
  })
  it('a move that cannot be says what it needs; one that can keeps everything else where it was', () => {
    const steps = sorted(nougat)
    expect(movedStep(steps, 'motors-test', -1)).toEqual({
      problem:
        '“Each motor felt, then turned, props off” comes after “First power-up through a limiter, nothing ' +
        'else connected”: it needs it done.',
    })
    expect(movedStep(steps, 'dry-fit', -1)).toEqual({ problem: 'There is nothing further that way.' })
    const moved = movedStep(steps, 'camera', 1)
    if ('problem' in moved) throw new Error(moved.problem)
    expect(
      sorted(applyCommand(nougat, { type: 'assembly.set', fields: { order: moved.order } }))
        .map(s => s.id)
        .join(' '),
    ).toContain('video device-heat camera second-power')
  })
  it('own steps take their place; a circle is explained and changes nothing', () => {
    const with1 = applyCommand(nougat, { type: 'assembly.set', fields: { own: [own('photo', ['camera'])] } })
    expect(step(with1, 'photo')).toMatchObject({ title: 'Own photo', own: true, minutes: 3 })
    expect(() =>
      applyCommand(with1, {
        type: 'assembly.set',
        fields: { own: [own('a', ['b']), own('b', ['c']), own('c', ['a']), own('d', [])] },
      }),
    ).toThrow('These wait for each other in a circle: “Own a” waits for “Own b” waits for “Own c” waits for “Own a”.')
    expect(() => applyCommand(nougat, { type: 'assembly.set', fields: { own: [own('a', ['a'])] } })).toThrow(
      '“Own a” waits for itself.',
    )
    expect(() => applyCommand(nougat, { type: 'assembly.set', fields: { own: [own('a', []), own('a', [])] } })).toThrow(
      /same id/,
    )
    // What a template names and this build has not does no harm.
    expect(
      sorted(
        applyCommand(sherbet, {
          type: 'assembly.set',
          fields: { order: ['capacitor', 'props'], own: [own('x', ['capacitor'])] },
        }),
      ).some(s => s.id === 'x'),
    ).toBe(true)
  })
})

describe('gates', () => {
  const failed = record(nougat, 'first-power', { test: 'failed' })
  it('a failed test blocks whatever rests on it, near and far, and nothing else', () => {
    const steps = sorted(failed)
    const state = (id: string) => standingOf(steps, assemblyOf(failed), step(failed, id)).state
    expect([
      state('first-power'),
      state('motors-test'),
      state('radio'),
      state('maiden'),
      state('motors-place'),
      state('capacitor'),
    ]).toEqual(['failed', 'blocked', 'blocked', 'blocked', 'open', 'open'])
    expect(whyBlocked(steps, assemblyOf(failed), step(failed, 'radio'))).toBe(
      '“Radio: 2.4 GHz” waits for “First power-up through a limiter, nothing else connected”: its test ' +
        'failed. Test it again, or go past it with a reason.',
    )
    expect(() => record(failed, 'radio', { doneAt: at })).toThrow('its test failed')
    expect(() => record(failed, 'first-power', { test: 'failed', doneAt: at })).toThrow('Its test failed')
    expect(record(failed, 'capacitor', { doneAt: at }).assembly!.records).toHaveLength(2)
    expect(record(failed, 'radio', { note: 'wires cut already' }).assembly!.records).toHaveLength(2)
  })
  it('passed again, or gone past with a reason that stays noted, it opens', () => {
    expect(() =>
      record(record(failed, 'first-power', { test: 'passed', doneAt: at }), 'radio', { doneAt: at }),
    ).not.toThrow()
    const past = record(failed, 'first-power', {
      test: 'failed',
      overriddenWhy: 'limiter too small for this board',
      doneAt: at,
    })
    expect(standingOf(sorted(past), assemblyOf(past), step(past, 'first-power')).state).toBe('overridden')
    expect(() => record(past, 'radio', { doneAt: at })).not.toThrow()
    expect(() => record(nougat, 'first-power', { overriddenWhy: 'for fun' })).toThrow('Only a failed test')
    expect(progressOf(sorted(past), assemblyOf(past))).toMatchObject({ done: 1, failed: 0, overridden: 1 })
    const checks = maidenChecks(
      past,
      past.flies,
      overviewOf(past, past.flies, startingCards, estimatesOf(past, new ListingBiasTable())),
      sorted(past),
    )
    expect(
      checks
        .filter(check => check.open)
        .map(check => check.words)
        .join('; '),
    ).toContain(
      'Gone past: First power-up through a limiter, nothing else connected (limiter too small for this board)',
    )
  })
  it('two people at one step do not undo each other: only what is named changes', () => {
    const noted = record(record(nougat, 'camera', { note: 'lens scratched' }), 'camera', { doneAt: at })
    expect(noted.assembly!.records).toEqual([
      expect.objectContaining({ stepId: 'camera', note: 'lens scratched', doneAt: at }),
    ])
  })
  it('records are at most three hundred, so that a file of the build can always be read again', () => {
    let build = nougat
    for (let i = 0; i < 300; i++) build = record(build, `old-${i}`, { note: 'x' })
    expect(() => record(build, 'one-more', { note: 'x' })).toThrow('at most 300 steps')
    expect(record(build, 'old-7', { note: 'y' }).assembly!.records).toHaveLength(300)
  })
  it('progress counts what is ticked, leaves out what is skipped, and is told in the journal', () => {
    const done = record(record(nougat, 'dry-fit', { doneAt: at, test: 'passed' }), 'capacitor', {
      skippedWhy: 'none at hand',
    })
    const steps = sorted(done)
    expect(progressOf(steps, assemblyOf(done))).toMatchObject({
      done: 1,
      of: steps.length - 1,
      next: { id: 'frame-base' },
    })
    expect(progressOf(steps, assemblyOf(done)).minutesLeft).toBe(
      steps.filter(s => s.id !== 'dry-fit' && s.id !== 'capacitor').reduce((sum, s) => sum + s.minutes, 0),
    )
    const command = { type: 'assembly.record', stepId: 'props', fields: { doneAt: at } } as const
    expect(describeCommand(command, nougat, diffBuilds(nougat, applyCommand(nougat, command))).title).toBe(
      'Assemble: “Two-blade 3.5 in on, after everything else” done',
    )
  })
})

describe('repair', () => {
  it('opens only what lies over the part, from the outside in, and repeats the tests it costs', () => {
    const path = repairPath(sorted(nougat), 'camera')!
    expect(path.takeApart.map(s => s.id)).toEqual(['close', 'camera'])
    expect(path.testsAgain.map(s => s.id)).toEqual(['second-power'])
    expect(path.minutes).toBe(15 + 12 + 6)
  })
  it('a motor: props off, its joint, its screws; every test of the motors again', () => {
    const path = repairPath(sorted(nougat), 'motors')!
    expect(path.takeApart.map(s => s.id)).toEqual(['props', 'motors-join', 'leads-trim', 'motors-place'])
    expect(path.testsAgain.map(s => s.id)).toEqual(['first-power', 'motors-test', 'settings'])
    expect(repairPath(sorted(treacle), 'motors')!.testsAgain.map(s => s.id)).toContain('directions')
    expect(repairPath(sorted(nougat), 'board')!.takeApart.map(s => s.id)).not.toContain('settings')
    expect(repairPath(sorted(nougat), 'board')!.rebuild.map(s => s.id)).toContain('settings')
  })
  it('what is undone is closed under what lies over it, in every build and for every part', () => {
    for (const build of all) {
      const steps = sorted(build)
      for (const line of countedLines(build, build.flies)) {
        const path = repairPath(steps, line.id)!
        const undone = new Set(path.rebuild.map(s => s.id))
        expect(steps.filter(s => !undone.has(s.id) && s.over.some(id => undone.has(id)))).toEqual([])
        expect(path.rebuild.map(s => s.id)).toEqual(steps.filter(s => undone.has(s.id)).map(s => s.id))
        for (const test of path.testsAgain) expect(test.proves.some(id => undone.has(id))).toBe(true)
      }
    }
    expect(repairPath(sorted(nougat), 'nobody')).toBeNull()
  })
})

describe('the connection table', () => {
  const row = (build: Build, to: string, pin: string) =>
    connectionsOf(build, build.flies).find(c => c.to === to && c.pin === pin)
  it('names pad, colour, pin and volts of every feed, with the lead to cut', () => {
    expect(row(marzipan, 'Oddfellow digital', '+')).toMatchObject({
      from: 'Nettle & Daughter all-in-one',
      pad: '9 V',
      colour: 'red',
      volts: '9 V, bears 7–13 V',
    })
    expect(row(marzipan, '2.4 GHz', 'transmit (TX)')).toMatchObject({ pad: 'receive (RX)', volts: 'signal' })
    expect(row(marzipan, 'Small satellite receiver', '+')!.lead).toMatchObject({ lengthMm: 78 })
    expect(row(marzipan, 'Digital nano camera', 'plug')).toMatchObject({ pad: 'camera socket', colour: 'ready cable' })
    expect(row(praline, 'Analogue nano camera', 'video out')).toMatchObject({ pad: 'video in', colour: 'yellow' })
    expect(row(nougat, '470 µF 35 V', 'stripe, −')).toMatchObject({ colour: 'black', volts: '0 V' })
  })
  it(
    'a digital picture comes on its ready cable whatever its outputs are called; an analogue one goes ' +
      'through the board that lays figures over it',
    () => {
      const named = (build: Build, changes: Record<string, Line['properties']>): Build => ({
        ...build,
        lines: build.lines.map(line =>
          changes[line.slot] === undefined
            ? line
            : { ...line, properties: { ...line.properties, ...changes[line.slot] } },
        ),
      })
      const pictures = (build: Build) =>
        connectionsOf(build, build.flies)
          .filter(c => c.pad.startsWith('video') || c.pad === 'camera socket')
          .map(c => [c.from, c.pad, c.to, c.pin])
      expect(pictures(named(nougat, { 'video transmitter': { outputs: [] } }))).toEqual([
        [expect.anything(), 'camera socket', 'Digital nano camera', 'plug'],
      ])
      const short = (slot: string) => praline.lines.find(line => line.slot === slot)!.name.split(',')[0]
      expect(pictures(praline)).toEqual([[short('video transmitter'), 'video in', short('camera'), 'video out']])
      expect(pictures(named(praline, { board: { laysFiguresOver: true } }))).toEqual([
        [short('board'), 'video in', short('camera'), 'video out'],
        [short('board'), 'video out', short('video transmitter'), 'video in'],
      ])
    },
  )
  it('a clash is printed as a clash, and what the motor says of its own leads appears where none is planned', () => {
    const onPack: Build = {
      ...marzipan,
      lines: marzipan.lines.map(line => (line.id === 'vtx' ? { ...line, feed: { from: 'pack', output: '' } } : line)),
    }
    expect(row(onPack, 'Oddfellow digital', '+')!.clash).toBe('16.8 V there, it bears 13 V: do not connect it there')
    expect(row(marzipan, 'Oddfellow digital', '+')!.clash).toBeNull()
    const motors: Build = {
      ...nougat,
      fit: null,
      lines: nougat.lines.map(line =>
        line.slot === 'motor' ? { ...line, properties: { ...line.properties, leadAwg: 26, leadLengthMm: 150 } } : line,
      ),
    }
    expect(connectionsOf(motors, motors.flies).find(c => c.pad.startsWith('motor pads'))).toMatchObject({
      lead: null,
      itsOwn: { awg: 26, lengthMm: 150 },
    })
    expect(connectionsOf(nougat, nougat.flies).find(c => c.pad.startsWith('motor pads'))).toMatchObject({
      lead: { lengthMm: 72 },
      itsOwn: null,
    })
  })
  it('says where nobody has said the feed, and has a plus and a minus for every wired device of every build', () => {
    expect(row(treacle, 'Oddfellow digital', '+')).toMatchObject({
      from: 'not said',
      pad: '?',
      volts: 'not known, bears 7–26 V',
    })
    for (const build of all) {
      const rows = connectionsOf(build, build.flies)
      for (const plus of rows.filter(c => c.pin === '+' && c.colour === 'red'))
        expect(rows.filter(c => c.to === plus.to && c.colour === 'black')).toHaveLength(1)
    }
  })
})

describe('the card of the first flight', () => {
  it('carries weight and verdict, the pack by its label, and what is not settled', () => {
    const overview = overviewOf(nougat, nougat.flies, startingCards, estimatesOf(nougat, new ListingBiasTable()))
    const checks = maidenChecks(nougat, nougat.flies, overview, sorted(nougat))
    expect(checks[0]).toMatchObject({ open: true })
    expect(checks[0]!.words).toMatch(/^heat camera · N1: 254\.97 g ± 0\.87, Over under /)
    expect(checks.some(check => check.words.startsWith('Pack N1: label read, 4 cells full'))).toBe(true)
    const bare: Line = makeLine({
      id: 'only',
      slot: 'frame',
      name: 'Only a frame',
      mass: makeMass({ versionId: 'v', evidence: 'weighed', valueG: 4 }),
    })
    const little: Build = { ...nougat, lines: [bare], flies: { ...nougat.flies, packLineId: null } }
    expect(
      maidenChecks(
        little,
        little.flies,
        overviewOf(little, little.flies, startingCards, estimatesOf(little, new ListingBiasTable())),
        sorted(little),
      ).map(c => c.words),
    ).toContain('No pack is chosen for this loadout')
  })
})

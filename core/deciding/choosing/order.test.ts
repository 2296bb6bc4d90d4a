import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { noGear, type GroundGear } from '../../aircraft/fit'
import { applyCommand } from '../../changes/commands'
import { startingCards } from '../../limits/rules'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { overviewOf } from '../../mass/report'
import { makeMass, type Build, type Line } from '../../model/ledger'
import { choosingOrder, type OrderStep } from './index'

const nougat = nougatFile.build as unknown as Build
function orderOf(build: Build, gear: GroundGear = noGear) {
  const estimates = estimatesOf(build, new ListingBiasTable())
  const overview = overviewOf(build, build.flies, startingCards, estimates)
  return { overview, steps: choosingOrder({ build, overview, estimates, gear }) }
}
const stepOf = (steps: readonly OrderStep[], key: string) => steps.find(step => step.key === key)!
const says = (step: OrderStep) => step.forces.map(force => force.says)
const change = (build: Build, id: string, fields: Partial<Line>) =>
  applyCommand(build, { type: 'lines.change', changes: [{ id, fields }] })

describe('the order of choosing', () => {
  const { steps } = orderOf(nougat)
  it('goes from the frame to the pack', () => {
    expect(steps.map(step => step.label)).toEqual(['Frame', 'Motors and props', 'Board', 'Video', 'Radio', 'Pack'])
    expect(steps.map(step => step.standing)).toEqual(Array<string>(6).fill('chosen'))
  })

  it('says what the limit leaves: 0.55 lb less the reserve of 1 g and all else of 254.97 g', () => {
    const pack = stepOf(steps, 'pack')
    expect(pack.massG).toBeCloseTo(79.34, 9)
    expect(pack.leavesG).toBeCloseTo(249.4758 - 1 - 254.97 + 79.34, 3)
    expect(stepOf(steps, 'drive').leavesG).toBeCloseTo(249.4758 - 1 - 254.97 + 36.84 + 7.92, 3)
  })

  it('says what the parts that were chosen ask, and which of them', () => {
    const drive = stepOf(steps, 'drive')
    expect(says(drive)).toEqual([
      'props of at most 92 mm',
      'motor holes 12×12 M2 or 9×9 M2',
      '4 cells, LiPo',
      '2 to 6 cells',
      'at most 35 A a motor',
    ])
    expect(drive.forces[0]!.by).toBe('Pocket Foundry “Gate 35” plates, 4 mm arms')
    expect(says(stepOf(steps, 'video'))).toEqual(['camera 19 mm wide', 'feeds of 3.3 V 0.3 A, 5 V 2 A, 9 V 1.5 A'])
    expect(says(stepOf(steps, 'pack'))).toEqual([
      '3 to 4 cells',
      '2 to 6 cells',
      'plug two bullets 2 mm, 30 A class',
      'tray 100 mm long',
    ])
  })

  it('what is on the ground asks too', () => {
    const gear = { ...noGear, videoFamily: 'digital', radioFamily: '2.4 GHz, wide', chargerCells: 4 }
    const onGround = orderOf(nougat, gear).steps
    expect(says(stepOf(onGround, 'radio'))).toContain('speaks 2.4 GHz, wide')
    expect(says(stepOf(onGround, 'video'))).toContain('video digital')
    expect(says(stepOf(onGround, 'pack'))).toContain('at most 4 cells to charge')
  })

  it('typical parts ask nothing and are still to be chosen; parts without grams are open', () => {
    const mass = makeMass({ versionId: 'typical', evidence: 'typical', valueG: 44, resolutionG: 1 })
    const typical = orderOf(change(nougat, 'frame', { mass })).steps
    expect(stepOf(typical, 'frame').standing).toBe('typical')
    expect(says(stepOf(typical, 'drive'))).not.toContain('props of at most 92 mm')
    expect(stepOf(orderOf(change(nougat, 'props', { mass: null })).steps, 'drive').standing).toBe('open')
  })

  it('a board that receives as well leaves no receiver to choose, and one taken off asks nothing', () => {
    const board = nougat.lines.find(line => line.id === 'board')!
    const without = change(nougat, 'receiver', { state: 'off' })
    expect(stepOf(orderOf(without).steps, 'radio')).toMatchObject({ standing: 'open', massG: 0, within: null })
    const provides = ['speed controller', 'receiver']
    const both = change(without, 'board', {
      properties: { ...board.properties, provides, radioFamily: '2.4 GHz, wide' },
    })
    expect(stepOf(orderOf(both).steps, 'radio')).toMatchObject({
      standing: 'chosen',
      massG: 0,
      leavesG: null,
      within: board.name,
    })
    expect(says(stepOf(orderOf(change(nougat, 'frame', { state: 'off' })).steps, 'board'))).not.toContain(
      '24 mm between the plates',
    )
  })

  it('without a limit by weight nothing is said of what is left', () => {
    const free = applyCommand(nougat, { type: 'build.set', fields: { aim: { ...nougat.aim, cardIds: [] } } })
    expect(orderOf(free).steps.map(step => step.leavesG)).toEqual(Array<null>(6).fill(null))
  })

  it('a part of exactly what is left ends at the limit less the reserve', () => {
    let reached = 0
    fc.assert(
      fc.property(
        fc.constantFrom('frame', 'board', 'receiver', 'n1'),
        fc.double({ min: 1, max: 40, noNaN: true }),
        (id, valueG) => {
          const one = change(nougat, id, {
            mass: makeMass({ versionId: 'one', evidence: 'weighed', valueG, resolutionG: 0.01 }),
          })
          const step = orderOf(one).steps.find(({ lines }) => lines.some(line => line.id === id))!
          if (step.leavesG! <= 0) return
          reached++
          const others = step.massG - valueG
          const filled = change(one, id, {
            mass: makeMass({
              versionId: 'two',
              evidence: 'weighed',
              valueG: step.leavesG! - others,
              resolutionG: 0.01,
            }),
          })
          const { binding } = orderOf(filled).overview
          expect(binding!.limitG! - binding!.massG).toBeCloseTo(nougat.aim.reserveG, 6)
        },
      ),
    )
    expect(reached).toBeGreaterThan(20)
  })
})

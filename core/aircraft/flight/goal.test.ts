import { describe, expect, it } from 'vitest'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import { applyCommand } from '../../changes/commands'
import { estimatesOf, loadoutMasses } from '../../mass/loadout'
import { ListingBiasTable } from '../../mass/listings'
import type { Build } from '../../model/ledger'
import { flightPlanOf, goalChance, goalWays, sheetFlight } from './index'

const build = marzipanFile.build as unknown as Build
const choice = { setupId: 'day', packLineId: 'p7' }
const estimates = estimatesOf(build, new ListingBiasTable())
const { massG } = loadoutMasses(build, [choice], estimates)[0]!
const plan = flightPlanOf(build)
const usual = sheetFlight(build, choice, massG, plan).forecast!.minutes

describe('the chance of a goal of minutes', () => {
  it('is half at the usual minutes, and falls as more is asked', () => {
    expect(goalChance(build, choice, estimates, plan, usual)).toBeCloseTo(0.5, 6)
    const chances = [0.5, 0.8, 1, 1.2, 2, 20].map(factor => goalChance(build, choice, estimates, plan, factor * usual)!)
    expect(chances).toEqual([...chances].sort((a, b) => b - a))
    expect(chances[0]).toBeGreaterThan(0.99)
    expect(chances.at(-1)).toBe(0)
  })
  it('is not told without a pack, or without props', () => {
    expect(goalChance(build, { ...choice, packLineId: null }, estimates, plan, 5)).toBeNull()
    const bare: Build = { ...build, lines: build.lines.filter(line => line.slot !== 'propeller') }
    expect(goalChance(bare, choice, estimates, plan, 5)).toBeNull()
  })
  it('comes by so many grams off: with them the usual minutes are the goal', () => {
    const goal = usual * 1.1
    const { lighterG } = goalWays(build, choice, estimates, plan, goal)!
    expect(sheetFlight(build, choice, massG - lighterG!, plan).forecast!.minutes).toBeCloseTo(goal, 6)
    expect(goalWays(build, choice, estimates, plan, usual * 0.9)!.lighterG).toBe(0)
    expect(goalWays(build, choice, estimates, plan, usual * 10)!.lighterG).toBeNull()
  })
  it('comes by another pack or a gentler style only where their chance is better', () => {
    const race = { ...plan, style: 'race' as const }
    const ways = goalWays(build, choice, estimates, race, usual)!
    expect(ways.gentler!.style).toBe('freestyle')
    expect(ways.gentler!.chance).toBeGreaterThan(goalChance(build, choice, estimates, race, usual)!)
    // P4 is the smaller one: from it P7 would help, not the other way round.
    expect(goalWays(build, choice, estimates, plan, usual)!.otherPack).toBeNull()
    expect(goalWays(build, { ...choice, packLineId: 'p4' }, estimates, plan, usual)!.otherPack).toMatchObject({
      lineId: 'p7',
      label: 'P7',
    })
  })
  it('of a build lighter by a gram is better', () => {
    const lighter = applyCommand(build, {
      type: 'lines.change',
      changes: [{ id: 'frame', fields: { mass: { ...build.lines.find(l => l.id === 'frame')!.mass!, valueG: 30 } } }],
    })
    const chance = goalChance(lighter, choice, estimatesOf(lighter, new ListingBiasTable()), plan, usual)!
    expect(chance).toBeGreaterThan(0.5)
  })
})

import { describe, expect, it } from 'vitest'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import { estimatesOf } from '../../mass/loadout'
import { ListingBiasTable } from '../../mass/listings'
import { overviewOf } from '../../mass/report'
import { startingCards } from '../../limits/rules'
import { testFinding } from '../../aircraft/flown/testing'
import { flightPlanOf, sheetFlight } from '../../aircraft/flight'
import type { Build } from '../../model/ledger'
import { fieldBuild } from './index'

const build = marzipanFile.build as unknown as Build
const estimates = estimatesOf(build, new ListingBiasTable())
const lessons = { buildId: build.id, said: [], packs: {} }
const kit = (more: object = {}) =>
  fieldBuild({ build, revision: 7, estimates, cards: startingCards, lessons, flights: 3, findings: [], ...more })

describe('what is taken to the field', () => {
  it('has every loadout with a pack, its weight, verdict and minutes as the sheet has them', () => {
    const { loadouts, flies } = kit()
    expect(loadouts).toHaveLength(6)
    expect(loadouts.map(({ key }) => key)).toContain(flies)
    for (const { choice, snapshot, word, minutes } of loadouts) {
      const overview = overviewOf(build, choice, startingCards, estimates)
      expect(snapshot.auwG).toBeCloseTo(overview.massG, 9)
      expect(word).toBe(overview.binding?.verdict?.word ?? null)
      const { forecast } = sheetFlight(build, choice, overview.massG, { ...flightPlanOf(build), style: 'race' })
      expect(minutes.race!.middle).toBeCloseTo(forecast!.minutes, 9)
    }
  })
  it('takes a snapshot a flight can be kept with: revision, pack, drive and parts', () => {
    const { snapshot } = kit().loadouts[0]!
    expect(snapshot).toMatchObject({ revision: 7, pack: { cells: 4 }, craft: { efficiency: 0.38 } })
    expect(snapshot.parts.map(({ slot }) => slot)).toEqual(expect.arrayContaining(['frame', 'motor', 'propeller']))
  })
  it('says what changes between flights, the weight only where it is not clear, and what is not gone', () => {
    const open = kit({
      findings: [
        testFinding({ id: 'a', kind: 'wash-out' }),
        testFinding({ id: 'b', kind: 'crash', goneAt: '2026-11-03T10:00' }),
      ],
    })
    expect(open.open).toEqual(['wash-out'])
    const checksOf = (key: string) => open.loadouts.find(one => one.key === key)!.checks
    expect(checksOf('day.p4').some(({ words }) => words.includes('233'))).toBe(false)
    expect(checksOf('ridge.p7')[0]).toMatchObject({ open: true, words: expect.stringContaining('Over under') })
    for (const { checks } of open.loadouts) {
      expect(checks.some(({ words }) => words.includes('never over people'))).toBe(true)
      expect(checks.some(({ words }) => words.includes('not swollen'))).toBe(true)
    }
  })
})

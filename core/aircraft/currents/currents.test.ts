import { describe, expect, it } from 'vitest'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import pralineFile from '../../../demo/builds/praline.build.json'
import sherbetFile from '../../../demo/builds/sherbet.build.json'
import { fitReport, noGear } from '../fit'
import { sheetFlight } from '../flight'
import { makeLine, type Build, type Line, type PackFacts, type Slot } from '../../model/ledger'
import { allLoadouts, countedLines } from '../../mass/loadout'
import { blankFlightPlan } from '../power'
import type { Properties } from '../../model/properties'
import { bearingsOf, fullThrottleOf } from './index'

const demo = [marzipanFile, nougatFile, pralineFile, sherbetFile].map(file => file.build as unknown as Build)
const line = (slot: Slot, properties: Properties | null, more: Partial<Line> = {}) =>
  makeLine({ id: slot, slot, name: slot, properties, ...more })
const facts: PackFacts = {
  label: 'P1',
  cells: 4,
  chemistry: 'LiPo',
  capacityMah: 720,
  cRating: 75,
  plug: 'two bullets 2 mm',
}
const pack = line('pack', { resistanceMohm: 9 }, { pack: facts })
const bench = [
  { throttlePercent: 50, volts: 8, amps: 3, thrustG: 60 },
  { throttlePercent: 100, volts: 8, amps: 8, thrustG: 150 },
]

describe('full throttle', () => {
  it('takes the most current that was said before a bench table, and a bench table before kV and prop', () => {
    const prop = line('propeller', { diameterMm: 76.2 }, { quantity: 4 })
    const at = (properties: Properties) => {
      const motors = line('motor', properties, { quantity: 4 })
      return fullThrottleOf([pack, motors, prop], pack)
    }
    const said = at({ maxCurrentA: 9, bench, kv: 3850 })
    expect(said).toMatchObject({ from: 'said', motorsA: [{ amps: 9 }] })
    expect((said as { currentA: number }).currentA).toBeCloseTo(36, 6)
    expect(at({ bench, kv: 3850 })).toMatchObject({
      from: 'bench table',
      atLeastA: true,
      motorsA: [{ amps: 8, atLeast: true }],
    })
    expect(at({ kv: 3850 })).toMatchObject({ from: 'kV and prop', rough: true, atLeast: false })
    expect(at({})).toBeNull()
  })
  it('a wire rated for 35 A bears twice that in a burst', () => {
    expect(
      bearingsOf([line('power lead', { awg: 16 }), pack], pack).find(one => one.part === 'power lead'),
    ).toMatchObject({ continuousA: 35, burstA: 70 })
  })
  it('is not to be had on a pack that collapses under it', () => {
    const weak = line('pack', { resistanceMohm: 200 }, { pack: { ...facts, cells: 1, capacityMah: 100 } })
    expect(fullThrottleOf([weak, line('motor', { maxCurrentA: 7 }, { quantity: 4 })], weak)).toBe('collapses')
  })
  it('is one truth for Fit and Packs: in every loadout of the demo both name the same amps and the same limits', () => {
    let [compared, held] = [0, 0]
    for (const build of demo) {
      for (const choice of allLoadouts(build)) {
        const lines = countedLines(build, choice)
        const flown = lines.find(l => l.id === choice.packLineId)
        const { forecast } = sheetFlight(build, choice, 240, build.flying ?? blankFlightPlan)
        if (!flown?.pack || !forecast?.start || forecast.why !== null) continue
        const full = fullThrottleOf(lines, flown, build.flying ?? undefined)
        expect(forecast.start).toEqual(full)
        // What Fit says of this loadout alone.
        const alone: Build = { ...build, neverFlown: allLoadouts(build).filter(c => c !== choice) }
        const fit = fitReport(alone, choice, noGear)
        const words = [...fit.fits.map(f => f.words), ...fit.findings.map(f => `${f.title} ${f.sentence}`)].join(' ')
        for (const bearing of bearingsOf(lines, flown)) {
          const link = forecast.links.find(l => l.lineId === bearing.lineId && l.name === bearing.part)!
          expect(link.burstA).toBe(bearing.burstA ?? bearing.continuousA)
          const figure = (value: number) => `${Number(value.toFixed(value < 10 ? 2 : 1))} A`
          if (words.includes(bearing.name)) {
            expect(words).toContain(figure(link.fullA!))
            held++
          }
          compared++
        }
      }
    }
    expect(compared).toBeGreaterThan(15)
    expect(held).toBeGreaterThan(8)
  })
})

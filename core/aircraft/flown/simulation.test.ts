import { describe, expect, it } from 'vitest'
import { chanceOf, coverageFactor95, quantile, type Chance } from '../../maths/numbers'
import { discharge, efficiencySpread, openCircuitV, styleFactors, type PackModel } from '../power'
import { Calibration, chargeUsed, meanPowerW, powerAtW, uOneFlight, type FlownFlight, type LnKappa } from './index'

const between = ({ uniform }: Chance, low: number, high: number) => low + (high - low) * uniform()

const styles = ['cruise', 'freestyle', 'race'] as const

/** One made-up craft with the truth of its efficiency and style, and how it is flown. */
function craftOf(random: Chance, seed: number) {
  const style = styles[seed % styles.length]!
  const { usual, hard, gentle } = styleFactors[style]
  const efficiency = [0.28, 0.33, 0.38, 0.45][seed % 4]!
  const uEta = efficiencySpread / coverageFactor95 / Math.SQRT2
  const uStyle = Math.log(hard / gentle) / (2 * coverageFactor95)
  const lnKappa = Math.log(usual / efficiency) + uEta * (random.normal() + random.normal()) + uStyle * random.normal()
  const capacityMah = between(random, 450, 1500)
  const pack: PackModel = {
    cells: 3 + (seed % 3),
    chemistry: 'LiPo',
    capacityMah,
    cellResistanceMohm: between(random, 4000, 8000) / capacityMah,
  }
  // Such a weight that the pack lasts some minutes.
  const idealW = (capacityMah * pack.cells * between(random, 0.0055, 0.011) * 3.7) / styleFactors[style].usual
  return { style, efficiency, lnKappa, pack, idealW, avionicsW: between(random, 4, 12) }
}

/** One flight to some charge: what was true of it, and what is said of it with the usual errors. */
function fly(random: Chance, craft: ReturnType<typeof craftOf>, id: string, evidence: number) {
  const { pack, idealW, avionicsW } = craft
  const powerW = avionicsW + idealW * Math.exp(craft.lnKappa + uOneFlight * random.normal())
  const endCharge = between(random, 0.12, 0.35)
  const flown = discharge(pack, { powerW, startCharge: 1, cutOffCellV: 0, reserve: endCharge })
  const seconds = Math.round(flown.timeS)
  const usedMah = flown.consumedMah
  const restV = openCircuitV('LiPo', endCharge)
  const said = [
    { putBackMah: (usedMah / 0.99) * (1 + 0.015 * random.normal()) },
    { loggedMah: usedMah * (1 + 0.025 * random.normal()) },
    { landing: { cellV: restV + 0.02 * random.normal(), load: null, isFresh: false } },
  ][evidence]!
  const used = chargeUsed(pack, { mah: pack.capacityMah, uMah: 0 }, 1, {
    putBackMah: null,
    loggedMah: null,
    landing: null,
    isLandingSpent: false,
    ...said,
  })
  const toCharge = 1 - used.mah / pack.capacityMah
  const flight: FlownFlight = {
    id,
    at: id,
    buildId: 'b',
    drive: 'd',
    style: craft.style,
    efficiency: craft.efficiency,
    idealW,
    avionicsW,
    powerW: toCharge >= 0 && toCharge < 1 ? meanPowerW(pack, 1, toCharge, seconds) : null,
    uCharge: used.uMah / used.mah,
    uTime: 0.5 / Math.sqrt(3) / seconds,
    isTakenIn: false,
  }
  return { flight, endedBy: flown.endedBy, endCharge, seconds }
}

const median = (values: readonly number[]) =>
  quantile(
    [...values].sort((a, b) => a - b),
    0.5,
  )

describe('500 made-up craft with twelve flights each', () => {
  it('the next flight lies in its band as often as it should, and the band narrows as flights come in', () => {
    let [forecasts, inside, good, goodHeld, wrong, wrongHeld, skipped] = [0, 0, 0, 0, 0, 0, 0]
    const widths: Record<string, number[]> = { next1: [], next5: [], middle1: [], middle5: [] }
    for (let seed = 0; seed < 520; seed++) {
      const random = chanceOf(seed * 7919 + 1)
      const craft = craftOf(random, seed)
      const { pack, idealW, avionicsW, efficiency, style } = craft
      const flying = { buildId: 'b', drive: 'd', style, efficiency }
      const flights: FlownFlight[] = []
      const before = new Calibration([]).lnKappa(flying)
      for (let n = 0; n < 13; n++) {
        const told = new Calibration(flights)
        const known = told.lnKappa(flying)
        if (n === 1 || n === 5) note(widths, n, known, before)
        const next = fly(random, craft, String(n).padStart(2, '0'), (seed + n) % 3)
        if (next.endedBy !== 'reserve' || next.flight.powerW === null) {
          skipped++
          continue
        }
        const minutesAt = (z: number) =>
          discharge(pack, {
            powerW: powerAtW(known, idealW, avionicsW, z),
            startCharge: 1,
            cutOffCellV: 0,
            reserve: next.endCharge,
          }).timeS
        forecasts++
        if (next.seconds >= minutesAt(coverageFactor95) - 0.5 && next.seconds <= minutesAt(-coverageFactor95) + 0.5)
          inside++
        flights.push(next.flight)
        good++
        if (new Calibration(flights).held.some(({ id }) => id === next.flight.id)) goodHeld++
        if (n === 5) {
          const off = withMinutes(next.flight, pack, next, random.uniform() < 0.5 ? 2.5 : 1 / 2.5)
          wrong++
          if (new Calibration([...flights.slice(0, -1), off]).held.some(({ id }) => id === off.id)) wrongHeld++
        }
      }
    }
    expect(skipped).toBeLessThan(200)
    expect(forecasts).toBeGreaterThanOrEqual(6000)
    expect(inside / forecasts).toBeGreaterThan(0.935)
    expect(inside / forecasts).toBeLessThan(0.965)
    expect(median(widths.next1!)).toBeLessThanOrEqual(0.8)
    expect(median(widths.next5!)).toBeLessThanOrEqual(0.68)
    expect(median(widths.middle1!)).toBeLessThanOrEqual(0.66)
    expect(median(widths.middle5!)).toBeLessThanOrEqual(0.37)
    expect(goodHeld / good).toBeLessThanOrEqual(0.04)
    expect(wrong).toBeGreaterThan(450)
    expect(wrongHeld / wrong).toBeGreaterThanOrEqual(0.95)
  }, 180_000)
})

/** Widths of the bands against those without flights, as logarithms. */
function note(widths: Record<string, number[]>, n: number, known: LnKappa, before: LnKappa): void {
  widths[`next${n}`]!.push(Math.hypot(known.u, uOneFlight) / Math.hypot(before.u, uOneFlight))
  widths[`middle${n}`]!.push(known.u / before.u)
}

/** The same flight with its minutes noted wrong by a factor. */
function withMinutes(
  flight: FlownFlight,
  pack: PackModel,
  { endCharge, seconds }: { readonly endCharge: number; readonly seconds: number },
  factor: number,
): FlownFlight {
  return { ...flight, powerW: meanPowerW(pack, 1, endCharge, seconds * factor) }
}

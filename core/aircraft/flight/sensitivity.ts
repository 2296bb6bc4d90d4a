import type { Build, LoadoutChoice } from '../../model/ledger'
import { countedLines } from '../../mass/loadout'
import type { TaughtPlan } from '../flown'
import { craftOf } from '../currents'
import { minutesOf } from './forecast'
import type { LoadoutCell, SheetFlight } from './loadout-matrix'

/** What grams and minutes are worth to each other at one loadout. */
export interface Worth {
  /** Seconds one gram more costs (and one gram less brings). */
  readonly secondsPerGram: number
  /** Grams to take off for one minute more; null where no weight off would bring it. */
  readonly gramsForOneMinute: number | null
  /** Seconds a frame lighter by a tenth brings; null without a frame that weighs something. */
  readonly lighterFrame: { readonly gramsG: number; readonly seconds: number } | null
  /** Seconds a tenth more capacity brings when its grams come along at this pack's own mAh/g. */
  readonly biggerPack: { readonly mah: number; readonly gramsG: number; readonly seconds: number }
}

/** Small sensitivities at one loadout of `massG` grams; null while minutes cannot be told. `gramsOf` gives the grams of a line. */
export function worthOf(
  build: Build,
  choice: LoadoutChoice,
  massG: number,
  plan: TaughtPlan,
  gramsOf: (lineId: string) => number,
): Worth | null {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  if (!pack?.pack || !(massG > 1)) return null
  const craft = craftOf(lines, pack, plan)
  if ('missing' in craft) return null
  const at = (grams: number, capacity = 1) => 60 * minutesOf(craft, pack, grams, plan, capacity)
  const now = at(massG)
  if (now === 0) return null
  const frameG = lines.filter(line => line.slot === 'frame').reduce((sum, line) => sum + gramsOf(line.id), 0) / 10
  const packG = gramsOf(pack.id) / 10
  return {
    secondsPerGram: at(massG - 0.5) - at(massG + 0.5),
    gramsForOneMinute: gramsFor(massG, now + 60, at),
    lighterFrame: frameG > 0 ? { gramsG: frameG, seconds: at(massG - frameG) - now } : null,
    biggerPack: { mah: pack.pack.capacityMah / 10, gramsG: packG, seconds: at(massG + packG, 1.1) - now },
  }
}

function gramsFor(massG: number, wantedS: number, at: (grams: number) => number): number | null {
  let [low, high] = [1, massG]
  if (at(low) < wantedS) return null
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    if (at(middle) >= wantedS) low = middle
    else high = middle
  }
  return massG - (low + high) / 2
}

/**
 * How much longer one loadout flies than another, as a share: usual, and the range over gentle and hard flying, in
 * which most of the doubt cancels.
 */
export interface LongerBy {
  readonly share: number
  readonly from: number
  readonly to: number
}
export function longerBy(mine: SheetFlight, other: SheetFlight): LongerBy | null {
  const [a, b] = [mine.forecast, other.forecast]
  if (!a || !b || b.minutes === 0 || b.hardMinutes === 0 || a.minutes === 0) return null
  const shares = [a.minutes / b.minutes, a.gentleMinutes / b.gentleMinutes, a.hardMinutes / b.hardMinutes]
  return { share: shares[0]! - 1, from: Math.min(...shares) - 1, to: Math.max(...shares) - 1 }
}

/**
 * Loadouts that are Clear with the reserve under every card and beaten by no other Clear one in both weight and a
 * second figure: the best under the limit, lightest first.
 */
export function frontierOf(cells: readonly LoadoutCell[], figure: (key: string) => number | null): LoadoutCell[] {
  const clear = cells
    .filter(cell => !cell.never && cell.intoReserveG === 0 && figure(cell.key) !== null)
    .sort((a, b) => a.massG - b.massG || figure(b.key)! - figure(a.key)!)
  let best = -Infinity
  return clear.filter(cell => {
    const better = figure(cell.key)! > best
    if (better) best = figure(cell.key)!
    return better
  })
}

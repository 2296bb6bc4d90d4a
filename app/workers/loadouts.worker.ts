import { sheetFlights, type LoadoutCell, type SheetFlight } from '#core/aircraft/flight'
import type { GroundGear } from '#core/aircraft/fit'
import type { Build } from '#core/model/ledger'
import type { TaughtPlan } from '#core/aircraft/flown'

/** Loadouts whose flights are wanted; `fits` also asks whether their packs fit. A newer request takes the place of an older one. */
export interface FlightsRequest {
  readonly number: number
  readonly build: Build
  readonly plan: TaughtPlan
  readonly gear: GroundGear | null
  readonly cells: readonly Pick<LoadoutCell, 'key' | 'choice' | 'massG' | 'pack' | 'source'>[]
}
export interface LoadoutFlights {
  readonly number: number
  readonly flights: readonly SheetFlight[]
  readonly done: number
  readonly of: number
}

const atOnce = 60
let wanted = 0

addEventListener('message', ({ data }: MessageEvent<FlightsRequest>) => {
  wanted = data.number
  void answer(data)
})

/** Works in slices and lets newer requests in between them, so that what nobody waits for any more is given up. */
async function answer({ number, build, plan, gear, cells }: FlightsRequest) {
  for (let at = 0; at < cells.length || at === 0; at += atOnce) {
    if (number !== wanted) return
    const flights = sheetFlights(build, cells.slice(at, at + atOnce), plan, gear)
    postMessage({
      number,
      flights,
      done: Math.min(at + atOnce, cells.length),
      of: cells.length,
    } satisfies LoadoutFlights)
    await new Promise(done => setTimeout(done))
  }
}

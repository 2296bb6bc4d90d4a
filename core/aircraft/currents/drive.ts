import type { Line } from '../../model/ledger'
import { measureOf } from '../../model/properties'

/** What tells motors and props apart; where nothing of it is known, their name has to. */
const told = {
  motor: ['kv', 'statorDiameterMm', 'statorHeightMm'],
  propeller: ['diameterMm', 'pitchMm', 'blades'],
} as const

function wordOf(line: Line): string {
  const measures = told[line.slot as keyof typeof told].map(key => measureOf(line, key) ?? null)
  return JSON.stringify(measures.some(one => one !== null) ? [line.slot, ...measures] : [line.slot, line.name])
}

/** Motors, props and cells of a loadout in one word: equal where the drive is. */
export function driveOf(lines: readonly Line[], pack: Line): string {
  const words = lines.filter(line => line.slot in told).map(wordOf)
  return [...new Set(words)]
    .sort()
    .concat(`${pack.pack?.cells ?? '?'} cells`)
    .join(' ')
}

import type { LoadoutCell } from '#core/aircraft/flight'
import { loadoutsWords } from '~/utils/loadout-words'
import { withoutParts, type Station, type StationStatus } from './station'

/** Red only where something is over that nobody has decided to fly so. */
function toneOfLoadouts(cells: readonly LoadoutCell[]): StationStatus['tone'] {
  const judged = cells.filter(cell => !cell.never && cell.binding?.verdict)
  if (judged.length === 0) return 'quiet'
  if (judged.every(cell => cell.intoReserveG === 0 || cell.onPurpose)) return 'good'
  return judged.some(cell => cell.intoReserveG === 0) ? 'mid' : 'bad'
}

export const packs: Station = {
  number: 6,
  key: '6',
  name: 'Packs',
  page: 'packs',
  question: 'With which packs, props and payloads am I clear, for how many minutes, with how much thrust?',
  purpose:
    'Every pack with every set-up: clear or not, for how many minutes, with how much thrust, and what to take to the field.',
  missing: ({ build }) => (build.lines.some(line => line.slot === 'pack') ? [] : ['a pack']),
  status: ({ loadouts }) => ({ line: loadoutsWords(loadouts), tone: toneOfLoadouts(loadouts) }),
  foldsAway: withoutParts,
}

import type { Slot } from '../../model/data'
import type { Build, Line } from '../../model/ledger'

/** Parts whose flights are counted. */
export const lifeSlots = [
  'frame',
  'motor',
  'propeller',
  'pack',
  'board',
  'speed controller',
  'camera',
  'video transmitter',
  'strap',
] as const satisfies readonly Slot[]
export type LifeSlot = (typeof lifeSlots)[number]

/** A part as it was on a flight. The key is the same on whichever craft it flies; another piece in its place has another. */
export interface FlownPart {
  readonly key: string
  readonly slot: LifeSlot
  readonly name: string
}

const isLifeSlot = (slot: Slot): slot is LifeSlot => (lifeSlots as readonly Slot[]).includes(slot)

export const partKeyOf = (build: Pick<Build, 'id'>, { id, partId, edition }: Pick<Line, 'id' | 'partId' | 'edition'>) =>
  `${partId ?? `${build.id}/${id}`}#${edition}`

/** The parts of a loadout whose flights are counted. */
export function flownParts(build: Build, lines: readonly Line[]): FlownPart[] {
  return lines.flatMap(line =>
    isLifeSlot(line.slot)
      ? [{ key: partKeyOf(build, line), slot: line.slot, name: line.pack?.label || line.name }]
      : [],
  )
}

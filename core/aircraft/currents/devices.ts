import { feedOf, drawAt, isPowered, regulatorEfficiency } from '../wiring'
import type { Line, Slot } from '../../model/ledger'
import { openCircuitV } from '../power'
import { outputsOf, propertiesOfLine, textOf } from '../../model/properties'

/** What a device takes from the pack, losses of the regulators on the way included. */
export interface DeviceWatts {
  readonly lineId: string
  readonly name: string
  readonly watts: number
  readonly from: 'said' | 'typical'
}

/** Watts of devices nobody has said anything about, by slot. */
function typicalWatts(line: Line, slot: Slot): number {
  switch (slot) {
    case 'board':
      return 0.8
    case 'receiver':
      return 0.3
    case 'camera':
      return 0.8
    case 'navigation':
      return 0.4
    case 'video transmitter':
      return /digital/i.test(textOf(line, 'videoFamily') ?? line.name) ? 8 : 2.5
    default:
      return 0
  }
}

/** Volts of a pack half full: what devices on the pack's own volts see for most of a flight. */
export function nominalPackV(pack: Line): number {
  return pack.pack ? pack.pack.cells * openCircuitV(pack.pack.chemistry, 0.5) : 0
}

/** The watts of every powered device on board, motors apart. A device whose feed nobody has said is taken as fed through one regulator. */
export function deviceWatts(lines: readonly Line[], pack: Line): DeviceWatts[] {
  const packV = nominalPackV(pack)
  return lines.flatMap((line): DeviceWatts[] => {
    if (line.slot === 'motor' || line.slot === 'pack' || line.slot === 'capacitor' || !isPowered(line)) return []
    const { volts, efficiency } = feedAt(line, lines, packV)
    const drawn = drawAt(line, volts)
    if (drawn !== null)
      return [{ lineId: line.id, name: line.name, watts: (line.quantity * drawn * volts) / efficiency, from: 'said' }]
    const also = (propertiesOfLine(line).provides ?? []) as readonly Slot[]
    const watts = [line.slot, ...also].reduce((sum, slot) => sum + typicalWatts(line, slot), 0)
    return watts === 0 ? [] : [{ lineId: line.id, name: line.name, watts: line.quantity * watts, from: 'typical' }]
  })
}

/** Volts where a device hangs and the share of the pack's power that gets there. */
function feedAt(line: Line, lines: readonly Line[], packV: number): { volts: number; efficiency: number } {
  const feed = feedOf(line, lines)
  if (!feed) return { volts: 5, efficiency: regulatorEfficiency }
  if (feed.from === 'pack' || feed.from === 'balance') return { volts: packV, efficiency: 1 }
  let [volts, efficiency, at, seen]: [number | null, number, typeof feed | null, number] = [null, 1, feed, 0]
  while (at && at.from !== 'pack' && at.from !== 'balance' && seen++ < 12) {
    const source: Line | undefined = lines.find(l => l.id === at!.from)
    const output = source && outputsOf(source).find(o => o.name === at!.output)
    if (output) {
      volts ??= output.volts
      efficiency *= regulatorEfficiency
    }
    at = source ? feedOf(source, lines) : null
  }
  return { volts: volts ?? packV, efficiency }
}

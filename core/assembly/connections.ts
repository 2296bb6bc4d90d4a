import { electricalTree, feedNodeOf, feedOf, isPowered, shortName } from '../wiring'
import { planWires, type PlannedWire } from '../fit/wires'
import type { Build, Line, LoadoutChoice, Slot } from '../ledger'
import { countedLines } from '../loadout'
import { measureOf, outputsOf, textOf } from '../properties'

/** One wire of the connection table: from a pad, in a colour, to a pin. */
export interface Connection {
  readonly from: string
  readonly pad: string
  readonly colour: string
  readonly to: string
  readonly pin: string
  readonly volts: string
  /** Gauge, length to cut and grams; null where the wire plan has no lead for it. */
  readonly lead: PlannedWire | null
}

const volts = (low: number, high: number) => low === high ? `${Number(low.toFixed(1))} V` : `${Number(low.toFixed(1))}–${Number(high.toFixed(1))} V`

/** What goes one way and back beside the supply, by kind. Colours are the common ones; the part's own paper decides. */
const signals: Partial<Record<Slot, readonly (readonly [pad: string, colour: string, pin: string])[]>> = {
  'receiver': [['receive (RX)', 'white', 'transmit (TX)'], ['transmit (TX)', 'green', 'receive (RX)']],
  'navigation': [['receive (RX)', 'white', 'transmit (TX)'], ['transmit (TX)', 'green', 'receive (RX)']],
  'video transmitter': [['transmit (TX)', 'blue', 'control']],
  'sounder': [['sounder −', 'white', '−']],
}

/** Every wire of a loadout by its feed: pad, colour, pin, volts, and the lead to cut where one is planned. */
export function connectionsOf(build: Build, choice: LoadoutChoice): Connection[] {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId) ?? null
  const tree = electricalTree(lines, pack)
  const wires = planWires(build.fit?.wires ?? []).rows
  const leadOf = (line: Line) => wires.find(({ wire }) => [wire.from, wire.to].some(end => end === line.slot || end === line.id || end === line.name)) ?? null
  const board = lines.find(line => line.slot === 'board') ?? lines.find(line => line.slot === 'speed controller')
  const boardName = board ? shortName(board) : 'board'
  const out: Connection[] = []
  const packVolts = tree.root.volts ? volts(tree.root.volts.lowV, tree.root.volts.highV) : ''
  for (const line of lines.filter(l => l.slot === 'power lead' || l.slot === 'capacitor')) {
    const name = shortName(line)
    const first = lines.find(l => l.slot === 'power distribution' || l.slot === 'speed controller') ?? board
    const from = first ? shortName(first) : boardName
    out.push({ from, pad: 'battery +', colour: 'red', to: name, pin: line.slot === 'capacitor' ? 'long leg, +' : '+', volts: packVolts, lead: line.slot === 'power lead' ? leadOf(line) : null })
    out.push({ from, pad: 'battery −', colour: 'black', to: name, pin: line.slot === 'capacitor' ? 'stripe, −' : '−', volts: '0 V', lead: null })
  }
  for (const line of lines.filter(l => l.slot === 'motor')) {
    const speed = lines.find(l => l.slot === 'speed controller') ?? board
    const plug = textOf(line, 'plug')
    out.push({ from: speed ? shortName(speed) : boardName, pad: `motor pads, ${line.quantity} × 3`, colour: 'any order', to: shortName(line), pin: plug ? `plug, ${plug}` : 'three leads each', volts: 'phases', lead: wires.find(({ wire }) => /motor/i.test(`${wire.name} ${wire.from} ${wire.to}`)) ?? leadOf(line) })
  }
  for (const line of lines.filter(l => isPowered(l) && !['motor', 'board', 'speed controller', 'power distribution'].includes(l.slot))) {
    const feed = feedOf(line, lines)
    const node = feedNodeOf(tree, line.id)
    const source = feed && feed.from !== 'pack' && feed.from !== 'balance' ? lines.find(l => l.id === feed.from) : null
    const from = source ? shortName(source) : feed?.from === 'balance' ? 'balance lead' : feed ? boardName : 'not said'
    const [low, high] = [measureOf(line, 'voltsMin'), measureOf(line, 'voltsMax')]
    const bears = low !== undefined && high !== undefined ? `, bears ${volts(low, high)}` : ''
    const lead = leadOf(line)
    out.push({ from, pad: feed ? feed.output || (feed.from === 'pack' ? 'battery +' : '+') : '?', colour: 'red', to: shortName(line), pin: '+', volts: node?.volts ? `${volts(node.volts.lowV, node.volts.highV)}${bears}` : `not known${bears}`, lead })
    out.push({ from, pad: 'ground', colour: 'black', to: shortName(line), pin: '−', volts: '0 V', lead })
    for (const [pad, colour, pin] of signals[line.slot] ?? []) out.push({ from: boardName, pad, colour, to: shortName(line), pin, volts: 'signal', lead })
  }
  for (const line of lines.filter(l => l.slot === 'camera')) {
    const unit = lines.find(l => l.slot === 'video transmitter') ?? board
    const cable = unit !== undefined && outputsOf(unit).some(output => /camera/i.test(output.name))
    out.push(cable ? { from: shortName(unit), pad: 'camera socket', colour: 'ready cable', to: shortName(line), pin: 'plug', volts: 'signal', lead: null } : { from: unit ? shortName(unit) : boardName, pad: 'video in', colour: 'yellow', to: shortName(line), pin: 'video out', volts: 'signal', lead: leadOf(line) })
  }
  return out
}

import { electricalTree, feedNodeOf, feedOf, isPowered, shortName } from '../../aircraft/wiring'
import { planWires, type PlannedWire } from '../../aircraft/fit'
import type { Build, Line, LoadoutChoice, Slot } from '../../model/ledger'
import { countedLines } from '../../mass/loadout'
import { measureOf, outputsOf, propertiesOfLine, textOf } from '../../model/properties'

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
  /** The leads it came with, as the part itself says; null where the plan has one, or nobody has said. */
  readonly itsOwn: { readonly awg: number | null; readonly lengthMm: number | null } | null
  /** Why this wire must not be connected so; null where nothing speaks against it. */
  readonly clash: string | null
}

const volts = (low: number, high: number) =>
  low === high ? `${Number(low.toFixed(1))} V` : `${Number(low.toFixed(1))}–${Number(high.toFixed(1))} V`

/** What goes one way and back beside the supply, by kind. Colours are the common ones; the part's own paper decides. */
const signals: Partial<Record<Slot, readonly (readonly [pad: string, colour: string, pin: string])[]>> = {
  receiver: [
    ['receive (RX)', 'white', 'transmit (TX)'],
    ['transmit (TX)', 'green', 'receive (RX)'],
  ],
  navigation: [
    ['receive (RX)', 'white', 'transmit (TX)'],
    ['transmit (TX)', 'green', 'receive (RX)'],
  ],
  'video transmitter': [['transmit (TX)', 'blue', 'control']],
  sounder: [['sounder −', 'white', '−']],
}

/** Every wire of a loadout by its feed: pad, colour, pin, volts, and the lead to cut where one is planned. */
export function connectionsOf(build: Build, choice: LoadoutChoice): Connection[] {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId) ?? null
  const tree = electricalTree(lines, pack)
  const wires = planWires(build.fit?.wires ?? []).rows
  const leadOf = (line: Line) =>
    wires.find(({ wire }) =>
      [wire.from, wire.to].some(end => end === line.slot || end === line.id || end === line.name),
    ) ?? null
  const board = lines.find(line => line.slot === 'board') ?? lines.find(line => line.slot === 'speed controller')
  const boardName = board ? shortName(board) : 'board'
  const out: Connection[] = []
  const put = (row: Omit<Connection, 'itsOwn' | 'clash'> & Partial<Connection>) => {
    out.push({ itsOwn: null, clash: null, ...row })
  }
  const packVolts = tree.root.volts ? volts(tree.root.volts.lowV, tree.root.volts.highV) : ''
  for (const line of lines.filter(l => l.slot === 'power lead' || l.slot === 'capacitor')) {
    const name = shortName(line)
    const first = lines.find(l => l.slot === 'power distribution' || l.slot === 'speed controller') ?? board
    const from = first ? shortName(first) : boardName
    put({
      from,
      pad: 'battery +',
      colour: 'red',
      to: name,
      pin: line.slot === 'capacitor' ? 'long leg, +' : '+',
      volts: packVolts,
      lead: line.slot === 'power lead' ? leadOf(line) : null,
    })
    put({
      from,
      pad: 'battery −',
      colour: 'black',
      to: name,
      pin: line.slot === 'capacitor' ? 'stripe, −' : '−',
      volts: '0 V',
      lead: null,
    })
  }
  for (const line of lines.filter(l => l.slot === 'motor')) {
    const speed = lines.find(l => l.slot === 'speed controller') ?? board
    const plug = textOf(line, 'plug')
    const planned =
      wires.find(({ wire }) => wire.from === 'motors' || wire.to === 'motors' || /motor/i.test(wire.name)) ??
      leadOf(line)
    const [awg, lengthMm] = [measureOf(line, 'leadAwg') ?? null, measureOf(line, 'leadLengthMm') ?? null]
    const itsOwn = awg === null && lengthMm === null ? null : { awg, lengthMm }
    put({
      from: speed ? shortName(speed) : boardName,
      pad: `motor pads, ${line.quantity} × 3`,
      colour: 'any order',
      to: shortName(line),
      pin: plug ? `plug, ${plug}` : 'three leads each',
      volts: 'phases',
      lead: planned,
      itsOwn: planned ? null : itsOwn,
    })
  }
  for (const line of lines.filter(
    l => isPowered(l) && !['motor', 'board', 'speed controller', 'power distribution'].includes(l.slot),
  )) {
    const feed = feedOf(line, lines)
    const node = feedNodeOf(tree, line.id)
    const source = feed && feed.from !== 'pack' && feed.from !== 'balance' ? lines.find(l => l.id === feed.from) : null
    const from = source ? shortName(source) : feed?.from === 'balance' ? 'balance lead' : feed ? boardName : 'not said'
    const [low, high] = [measureOf(line, 'voltsMin'), measureOf(line, 'voltsMax')]
    const bears = low !== undefined && high !== undefined ? `, bears ${volts(low, high)}` : ''
    const lead = leadOf(line)
    const clash = clashOf(node?.volts ?? null, low, high)
    put({
      from,
      pad: feed ? feed.output || (feed.from === 'pack' ? 'battery +' : '+') : '?',
      colour: 'red',
      to: shortName(line),
      pin: '+',
      volts: node?.volts ? `${volts(node.volts.lowV, node.volts.highV)}${bears}` : `not known${bears}`,
      lead,
      clash,
    })
    put({ from, pad: 'ground', colour: 'black', to: shortName(line), pin: '−', volts: '0 V', lead })
    for (const [pad, colour, pin] of signals[line.slot] ?? [])
      put({ from: boardName, pad, colour, to: shortName(line), pin, volts: 'signal', lead })
  }
  for (const camera of lines.filter(l => l.slot === 'camera')) {
    const unit = lines.find(l => l.slot === 'video transmitter') ?? null
    for (const row of pictureOf(camera, unit, board ?? null))
      put({ ...row, volts: 'signal', lead: row.colour === 'yellow' ? leadOf(camera) : null })
  }
  return out
}

/** Why a feed and what a device bears do not go together; null where they do, or nobody knows. */
function clashOf(
  at: { readonly lowV: number; readonly highV: number } | null,
  low: number | undefined,
  high: number | undefined,
): string | null {
  if (!at) return null
  if (high !== undefined && at.highV > high + 1e-9)
    return `${volts(at.highV, at.highV)} there, it bears ${volts(high, high)}: do not connect it there`
  if (low !== undefined && at.highV < low - 1e-9)
    return `${volts(at.highV, at.highV)} there, it wants ${volts(low, low)}: it will not start`
  return null
}

type Picture = Pick<Connection, 'from' | 'pad' | 'colour' | 'to' | 'pin'>
/** The way of the picture: on a ready cable in digital systems, else by wire, through the board where that lays its figures over it. */
function pictureOf(camera: Line, unit: Line | null, board: Line | null): Picture[] {
  const to = shortName(camera)
  const sender = unit ?? board
  const digital =
    [camera, ...(unit ? [unit] : [])].some(line => /digital/i.test(textOf(line, 'videoFamily') ?? '')) ||
    (sender !== null && outputsOf(sender).some(output => /camera/i.test(output.name)))
  if (digital)
    return [
      { from: sender ? shortName(sender) : 'not said', pad: 'camera socket', colour: 'ready cable', to, pin: 'plug' },
    ]
  const wire = (from: string, pad: string, end: string, pin: string): Picture => ({
    from,
    pad,
    colour: 'yellow',
    to: end,
    pin,
  })
  if (board && unit && propertiesOfLine(board).laysFiguresOver === true)
    return [
      wire(shortName(board), 'video in', to, 'video out'),
      wire(shortName(board), 'video out', shortName(unit), 'video in'),
    ]
  return [wire(sender ? shortName(sender) : 'not said', 'video in', to, 'video out')]
}

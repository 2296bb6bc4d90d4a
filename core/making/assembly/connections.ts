import { figure } from '../../text/display'
import { electricalTree, feedNodeOf, feedOf, isPowered, shortName, type ElectricalTree } from '../../aircraft/wiring'
import { planWires, type PlannedWire } from '../../aircraft/fit'
import { endsAtMotors } from '../../model/data'
import type { Build, Feed, Line, LoadoutChoice, Slot } from '../../model/ledger'
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
  low === high ? `${figure(low, 1)} V` : `${figure(low, 1)}–${figure(high, 1)} V`

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

type Row = Omit<Connection, 'itsOwn' | 'clash'> & Partial<Connection>

/** One loadout on the bench: what is on board, how it is fed, the leads that are planned. */
class Bench {
  readonly lines: readonly Line[]
  private readonly tree: ElectricalTree
  private readonly wires: readonly PlannedWire[]
  private readonly board: Line | undefined
  private readonly boardName: string

  constructor(build: Build, choice: LoadoutChoice) {
    this.lines = countedLines(build, choice)
    this.tree = electricalTree(this.lines, this.lines.find(line => line.id === choice.packLineId) ?? null)
    this.wires = planWires(build.fit?.wires ?? []).rows
    this.board = this.first('board') ?? this.first('speed controller')
    this.boardName = this.board ? shortName(this.board) : 'board'
  }

  private first(...slots: readonly Slot[]): Line | undefined {
    return this.lines.find(line => slots.includes(line.slot))
  }
  private leadOf(line: Line): PlannedWire | null {
    const isEnd = (end: string) => end === line.slot || end === line.id || end === line.name
    return this.wires.find(({ wire }) => isEnd(wire.from) || isEnd(wire.to)) ?? null
  }

  /** The pack’s lead, and the capacitor beside it. */
  supply(line: Line): Row[] {
    const first = this.first('power distribution', 'speed controller') ?? this.board
    const from = first ? shortName(first) : this.boardName
    const to = shortName(line)
    const isCapacitor = line.slot === 'capacitor'
    const { volts: at } = this.tree.root
    const lead = isCapacitor ? null : this.leadOf(line)
    const full = at ? volts(at.lowV, at.highV) : ''
    return [
      { from, pad: 'battery +', colour: 'red', to, pin: isCapacitor ? 'long leg, +' : '+', volts: full, lead },
      { from, pad: 'battery −', colour: 'black', to, pin: isCapacitor ? 'stripe, −' : '−', volts: '0 V', lead: null },
    ]
  }

  motor(line: Line): Row[] {
    const speed = this.first('speed controller') ?? this.board
    const plug = textOf(line, 'plug')
    const lead = this.wires.find(({ wire }) => endsAtMotors(wire)) ?? this.leadOf(line)
    const [awg, lengthMm] = [measureOf(line, 'leadAwg') ?? null, measureOf(line, 'leadLengthMm') ?? null]
    return [
      {
        from: speed ? shortName(speed) : this.boardName,
        pad: `motor pads, ${line.quantity} × 3`,
        colour: 'any order',
        to: shortName(line),
        pin: plug ? `plug, ${plug}` : 'three leads each',
        volts: 'phases',
        lead,
        itsOwn: lead || (awg === null && lengthMm === null) ? null : { awg, lengthMm },
      },
    ]
  }

  device(line: Line): Row[] {
    const feed = feedOf(line, this.lines)
    const at = feedNodeOf(this.tree, line.id)?.volts ?? null
    const [low, high] = [measureOf(line, 'voltsMin'), measureOf(line, 'voltsMax')]
    const bears = low !== undefined && high !== undefined ? `, bears ${volts(low, high)}` : ''
    const [from, to, lead] = [this.sourceName(feed), shortName(line), this.leadOf(line)]
    const pad = feed ? feed.output || (feed.from === 'pack' ? 'battery +' : '+') : '?'
    const there = at ? volts(at.lowV, at.highV) : 'not known'
    const clash = clashOf(at, low, high)
    return [
      { from, pad, colour: 'red', to, pin: '+', volts: `${there}${bears}`, lead, clash },
      { from, pad: 'ground', colour: 'black', to, pin: '−', volts: '0 V', lead },
      ...(signals[line.slot] ?? []).map(([pad, colour, pin]) => ({
        from: this.boardName,
        pad,
        colour,
        to,
        pin,
        volts: 'signal',
        lead,
      })),
    ]
  }

  camera(line: Line): Row[] {
    const unit = this.first('video transmitter') ?? null
    return pictureOf(line, unit, this.board ?? null).map(row => ({
      ...row,
      volts: 'signal',
      lead: row.colour === 'yellow' ? this.leadOf(line) : null,
    }))
  }

  private sourceName(feed: Feed | null): string {
    if (!feed) return 'not said'
    if (feed.from === 'balance') return 'balance lead'
    const source = feed.from === 'pack' ? undefined : this.lines.find(line => line.id === feed.from)
    return source ? shortName(source) : this.boardName
  }
}

const suppliers: readonly Slot[] = ['motor', 'board', 'speed controller', 'power distribution']

/** Every wire of a loadout by its feed: pad, colour, pin, volts, and the lead to cut where one is planned. */
export function connectionsOf(build: Build, choice: LoadoutChoice): Connection[] {
  const bench = new Bench(build, choice)
  const of = (...slots: readonly Slot[]) => bench.lines.filter(line => slots.includes(line.slot))
  const devices = bench.lines.filter(line => isPowered(line) && !suppliers.includes(line.slot))
  const rows = [
    ...of('power lead', 'capacitor').flatMap(line => bench.supply(line)),
    ...of('motor').flatMap(line => bench.motor(line)),
    ...devices.flatMap(line => bench.device(line)),
    ...of('camera').flatMap(line => bench.camera(line)),
  ]
  return rows.map(row => ({ itsOwn: null, clash: null, ...row }))
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

import { figure } from '../../text/display'
import { packTitle, type Feed, type Line, type PackFacts } from '../../model/ledger'
import { emptyCellV, fullCellV } from '../power'
import {
  measureOf,
  outputsOf,
  poweredSlots,
  propertiesOfLine,
  providersOf,
  type PowerOutput,
} from '../../model/properties'

/** Volts from the emptiest to the fullest a feed can be. */
export interface Volts {
  readonly lowV: number
  readonly highV: number
}

export type PowerNodeKind = 'pack' | 'balance' | 'supplier' | 'output' | 'device'

/** A place in the electrical tree: the pack, a board, one of its outputs, or a device. */
export interface PowerNode {
  readonly id: string
  readonly kind: PowerNodeKind
  readonly name: string
  readonly lineId: string | null
  /** What arrives here. Null where the feed is not known. */
  readonly volts: Volts | null
  /** Amps asked for here, of those devices whose draw is known, at the volts of this place (the lowest). */
  readonly demandA: number
  /** What this place gives at most; null when nobody has said. */
  readonly capacityA: number | null
  /** Devices under this place whose draw is not known. */
  readonly unknownDraws: number
  readonly children: readonly PowerNode[]
}

/** How a pack's power reaches the devices of one loadout. */
export interface ElectricalTree {
  readonly root: PowerNode
  /** Powered lines whose feed nobody has said. */
  readonly unwired: readonly Line[]
  /** Lines that would feed themselves. */
  readonly looped: readonly Line[]
}

/** Step-down regulators of boards waste about this much. */
export const regulatorEfficiency = 0.85

export function packVolts(pack: PackFacts): Volts {
  return { lowV: pack.cells * emptyCellV(pack.chemistry), highV: pack.cells * fullCellV(pack.chemistry) }
}

const takesPack = ['board', 'speed controller', 'power distribution', 'capacitor', 'motor']
const isSupplier = (line: Line) => outputsOf(line).length > 0

/** Where a line's power comes from: as said, or the usual place where there is only one. Null when it must be asked. */
export function feedOf(line: Line, lines: readonly Line[]): Feed | null {
  const known = line.feed
  if (known && (known.from === 'pack' || known.from === 'balance')) return known
  if (known) {
    const source = lines.find(l => l.id === known.from)
    if (source && (known.output === '' || outputsOf(source).some(o => o.name === known.output))) return known
    return null
  }
  if (takesPack.includes(line.slot)) {
    const driver =
      line.slot === 'motor'
        ? (providersOf(lines, 'speed controller')[0] ?? lines.find(l => l.slot === 'board'))
        : undefined
    return driver ? { from: driver.id, output: '' } : { from: 'pack', output: '' }
  }
  return null
}

/** The first words of a name, up to its first comma. */
export const shortName = (named: { readonly name: string }) => named.name.split(',')[0]!

/** The feeds a device can be put on: the pack's own volts, the balance lead, every regulated output. */
export function feedsOnOffer(lines: readonly Line[], device: Line): { feed: Feed; name: string; volts: string }[] {
  const outputs = lines
    .filter(line => line.id !== device.id && isSupplier(line))
    .flatMap(line =>
      outputsOf(line).map(output => ({
        feed: { from: line.id, output: output.name },
        name: `${output.name} of the ${line.slot}`,
        volts: `${figure(output.volts, 2)} V`,
      })),
    )
  return [
    ...outputs,
    { feed: { from: 'pack', output: '' }, name: 'the pack’s own volts', volts: 'pack' },
    { feed: { from: 'balance', output: '' }, name: 'the balance lead', volts: 'pack' },
  ]
}

/** Whether a line is something that wants power and says so: by its slot, or by a draw of its own. */
export function isPowered(line: Line): boolean {
  const facts = propertiesOfLine(line)
  if (facts.selfPowered === true) return false
  if (line.slot === 'payload' || line.slot === 'sounder')
    return ['voltsMin', 'voltsMax', 'drawA', 'drawW'].some(key => key in facts)
  return poweredSlots.includes(line.slot) || (takesPack.includes(line.slot) && line.slot !== 'capacitor')
}

/** Amps a device draws at a feed of so many volts; null while nobody has said. */
export function drawAt(line: Line, volts: number): number | null {
  const amps = measureOf(line, 'drawA')
  if (amps !== undefined) return amps
  const watts = measureOf(line, 'drawW')
  return watts === undefined ? null : watts / volts
}

/** Whether a line hangs on the tree. Motors do not: their current is judged against the speed controller. */
const hangsOnTree = (line: Line) =>
  line.slot !== 'motor' && line.slot !== 'pack' && (isPowered(line) || line.slot === 'capacitor' || isSupplier(line))

/** Lines by the place their power comes from; those without one, and those that would feed themselves, apart. */
function byPlace(lines: readonly Line[]) {
  const on = new Map<string, Line[]>()
  const looped: Line[] = []
  const unwired: Line[] = []
  for (const line of lines.filter(hangsOnTree)) {
    const feed = feedOf(line, lines)
    if (!feed) unwired.push(line)
    else if (feedsItself(line, lines)) looped.push(line)
    else on.set(key(feed), [...(on.get(key(feed)) ?? []), line])
  }
  return { on, looped, unwired }
}

type OnPlaces = ReadonlyMap<string, readonly Line[]>
const under = (on: OnPlaces, place: string, at: Volts | null): PowerNode[] =>
  (on.get(place) ?? []).map(line => nodeOf(on, line, at))

function nodeOf(on: OnPlaces, line: Line, at: Volts | null): PowerNode {
  const outputs = outputsOf(line).map(output => outputNode(on, line, output))
  const direct = under(on, key({ from: line.id, output: '' }), at)
  const own = at ? drawAt(line, at.lowV) : (measureOf(line, 'drawA') ?? null)
  const regulated = at
    ? outputs.reduce((sum, node) => sum + (node.demandA * node.volts!.lowV) / (at.lowV * regulatorEfficiency), 0)
    : 0
  const children = [...outputs, ...direct]
  return {
    id: line.id,
    kind: children.length > 0 ? 'supplier' : 'device',
    name: line.name,
    lineId: line.id,
    volts: at,
    capacityA: null,
    children,
    demandA: (own ?? 0) + regulated + direct.reduce((sum, node) => sum + node.demandA, 0),
    unknownDraws: sumUnknown(children) + Number(own === null && outputs.length === 0 && line.slot !== 'capacitor'),
  }
}

function outputNode(on: OnPlaces, line: Line, output: PowerOutput): PowerNode {
  const at = { lowV: output.volts, highV: output.volts }
  const children = under(on, key({ from: line.id, output: output.name }), at)
  return {
    id: `${line.id}/${output.name}`,
    kind: 'output',
    name: output.name === `${output.volts} V` ? `${output.name} output` : `${output.name}, ${output.volts} V`,
    lineId: line.id,
    volts: at,
    capacityA: output.amps,
    children,
    demandA: sumDemand(children),
    unknownDraws: sumUnknown(children),
  }
}

/** Something that hands the pack's own volts on to its children, and no more. */
function handingOn(
  node: Pick<PowerNode, 'id' | 'kind' | 'name' | 'lineId' | 'volts'>,
  children: readonly PowerNode[],
): PowerNode {
  return { ...node, capacityA: null, children, demandA: sumDemand(children), unknownDraws: sumUnknown(children) }
}

/**
 * The tree of one loadout: pack, what hangs on it, regulated outputs, devices. `lines` are those on board. A line that
 * would feed itself is left out and named.
 */
export function electricalTree(lines: readonly Line[], pack: Line | null): ElectricalTree {
  const volts = pack?.pack ? packVolts(pack.pack) : null
  const { on, looped, unwired } = byPlace(lines)
  const balance = under(on, 'balance/', volts)
  const lead = { id: 'balance', kind: 'balance', name: 'Balance lead', lineId: null, volts } as const
  const all = [...under(on, 'pack/', volts), ...(balance.length > 0 ? [handingOn(lead, balance)] : [])]
  const root = {
    id: 'pack',
    kind: 'pack',
    name: pack ? packTitle(pack) : 'No pack',
    lineId: pack?.id ?? null,
    volts,
  } as const
  return { root: handingOn(root, all), unwired, looped }
}

const key = (feed: Feed) => `${feed.from}/${feed.output}`
const sumDemand = (nodes: readonly PowerNode[]) => nodes.reduce((sum, node) => sum + node.demandA, 0)
const sumUnknown = (nodes: readonly PowerNode[]) => nodes.reduce((sum, node) => sum + node.unknownDraws, 0)

/** Follows the feeds upwards until the pack or a line seen before. */
function feedsItself(line: Line, lines: readonly Line[]): boolean {
  const seen = new Set<string>()
  let at: Line | undefined = line
  while (at) {
    if (seen.has(at.id)) return true
    seen.add(at.id)
    const feed: Feed | null = feedOf(at, lines)
    at = feed ? lines.find(l => l.id === feed.from) : undefined
  }
  return false
}

/** Every node of a tree, parents first. */
export function nodesOf(node: PowerNode): PowerNode[] {
  return [node, ...node.children.flatMap(nodesOf)]
}

/** The feed a device hangs on, as a node; null when it is not in the tree. */
export function feedNodeOf(tree: ElectricalTree, lineId: string): PowerNode | null {
  return (
    nodesOf(tree.root).find(node => node.children.some(child => child.lineId === lineId && child.kind !== 'output')) ??
    null
  )
}

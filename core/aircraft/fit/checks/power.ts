import { figure } from '../../../text/display'
import { bearingsOf, driversOf, type Bearing, type CurrentFrom } from '../../currents'
import { packLabel, type Line } from '../../../model/ledger'
import { fullCellV, plugsMate } from '../../power'
import { benchOf, measureOf, textOf } from '../../../model/properties'
import {
  drawAt,
  feedNodeOf,
  feedsOnOffer,
  isPowered,
  nodesOf,
  packVolts,
  shortName,
  type PowerNode,
} from '../../wiring'
import { missingOf, pairCheck, singleCheck } from './pair'
import { way, type Check, type FitContext, type Judged, type CheckOutcome, type WayOut } from './types'

const amps = (value: number) => `${figure(value, value < 10 ? 2 : 1)} A`
const volts = (value: number) => `${figure(value, 2)} V`

/** Places a device could be moved to: the volts suit it and the amps are left there. */
export function betterFeeds(device: Line, { lines, tree }: FitContext): WayOut[] {
  const low = measureOf(device, 'voltsMin') ?? 0
  const high = measureOf(device, 'voltsMax') ?? Infinity
  const now = feedNodeOf(tree, device.id)
  return feedsOnOffer(lines, device).flatMap(({ feed, name }) => {
    const id = feed.output === '' ? feed.from : `${feed.from}/${feed.output}`
    const node =
      nodesOf(tree.root).find(n => n.id === id) ?? (feed.from === 'balance' ? { ...tree.root, demandA: 0 } : undefined)
    if (!node?.volts || node === now || node.volts.lowV < low - 1e-9 || node.volts.highV > high + 1e-9) return []
    const draw = drawAt(device, node.volts.lowV)
    if (draw === null || (node.capacityA !== null && node.demandA + draw > node.capacityA + 1e-9)) return []
    const there =
      node.capacityA === null
        ? `${volts(node.volts.highV)} at most there`
        : `${amps(node.demandA + draw)} of ${amps(node.capacityA)} there`
    return [way(`Move ${shortName(device)} to ${name}: ${there}.`, 0, { lineId: device.id, feed })]
  })
}

const devicesUnder = (node: PowerNode): PowerNode[] =>
  node.children.flatMap(child =>
    child.kind === 'device'
      ? [child]
      : child.kind === 'supplier'
        ? [child, ...devicesUnder(child)]
        : devicesUnder(child),
  )
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const lineOf = (context: FitContext, id: string | null) => context.lines.find(line => line.id === id)

const feedVolts: Check = {
  id: 'feed-volts',
  title: 'Volts at each device',
  severity: 'clash',
  examine: context =>
    nodesOf(context.tree.root)
      .filter(node => node.kind === 'device' || node.kind === 'supplier')
      .flatMap((node): CheckOutcome[] => {
        const line = lineOf(context, node.lineId)
        if (!line || line.slot === 'capacitor' || !isPowered(line) || !node.volts) return []
        const byCells =
          measureOf(line, 'cellsMax') !== undefined ||
          line.slot === 'board' ||
          line.slot === 'speed controller' ||
          line.slot === 'power distribution'
        if (byCells) return []
        const asks = missingOf(line, ['voltsMin', 'voltsMax'])
        if (asks.length > 0) return [{ kind: 'unknown', lineIds: [line.id], asks, couldClash: true }]
        const [low, high] = [measureOf(line, 'voltsMin')!, measureOf(line, 'voltsMax')!]
        const through = feedNodeOf(context.tree, line.id)?.name ?? 'its feed'
        if (node.volts.highV > high + 1e-9)
          return [
            {
              kind: 'finding',
              severity: 'clash',
              lineIds: [line.id],
              title: `${line.name} gets too many volts`,
              sentence:
                `It takes ${volts(low)} to ${volts(high)}; ${through} gives ` +
                `${volts(node.volts.highV)}${node.volts.lowV === node.volts.highV ? '' : ' when full'}.`,
              ways: betterFeeds(line, context),
            },
          ]
        if (node.volts.lowV < low - 1e-9)
          return [
            {
              kind: 'finding',
              severity: node.volts.highV < low - 1e-9 ? 'clash' : 'check',
              lineIds: [line.id],
              title: `${line.name} gets too few volts`,
              sentence:
                `It wants at least ${volts(low)}; ${through} falls to ` +
                `${volts(node.volts.lowV)}${node.volts.lowV === node.volts.highV ? '' : ' when empty'}.`,
              ways: betterFeeds(line, context),
            },
          ]
        return [{ kind: 'fits', lineIds: [line.id], words: `${shortName(line)} on ${volts(node.volts.highV)}` }]
      }),
}

const outputAmps: Check = {
  id: 'output-amps',
  title: 'Amps of each output',
  severity: 'clash',
  examine: context =>
    nodesOf(context.tree.root)
      .filter(node => node.kind === 'output' && node.children.length > 0)
      .flatMap((node): CheckOutcome[] => {
        const devices = devicesUnder(node)
          .map(n => lineOf(context, n.lineId))
          .filter(line => line !== undefined)
        const direct = node.children.flatMap(child => lineOf(context, child.lineId) ?? [])
        if (node.capacityA === null)
          return [
            {
              kind: 'unknown',
              lineIds: [node.lineId!],
              asks: [{ lineId: node.lineId!, key: 'outputs' }],
              couldClash: true,
            },
          ]
        if (node.demandA > node.capacityA + 1e-9) {
          const shares = node.children.map(child => `${shortName(child)} ${amps(child.demandA)}`)
          return [
            {
              kind: 'finding',
              severity: 'clash',
              lineIds: [node.lineId!, ...devices.map(d => d.id)],
              about: node.id,
              title:
                `${node.name} gives ${amps(node.capacityA)}, asked for ` +
                `${node.unknownDraws > 0 ? 'at least ' : ''}${amps(node.demandA)}`,
              sentence: `${shares.join(' + ')}.`,
              ways: [
                ...direct
                  .sort((a, b) => (drawAt(a, node.volts!.lowV) ?? 0) - (drawAt(b, node.volts!.lowV) ?? 0))
                  .flatMap(device => betterFeeds(device, context)),
                way('A small regulator of its own', 1.8),
              ],
            },
          ]
        }
        const unknown = devices.filter(device => drawAt(device, node.volts!.lowV) === null)
        if (unknown.length > 0)
          return [
            {
              kind: 'unknown',
              lineIds: [node.lineId!, ...unknown.map(d => d.id)],
              asks: unknown.map(d => ({ lineId: d.id, key: 'drawA' })),
              couldClash: true,
            },
          ]
        return [
          {
            kind: 'fits',
            lineIds: [node.lineId!],
            words: `${node.name} ${amps(node.demandA)} of ${amps(node.capacityA)}`,
          },
        ]
      }),
}

const wired: Check = {
  id: 'feed-known',
  title: 'Every device has a feed',
  severity: 'check',
  examine: context => [
    ...context.tree.unwired.map((line): CheckOutcome =>
      line.feed
        ? {
            kind: 'finding',
            severity: 'check',
            lineIds: [line.id],
            title: `${line.name} has lost its feed`,
            sentence:
              `It was on ` +
              `${line.feed.output === '' ? 'the volts handed on by a part' : `“${line.feed.output}” of a part`} ` +
              `that is not on board: connect it anew.`,
            ways: betterFeeds(line, context),
          }
        : { kind: 'unknown', lineIds: [line.id], asks: [{ lineId: line.id, key: 'feed' }], couldClash: true },
    ),
    ...context.tree.looped.map((line): CheckOutcome => ({
      kind: 'finding',
      severity: 'clash',
      lineIds: [line.id],
      title: `${line.name} feeds itself`,
      sentence: 'Its feeds lead back to it: nothing there ever gets power.',
      ways: betterFeeds(line, context),
    })),
    ...nodesOf(context.tree.root)
      .filter(node => node.kind === 'device')
      .map((node): CheckOutcome => ({ kind: 'fits', lineIds: [node.lineId!], words: `${shortName(node)} has a feed` })),
  ],
}

/** Amps of full throttle against what something bears. Worked out from kV and prop alone they are no clash, only something to check. */
function peakAgainst(
  { amps: peak, from, atLeast }: { amps: number; from: CurrentFrom; atLeast: boolean },
  { continuousA, burstA, name }: Pick<Bearing, 'continuousA' | 'burstA' | 'name'>,
  title: string,
): Judged {
  const asked = `${atLeast ? 'at least ' : ''}${amps(peak)}`
  const by =
    from === 'said'
      ? ''
      : from === 'bench table'
        ? ' (by the bench table)'
        : ' (worked out from kV and prop: a third either way)'
  if (peak <= continuousA + 1e-9) return { fits: `${name} ${asked} of ${amps(continuousA)}${by}` }
  if (burstA !== null && peak <= burstA + 1e-9)
    return {
      severity: 'check',
      title: `${capital(name)} bears full throttle only in bursts`,
      sentence:
        `Full throttle asks for ${asked}${by}; ${name} bears ${amps(continuousA)} for long and ` +
        `${amps(burstA)} in bursts. Short punches only.`,
    }
  return {
    ...(from === 'kV and prop' ? { severity: 'check' as const } : {}),
    title,
    sentence: `Full throttle asks for ${asked}${by}; ${name} bears ${amps(burstA ?? continuousA)}.`,
  }
}

/** Everything at full throttle from the pack; null where it cannot be told. */
function peakOfPack({ full }: FitContext) {
  return full === null || full === 'collapses' ? null : { amps: full.currentA, from: full.from, atLeast: full.atLeastA }
}
const withPeak = (_: Line, context: FitContext) => peakOfPack(context) !== null
const bearing = (context: FitContext, part: Bearing['part']) =>
  bearingsOf(context.lines, context.pack!).find(one => one.part === part)!

/** One motor's amps at full throttle: as the pack settles, or, without one, as said or by the last row of its bench table. */
function peakOfMotor(motor: Line, { full }: FitContext) {
  const settled = full === null || full === 'collapses' ? null : full.motorsA.find(one => one.lineId === motor.id)
  if (settled) return settled
  const said = measureOf(motor, 'maxCurrentA')
  const bench = benchOf(motor)
  if (said !== undefined) return { amps: said, from: 'said' as const, atLeast: false }
  return bench.length > 0
    ? { amps: Math.max(...bench.map(row => row.amps)), from: 'bench table' as const, atLeast: false }
    : null
}

const fullThrottleHeld: Check = {
  id: 'full-throttle',
  title: 'The pack holds full throttle',
  severity: 'check',
  examine({ full, pack, lines }): CheckOutcome[] {
    const motors = lines.filter(line => line.slot === 'motor')
    if (!pack?.pack || motors.length === 0) return []
    const { label } = pack.pack
    if (full === 'collapses')
      return [
        {
          kind: 'finding',
          severity: 'check',
          lineIds: [pack.id, ...motors.map(line => line.id)],
          title: 'The pack cannot hold full throttle',
          sentence: `${label} collapses before its volts and the motors’ amps meet: full throttle is not to be had on it.`,
          ways: [way('A pack of more capacity or less resistance')],
        },
      ]
    return full === null
      ? [
          {
            kind: 'unknown',
            lineIds: motors.map(line => line.id),
            asks: motors.map(line => ({ lineId: line.id, key: 'maxCurrentA' })),
            couldClash: false,
          },
        ]
      : [{ kind: 'fits', lineIds: [pack.id], words: `${label} keeps ${volts(full.packV)} at full throttle` }]
  },
}

/** Cells, volts, amps, plugs, leads. */
export const powerChecks: readonly Check[] = [
  pairCheck({
    id: 'cells',
    title: 'Cells',
    severity: 'clash',
    a: ['pack'],
    b: ['board', 'speed controller', 'power distribution', 'motor'],
    needs: { a: ['cells'], b: ['cellsMin', 'cellsMax'] },
    judge(pack, device) {
      const cells = pack.pack!.cells
      const [fewest, most] = [measureOf(device, 'cellsMin')!, measureOf(device, 'cellsMax')!]
      if (cells > most)
        return {
          title: `${device.name} takes at most ${most} ${most === 1 ? 'cell' : 'cells'}`,
          sentence: `${packLabel(pack)} has ${cells}: ${volts(packVolts(pack.pack!).highV)} when full.`,
          ways: [way(`A pack of ${fewest} to ${most} cells`)],
        }
      if (cells < fewest)
        return {
          severity: device.slot === 'motor' ? 'advice' : 'clash',
          title: `${device.name} wants at least ${fewest} cells`,
          sentence: `${packLabel(pack)} has ${cells}: ${volts(packVolts(pack.pack!).lowV)} when empty.`,
          ways: [way(`A pack of ${fewest} to ${most} cells`)],
        }
      return { fits: `${device.slot} on ${cells} cells` }
    },
  }),
  feedVolts,
  outputAmps,
  wired,
  pairCheck({
    id: 'capacitor-volts',
    title: 'Capacitor volts',
    severity: 'clash',
    a: ['capacitor'],
    b: ['pack'],
    needs: { a: ['ratedV'], b: ['cells'] },
    judge(capacitor, pack) {
      const full = packVolts(pack.pack!).highV
      const rated = measureOf(capacitor, 'ratedV')!
      if (rated < full - 1e-9)
        return {
          about: `${capacitor.id}-${full}`,
          title: `Capacitor is rated ${volts(rated)}, a full pack is ${volts(full)}`,
          sentence: `${pack.pack!.cells} cells of ${pack.pack!.chemistry} at ${volts(fullCellV(pack.pack!.chemistry))}. It can burst.`,
          ways: [way(`One rated ${full * 1.25 <= 25 ? 25 : full * 1.25 <= 35 ? 35 : 50} V or more`, 0.6)],
        }
      if (rated < 1.2 * full)
        return {
          about: `${capacitor.id}-${full}`,
          severity: 'check',
          title: 'Capacitor with little reserve',
          sentence: `Rated ${volts(rated)} against ${volts(full)} of a full pack: spikes go well above that.`,
          ways: [way('One rated higher', 0.6)],
        }
      return { fits: `capacitor ${volts(rated)}` }
    },
  }),
  pairCheck({
    id: 'motor-amps',
    title: 'Motors and speed controller',
    severity: 'clash',
    a: ['motor'],
    b: ({ lines }) => driversOf(lines),
    needs: { a: ['maxCurrentA|bench'], b: ['ampsContinuous'] },
    knownOtherwise: (motor, context) => peakOfMotor(motor, context) !== null,
    judge: (motor, driver, context) =>
      peakAgainst(
        peakOfMotor(motor, context)!,
        {
          continuousA: measureOf(driver, 'ampsContinuous')!,
          burstA: measureOf(driver, 'ampsBurst') ?? null,
          name: 'the speed controller',
        },
        'Motors ask for more than their driver gives',
      ),
  }),
  fullThrottleHeld,
  singleCheck({
    id: 'pack-amps',
    title: 'What the pack can give',
    severity: 'clash',
    of: ['pack'],
    needs: ['cRating'],
    when: withPeak,
    judge: (_, context) => peakAgainst(peakOfPack(context)!, bearing(context, 'pack'), 'The pack gives too few amps'),
  }),
  singleCheck({
    id: 'plug-amps',
    title: 'What the plug bears',
    severity: 'clash',
    of: ['power lead'],
    needs: ['plug'],
    when: withPeak,
    judge: (lead, context) =>
      bearingsOf(context.lines, context.pack!).some(one => one.part === 'plug')
        ? peakAgainst(peakOfPack(context)!, bearing(context, 'plug'), 'The plug bears too few amps')
        : {
            severity: 'advice',
            title: 'Nobody knows what this plug bears',
            sentence:
              `“${textOf(lead, 'plug')!}” is a name of your own: Fit cannot tell whether it bears ` +
              `${amps(peakOfPack(context)!.amps)}.`,
            ways: [way('Name it by one of the facts, or say its class, as in “30 A class”')],
          },
  }),
  singleCheck({
    id: 'lead-amps',
    title: 'What the lead bears',
    severity: 'clash',
    of: ['power lead'],
    needs: ['awg'],
    when: withPeak,
    judge: (_, context) =>
      peakAgainst(peakOfPack(context)!, bearing(context, 'power lead'), 'The power lead is too thin'),
  }),
  pairCheck({
    id: 'plugs',
    title: 'Pack and power lead plug',
    severity: 'clash',
    a: ['pack'],
    b: ['power lead'],
    needs: { a: ['plug'], b: ['plug'] },
    judge(pack, lead) {
      const [mine, theirs] = [pack.pack!.plug, textOf(lead, 'plug')!]
      const mate = plugsMate(mine, theirs)
      if (mate) return { fits: 'plugs mate' }
      return mate === null
        ? {
            severity: 'check',
            title: 'Do these plugs mate?',
            sentence:
              `${packLabel(pack)} has “${mine}”, the lead “${theirs}”: names that are not both among the ` +
              `facts. Look, or name both the same.`,
          }
        : {
            title: 'Plugs do not mate',
            sentence: `${packLabel(pack)} has “${mine}”, the lead “${theirs}”.`,
            ways: [way('Solder the other plug on'), way('A pack with that plug')],
          }
    },
  }),
  singleCheck({
    id: 'charger',
    title: 'Your charger',
    severity: 'check',
    of: ['pack'],
    needs: ['plug'],
    when: (_, { gear }) => gear.chargerCells !== null || gear.chargerPlugs !== '',
    judge(pack, { gear }) {
      const { cells, label, plug } = pack.pack!
      if (gear.chargerCells !== null && cells > gear.chargerCells)
        return {
          title: 'Your charger stops short',
          sentence: `${label} has ${cells} cells, the charger does ${gear.chargerCells}.`,
        }
      const plugs = gear.chargerPlugs
        .split(/[;\n]/)
        .map(p => p.trim())
        .filter(p => p !== '')
      if (plugs.length > 0 && !plugs.some(p => plugsMate(p, plug)))
        return {
          title: plugs.some(p => plugsMate(p, plug) === null)
            ? 'Does your charger have this plug?'
            : 'Your charger lacks this plug',
          sentence: `${label} has “${plug}”; the charger has ${plugs.map(p => `“${p}”`).join(', ')}. A charge lead is needed.`,
        }
      return { fits: 'charger' }
    },
  }),
]

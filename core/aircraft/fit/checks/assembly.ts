import { figure, fixed } from '../../../text/display'
import { measureOf } from '../../../model/properties'
import { fullCellV, loadedSpeed } from '../../power'
import { fixingRow } from '../fixings'
import { isSaidJoint, isSaidWire } from '../../../model/data'
import { frameWith } from '../frame-with'
import { discsOf, stackOf, stackUp } from '../stack'
import { planWire } from '../wires'
import { way, type Check, type CheckOutcome } from './types'

/** Speed of sound at 15 °C, m/s; blade tips want to stay well below. */
const soundMS = 340

const shown = (value: number) => figure(value, 2)

const stackHeight: Check = {
  id: 'stack-height',
  title: 'Height of the stack',
  severity: 'clash',
  examine({ fit, lines }): CheckOutcome[] {
    const frame = frameWith(lines, 'freeHeightMm')
    if (!fit.stack || fit.stack.layers.length === 0 || !frame) return []
    const free = measureOf(frame, 'freeHeightMm') ?? null
    const up = stackUp(stackOf(fit.stack, lines), free, discsOf(lines))
    const touching = up.touching.map((t): CheckOutcome => ({
      kind: 'finding',
      severity: 'clash',
      lineIds: [t.below.lineId, t.above.lineId].filter(id => id !== null),
      about: `${t.below.id}+${t.above.id}`,
      title: 'Bare metal could touch',
      sentence: `${shown(t.gapMm)} mm between ${t.below.name} and ${t.above.name}; at least 1 mm of air or something that insulates.`,
      ways: [way('A taller spacer', 0.2), way('A sheet of insulating tape', 0.1)],
    }))
    const crowded = up.crowded.map((c): CheckOutcome => ({
      kind: 'finding',
      severity: c.clearanceMm < 0 ? 'clash' : 'check',
      lineIds: [c.layer.lineId, frame.id].filter(id => id !== null),
      about: c.layer.id,
      title: c.clearanceMm < 0 ? 'Board reaches into the props' : 'Board close to the props',
      sentence:
        `${c.layer.name} at ${shown(c.layer.turnDeg)}° is ${shown(Math.abs(c.clearanceMm))} mm ` +
        `${c.clearanceMm < 0 ? 'inside' : 'from'} the nearest ` +
        `${measureOf(frame, 'ductMm') === undefined ? 'prop disc' : 'duct'}.`,
      ways: [way('Turn the board')],
    }))
    if (free === null)
      return [
        ...touching,
        ...crowded,
        { kind: 'unknown', lineIds: [frame.id], asks: [{ lineId: frame.id, key: 'freeHeightMm' }], couldClash: true },
      ]
    const height: CheckOutcome =
      up.leftMm! < -1e-9
        ? {
            kind: 'finding',
            severity: 'clash',
            lineIds: [frame.id],
            title: 'The stack is too high',
            sentence: `It needs ${shown(up.neededMm)} mm, the frame leaves ${shown(free)} mm.`,
            ways: [
              way('Shorter spacers or grommets'),
              way(up.standoffMm === null ? 'Taller standoffs' : `Standoffs of ${shown(up.standoffMm)} mm`),
            ],
          }
        : up.unknownBetween.length > 0
          ? {
              kind: 'unknown',
              lineIds: up.unknownBetween.map(layer => layer.lineId).filter(id => id !== null),
              asks: up.unknownBetween.flatMap(layer =>
                layer.lineId === null ? [] : [{ lineId: layer.lineId, key: 'heightMm' }],
              ),
              couldClash: true,
            }
          : { kind: 'fits', lineIds: [frame.id], words: `height ${shown(up.neededMm)} of ${shown(free)} mm` }
    return [height, ...touching, ...crowded]
  },
}

const screws: Check = {
  id: 'screw-length',
  title: 'Screws',
  severity: 'clash',
  examine: ({ fit }) =>
    fit.joints.map((joint): CheckOutcome => {
      const lineIds = joint.lineId ? [joint.lineId] : []
      if (!isSaidJoint(joint)) return { kind: 'unknown', lineIds, asks: [], couldClash: false }
      const row = fixingRow(joint)
      if (row.verdict === 'not chosen')
        return { kind: 'unknown', lineIds, asks: [{ lineId: joint.lineId ?? '', key: 'lengthMm' }], couldClash: false }
      if (row.verdict === 'fits')
        return { kind: 'fits', lineIds, words: `${joint.name} ${joint.thread} × ${joint.lengthMm}` }
      return {
        kind: 'finding',
        severity: 'clash',
        lineIds,
        about: joint.id,
        title: row.verdict === 'too long' ? `${joint.name}: screws too long` : `${joint.name}: screws too short`,
        sentence: row.words,
        ways:
          row.soldMm === null
            ? row.washerMm === null
              ? []
              : [way(`A washer of ${shown(row.washerMm)} mm`, 0.1)]
            : [way(`${joint.thread} × ${row.soldMm}`)],
      }
    }),
}

const wires: Check = {
  id: 'wire-reach',
  title: 'Leads reach',
  severity: 'clash',
  examine: ({ fit }) =>
    fit.wires.map((wire): CheckOutcome => {
      if (!isSaidWire(wire)) return { kind: 'unknown', lineIds: [], asks: [], couldClash: false }
      const row = planWire(wire)
      if (wire.haveMm === null) return { kind: 'unknown', lineIds: [], asks: [], couldClash: false }
      return row.shortMm > 0
        ? {
            kind: 'finding',
            severity: 'clash',
            lineIds: [],
            about: wire.id,
            title: `${wire.name} is too short`,
            sentence: row.words,
            ways: [way('A splice', row.spliceG), way('Another way to lay it')],
          }
        : { kind: 'fits', lineIds: [], words: `${wire.name} reaches` }
    }),
}

const tipSpeed: Check = {
  id: 'tip-speed',
  title: 'Blade tips and load',
  severity: 'advice',
  examine: ({ lines, pack }) =>
    lines
      .filter(line => line.slot === 'motor')
      .flatMap(motor =>
        lines
          .filter(line => line.slot === 'propeller')
          .map((prop): CheckOutcome => {
            const [kv, across] = [measureOf(motor, 'kv'), measureOf(prop, 'diameterMm')]
            const asks = [
              ...(kv === undefined ? [{ lineId: motor.id, key: 'kv' }] : []),
              ...(across === undefined ? [{ lineId: prop.id, key: 'diameterMm' }] : []),
            ]
            if (!pack?.pack || kv === undefined || across === undefined)
              return { kind: 'unknown', lineIds: [motor.id, prop.id], asks, couldClash: false }
            const full = pack.pack.cells * fullCellV(pack.pack.chemistry)
            const tip = (((Math.PI * across) / 1000) * kv * full * loadedSpeed) / 60
            const words =
              `${kv} kV on ${pack.pack.cells} cells turn a ${shown(across)} mm prop to a tip speed of about ` +
              `${fixed(tip, 0)} m/s`
            if (tip > 0.65 * soundMS)
              return {
                kind: 'finding',
                severity: 'advice',
                lineIds: [motor.id, prop.id],
                title: 'Fast blade tips',
                sentence:
                  `${words}, ${fixed((100 * tip) / soundMS, 0)} % of the speed of sound: loud, hot, and little ` +
                  `thrust for the watts.`,
                ways: [way('Fewer cells, a lower kV or a smaller prop')],
              }
            return { kind: 'fits', lineIds: [motor.id, prop.id], words }
          }),
      ),
}

const mounting: Check = {
  id: 'mounting',
  title: 'How things are mounted',
  severity: 'advice',
  examine({ fit, lines }): CheckOutcome[] {
    const ids = (slot: string) => lines.filter(line => line.slot === slot).map(line => line.id)
    const { motorsUpsideDown, pushedProps, boardUpsideDown, boardTurnDeg } = fit.mounting
    const said: CheckOutcome[] = []
    if (motorsUpsideDown !== pushedProps)
      said.push({
        kind: 'finding',
        severity: 'check',
        lineIds: ids('motor'),
        about: 'motors',
        title: 'Turn one, turn the other',
        sentence: motorsUpsideDown
          ? 'Motors hang upside down while the props are not set as pushers: the air would go up.'
          : 'Props are set as pushers while the motors stand upright: the air would go up.',
        ways: [],
      })
    if (motorsUpsideDown)
      said.push({
        kind: 'finding',
        severity: 'advice',
        lineIds: ids('motor'),
        about: 'direction',
        title: 'Motors upside down',
        sentence: 'Seen from above each turns the other way: reverse all four and test without props.',
        ways: [],
      })
    if (boardUpsideDown || boardTurnDeg % 360 !== 0)
      said.push({
        kind: 'finding',
        severity: 'advice',
        lineIds: ids('board'),
        about: 'board',
        title: 'Board orientation to be set',
        sentence:
          `${boardUpsideDown ? 'The board is upside down' : 'The board is upright'}, turned by ` +
          `${boardTurnDeg}°: set it in the flight-controller firmware and check on the bench that the ` +
          `horizon follows.`,
        ways: [],
      })
    return said.length > 0 ? said : [{ kind: 'fits', lineIds: [], words: 'mounted the usual way up' }]
  },
}

/** What only the assembled thing shows. */
export const assemblyChecks: readonly Check[] = [stackHeight, screws, wires, tipSpeed, mounting]

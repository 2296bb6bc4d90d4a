import type { Line } from '../../../model/ledger'
import { measureOf, propertiesOfLine, providersOf, textOf } from '../../../model/properties'
import { namesOne } from '../gear'
import { pairCheck, singleCheck } from './pair'
import { way, type Check, type FitContext, type CheckOutcome } from './types'

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()
const videoUnits = ({ lines }: FitContext) =>
  lines.filter(
    line => line.slot === 'video transmitter' || (line.slot === 'board' && textOf(line, 'videoFamily') !== undefined),
  )
const radioUnits = ({ lines }: FitContext) => providersOf(lines, 'receiver')
const aerialsFor = (lines: readonly Line[], serves: string) =>
  lines.filter(line => line.slot === 'aerial' && (textOf(line, 'serves') ?? 'video') === serves)

/** Something the craft needs and nothing on board does. */
function missing(
  id: string,
  title: string,
  needed: (context: FitContext) => Line | undefined,
  slot: Line['slot'],
  sentence: string,
): Check {
  return {
    id,
    title,
    severity: 'check',
    examine(context): CheckOutcome[] {
      const because = needed(context)
      const providers = providersOf(context.lines, slot)
      if (providers.length > 0) return [{ kind: 'fits', lineIds: providers.map(p => p.id), words: title.toLowerCase() }]
      if (!because) return []
      // A board nobody has described may have it inside.
      const silent = context.lines.find(line => line.slot === 'board' && line.properties === null)
      if (silent)
        return [
          { kind: 'unknown', lineIds: [silent.id], asks: [{ lineId: silent.id, key: 'provides' }], couldClash: false },
        ]
      return [
        {
          kind: 'finding',
          severity: 'check',
          lineIds: [because.id],
          title: `No ${slot} on board`,
          sentence,
          ways: [way(`Add a line for the ${slot}, or say which part does its work`)],
        },
      ]
    },
  }
}

/** Families, aerials, and nothing missing or there twice. */
export const videoAndRadioChecks: readonly Check[] = [
  pairCheck({
    id: 'video-family',
    title: 'Camera and transmitter',
    severity: 'clash',
    a: ['camera'],
    b: videoUnits,
    needs: { a: ['videoFamily'], b: ['videoFamily'] },
    judge(camera, unit) {
      const [mine, theirs] = [textOf(camera, 'videoFamily')!, textOf(unit, 'videoFamily')!]
      return same(mine, theirs)
        ? { fits: `camera and transmitter ${mine}` }
        : {
            title: 'Camera and transmitter are of different families',
            sentence: `The camera is ${mine}, ${unit.name} is ${theirs}: no picture.`,
            ways: [way(`A ${theirs} camera`), way(`A ${mine} transmitter`)],
          }
    },
  }),
  singleCheck({
    id: 'goggles',
    title: 'Your goggles',
    severity: 'clash',
    of: videoUnits,
    needs: ['videoFamily'],
    when: (_, { gear }) => gear.videoFamily !== '',
    judge: (unit, { gear }) =>
      namesOne(gear.videoFamily, textOf(unit, 'videoFamily')!)
        ? { fits: 'goggles' }
        : {
            title: 'Your goggles do not see this transmitter',
            sentence: `The transmitter is ${textOf(unit, 'videoFamily')}, your goggles ${gear.videoFamily}.`,
            ways: [way(`A ${gear.videoFamily} transmitter`)],
          },
  }),
  singleCheck({
    id: 'hand-controller',
    title: 'Your hand controller',
    severity: 'clash',
    of: radioUnits,
    needs: ['radioFamily'],
    when: (_, { gear }) => gear.radioFamily !== '',
    judge: (unit, { gear }) =>
      namesOne(gear.radioFamily, textOf(unit, 'radioFamily')!)
        ? { fits: 'hand controller' }
        : {
            title: 'Your hand controller does not reach this receiver',
            sentence: `The receiver is ${textOf(unit, 'radioFamily')}, your hand controller ${gear.radioFamily}.`,
            ways: [way(`A ${gear.radioFamily} receiver`)],
          },
  }),
  pairCheck({
    id: 'aerial-connector',
    title: 'Aerial connector',
    severity: 'clash',
    a: ({ lines }) => aerialsFor(lines, 'video'),
    b: ['video transmitter'],
    needs: { a: ['connector'], b: ['aerialConnector'] },
    judge(aerial, unit) {
      const [mine, theirs] = [textOf(aerial, 'connector')!, textOf(unit, 'aerialConnector')!]
      return same(mine, theirs)
        ? { fits: 'aerial connector' }
        : {
            title: 'Aerial does not go on',
            sentence: `The aerial has “${mine}”, the transmitter “${theirs}”.`,
            ways: [way(`An aerial with “${theirs}”`), way('An adapter', 0.6)],
          }
    },
  }),
  singleCheck({
    id: 'polarisation',
    title: 'Hand of polarisation',
    severity: 'check',
    of: ({ lines }) => aerialsFor(lines, 'video'),
    needs: ['polarisation'],
    when: (_, { gear }) => gear.polarisation !== '',
    judge(aerial, { gear }) {
      const mine = textOf(aerial, 'polarisation')!
      if (mine === gear.polarisation) return { fits: `polarisation ${mine}` }
      const crossed = mine !== 'linear' && gear.polarisation !== 'linear'
      return {
        severity: crossed ? 'check' : 'advice',
        title: 'Aerials of different hands',
        sentence:
          `On board ${mine}, at your goggles ${gear.polarisation}: ` +
          `${crossed ? 'most of the signal is lost' : 'about half of the signal is lost'}.`,
        ways: [way(`An aerial of ${gear.polarisation}`)],
      }
    },
  }),
  {
    id: 'aerial-there',
    title: 'Every transmitter has its aerial',
    severity: 'clash',
    examine: ({ lines }): CheckOutcome[] =>
      lines
        .filter(line => line.slot === 'video transmitter')
        .map(unit => {
          const has =
            aerialsFor(lines, 'video').length > 0 ||
            (propertiesOfLine(unit).provides as readonly string[] | undefined)?.includes('aerial')
          if (has) return { kind: 'fits', lineIds: [unit.id], words: 'video aerial' }
          if (unit.properties === null)
            return {
              kind: 'unknown',
              lineIds: [unit.id],
              asks: [{ lineId: unit.id, key: 'provides' }],
              couldClash: true,
            }
          return {
            kind: 'finding',
            severity: 'clash',
            lineIds: [unit.id],
            title: 'The transmitter has no aerial',
            sentence: 'Powered without one it can burn out. Aerial on before powering a transmitter.',
            ways: [way('Add a line for the aerial', 1.5)],
          }
        }),
  },
  {
    id: 'radio-aerial',
    title: 'Receiver aerials',
    severity: 'check',
    examine: ({ lines }): CheckOutcome[] =>
      lines
        .filter(line => line.slot === 'receiver')
        .map(receiver => {
          const wants = measureOf(receiver, 'aerials')
          if (propertiesOfLine(receiver).aerialOn === true)
            return { kind: 'fits', lineIds: [receiver.id], words: 'receiver aerial' }
          if (wants === undefined)
            return {
              kind: 'unknown',
              lineIds: [receiver.id],
              asks: [{ lineId: receiver.id, key: 'aerials' }],
              couldClash: false,
            }
          const have = aerialsFor(lines, 'radio').reduce((sum, line) => sum + line.quantity, 0)
          return have >= wants
            ? { kind: 'fits', lineIds: [receiver.id], words: 'receiver aerials' }
            : {
                kind: 'finding',
                severity: 'check',
                lineIds: [receiver.id],
                title: 'Receiver aerial not on the list',
                sentence: `The receiver wants ${wants}, ${have} on board. If it came with one, say that its aerial is part of it.`,
                ways: [],
              }
        }),
  },
  missing(
    'receiver-there',
    'A receiver',
    ({ lines }) => lines.find(line => line.slot === 'motor'),
    'receiver',
    'Nothing on board hears the hand controller.',
  ),
  missing(
    'transmitter-there',
    'A transmitter for the camera',
    ({ lines }) => lines.find(line => line.slot === 'camera'),
    'video transmitter',
    'The camera has nothing that sends its picture.',
  ),
  {
    id: 'twice',
    title: 'Nothing there twice',
    severity: 'advice',
    examine: ({ lines }): CheckOutcome[] =>
      (['receiver', 'video transmitter', 'navigation', 'sounder', 'speed controller'] as const).flatMap(
        (slot): CheckOutcome[] => {
          const providers = providersOf(lines, slot)
          const own = providers.filter(line => line.slot === slot)
          const besides = providers.filter(line => line.slot !== slot)
          if (own.length > 0 && besides.length > 0)
            return [
              {
                kind: 'finding',
                severity: 'advice',
                lineIds: [...own, ...besides].map(l => l.id),
                about: slot,
                title: `Two things do the work of a ${slot}`,
                sentence: `${own[0]!.name} and ${besides[0]!.name}. Leaving the first off saves its grams.`,
                ways: [way(`Leave ${own[0]!.name} off`)],
              },
            ]
          // A board that has not been described may do it too; that costs grams, not the craft.
          const silent =
            own.length > 0 ? lines.find(line => line.slot === 'board' && line.properties === null) : undefined
          if (silent)
            return [
              {
                kind: 'unknown',
                lineIds: [silent.id],
                asks: [{ lineId: silent.id, key: 'provides' }],
                couldClash: false,
              },
            ]
          return own.length > 0 ? [{ kind: 'fits', lineIds: own.map(l => l.id), words: `one ${slot}` }] : []
        },
      ),
  },
]

import { isPowered, shortName } from '../../../aircraft/wiring'
import type { Line, Slot } from '../../../model/ledger'
import { mountingFacts } from './airframe'
import { choiceOf, isDigital } from './facts'
import {
  does,
  feedCautions,
  feedFacts,
  ids,
  isInside,
  leadFact,
  ofSlot,
  whole,
  wiresTo,
  type Context,
  type StepDraft,
  type Rule,
} from './context'

const onlyAfterPower = ['board-in', 'first-power']

/** A flight controller of its own, over the speed controller. */
export const stack: Rule = context => {
  const boards = ofSlot(context, 'speed controller', 'power distribution').length > 0 ? ofSlot(context, 'board') : []
  if (boards.length === 0) return []
  return [
    {
      id: 'stack',
      phase: 'boards',
      title: `${boards.map(shortName).join(' and ')} on top, plugged to the speed controller`,
      minutes: 15,
      why: 'The board that thinks sits over the one that drives.',
      need: ['driver', 'tweezers'],
      parts: whole(boards),
      after: onlyAfterPower,
      over: ['board-in'],
      facts: mountingFacts(context),
      cautions: [
        'The order of pins may differ between makers: check plus, minus and each motor signal before it gets power.',
      ],
    },
  ]
}

const deviceFacts = (context: Context, device: Line) => [
  ...feedFacts(context, device),
  ...wiresTo(context, device.slot, device.id, device.name).map(leadFact),
]
const servesRadio = (line: Line) => choiceOf(line, 'serves') === 'radio'

export const radio: Rule = context => {
  const receivers = ofSlot(context, 'receiver')
  const aerials = ofSlot(context, 'aerial').filter(servesRadio)
  if (receivers.length === 0)
    return aerials.length === 0
      ? []
      : [
          {
            id: 'radio',
            phase: 'radio',
            title: 'Aerial of the radio',
            why: 'The radio is on the board; its aerial lies clear of carbon.',
            minutes: 5,
            parts: whole(aerials),
            after: onlyAfterPower,
          },
        ]
  return [
    {
      id: 'radio',
      phase: 'radio',
      title: `Radio: ${receivers.map(shortName).join(', ')}`,
      minutes: 15,
      why: 'Four wires: supply, ground, and one each way. Transmit goes to receive.',
      need: ['iron, fine tip', 'thin wire'],
      parts: [...whole(receivers), ...whole(aerials)],
      after: [...onlyAfterPower, 'stack'],
      facts: [
        ...receivers.flatMap(line => deviceFacts(context, line)),
        'The aerial lies clear of carbon and of the video aerial, its last part straight.',
      ],
      cautions: receivers.flatMap(line => feedCautions(context, line)),
    },
  ]
}

export const video: Rule = context => {
  const units = ofSlot(context, 'video transmitter')
  const aerials = ofSlot(context, 'aerial').filter(line => !servesRadio(line))
  if (units.length === 0 && aerials.length === 0) return []
  const inside = isInside(context, 'video transmitter')
  return [
    {
      id: 'video',
      phase: 'video',
      title: units.length > 0 ? `Video: ${units.map(shortName).join(', ')}, aerial on` : 'Video aerial',
      minutes: units.length > 0 ? 20 : 8,
      why:
        units.length > 0
          ? 'Its feed is the wire most often put on the wrong pad.'
          : inside
            ? 'The transmitter is on the board; without its aerial it burns.'
            : 'The aerial goes on before anything transmits.',
      need: ['iron, fine tip', 'driver'],
      parts: [...whole(units), ...whole(aerials)],
      after: [...onlyAfterPower, 'stack'],
      over:
        units.length > 0 &&
        (context.fit.stack?.layers.some(layer => units.some(unit => unit.id === layer.lineId)) ?? false)
          ? ['board-in', 'stack']
          : [],
      facts: units.flatMap(line => deviceFacts(context, line)),
      cautions: [
        ...units.flatMap(line => feedCautions(context, line)),
        'The aerial is on before the transmitter gets power, every time.',
      ],
    },
  ]
}

export const camera: Rule = context => {
  const cameras = ofSlot(context, 'camera')
  if (cameras.length === 0) return []
  return [
    {
      id: 'camera',
      phase: 'camera',
      title: `${cameras.map(shortName).join(' and ')} in its cage, cable plugged`,
      minutes: 12,
      why: 'The lens looks where you fly; the cable bends once and is not pressed.',
      need: ['driver', 'tweezers'],
      parts: whole(cameras),
      after: [...onlyAfterPower, 'video'],
      facts: cameras.flatMap(line => deviceFacts(context, line)),
      cautions: cameras.flatMap(line => feedCautions(context, line)),
    },
  ]
}

const whyWired: Partial<Record<Slot, string>> = {
  navigation: 'It wants a clear sky above it and distance from the video.',
  sounder: 'It is heard in tall grass when nothing else is.',
}

/** Everything else with power of its own to be wired: navigation, sounder, payload. One step each. */
export const devices: Rule = context => {
  const own = ofSlot(context, 'navigation', 'sounder', 'payload').filter(isPowered)
  const load = own.find(line => line.slot === 'payload')
  // Mount and cable of a wired payload go on with it.
  const withLoad = load ? ofSlot(context, 'payload').filter(line => !isPowered(line)) : []
  const loose = ofSlot(context, 'sounder', 'navigation', 'payload').filter(
    line => !isPowered(line) && !withLoad.includes(line),
  )
  const together = [
    ofSlot(context, 'navigation').filter(isPowered),
    ofSlot(context, 'sounder').filter(isPowered),
    ...own.filter(line => line.slot === 'payload').map(line => [line]),
  ].filter(lines => lines.length > 0)
  return [
    ...together.map((lines): StepDraft => {
      const { slot, id } = lines[0]!
      return {
        id: `device-${slot === 'payload' ? id : slot}`,
        phase: 'devices',
        title: `${lines.map(shortName).join(' and ')}: wire it`,
        minutes: 12,
        why: whyWired[slot] ?? 'What the craft is for.',
        need: ['iron, fine tip', 'thin wire'],
        parts: whole(lines[0] === load ? [...lines, ...withLoad] : lines),
        after: [...onlyAfterPower, 'stack'],
        facts: lines.flatMap(line => deviceFacts(context, line)),
        cautions: lines.flatMap(line => feedCautions(context, line)),
      }
    }),
    ...(loose.length > 0
      ? [
          {
            id: 'loose-load',
            phase: 'pack' as const,
            title: `${loose.map(shortName).join(', ')} on`,
            why: 'It has no wire to the craft: it goes on last.',
            minutes: 5,
            parts: whole(loose),
            after: ['dry-fit', 'close'],
          },
        ]
      : []),
  ]
}

/** What stands in the way of too much current at a first power-up. */
const limiterFor = ({ pack }: Context) => `current limiter${pack?.pack?.cells === 1 ? ' for one cell' : ''}`

const powered = {
  see: 'The limiter stays dark or goes dark after a blink; lights on the board; nothing warm, no smell.',
  otherwise:
    'Unplug at once. Measure between plus and minus: a beep is a bridge of solder. Look at every joint made since the last good power-up.',
}

function packVoltsFact({ packVolts }: Context): string[] {
  if (!packVolts) return []
  const [full, empty] = [packVolts.highV, packVolts.lowV].map(volts => Number(volts.toFixed(1)))
  return [`A full pack has ${full} V, an empty one ${empty} V.`]
}

function firstPower(context: Context): StepDraft {
  const limiter = limiterFor(context)
  const look = powered
  const volts = packVoltsFact(context)
  return {
    id: 'first-power',
    phase: 'first power',
    title: 'First power-up through a limiter, nothing else connected',
    minutes: 5,
    why: 'A bridge now costs a fuse and a minute; later it costs the board and what hangs on it.',
    need: [limiter, 'multimeter', ...(context.pack ? [`${shortName(context.pack)}, or any pack of its cells`] : [])],
    after: ['board-in', 'capacitor'],
    facts: volts,
    cautions: [
      'Props off.',
      'Measure first: no beep between plus and minus.',
      'Charge and handle lithium packs attended, on a fire-safe surface.',
    ],
    test: { doThis: 'Plug the pack in through the limiter.', ...look },
    proves: ['board-in', 'capacitor', 'motors-join', 'stack'],
  }
}

function motorsTest(context: Context): StepDraft {
  const limiter = limiterFor(context)
  return {
    id: 'motors-test',
    phase: 'motor test',
    title: 'Each motor felt, then turned, props off',
    minutes: 8,
    why: 'A dead motor or a cold joint is found while everything is still open.',
    need: [limiter, 'a computer with the firmware’s set-up pages'],
    after: ['motors-join', 'first-power', 'stack'],
    cautions: ['Props off. Keep fingers and wires away from the bells.'],
    test: {
      doThis: 'Turn each motor by hand, then at low throttle one after another.',
      see: 'All start at the same throttle, run smoothly, and are alike warm after a few seconds.',
      otherwise: 'One stutters: its joints first, then swap it with a good one to see whether the fault moves.',
    },
    proves: ['motors-join', 'motors-place'],
  }
}

/** Steps that put something on the board which the second power-up proves. */
const connectedSteps = (context: Context) => [
  'radio',
  'video',
  'camera',
  'stack',
  ...ids(ofSlot(context, 'navigation', 'sounder', 'payload')).map(id => `device-${id}`),
  'device-navigation',
  'device-sounder',
]

function secondPower(context: Context): StepDraft {
  const limiter = limiterFor(context)
  const look = powered
  const volts = packVoltsFact(context)
  const connected = connectedSteps(context)
  return {
    id: 'second-power',
    phase: 'second power',
    title: 'Second power-up through the limiter, everything connected',
    minutes: 6,
    why: 'Radio, video and camera get volts for the first time: a limiter forgives one mistake.',
    need: [limiter, 'goggles', 'hand controller'],
    after: ['first-power', ...connected],
    facts: volts,
    cautions: ['Props off.', ...(does(context, 'video transmitter') ? ['Aerial on.'] : [])],
    test: {
      doThis: 'Plug in through the limiter; look for a picture and the receiver’s light.',
      ...look,
      see: [
        look.see,
        does(context, 'receiver') ? 'The receiver’s light blinks or glows.' : '',
        ofSlot(context, 'camera').length > 0 ? 'A picture comes.' : '',
      ]
        .filter(Boolean)
        .join(' '),
    },
    proves: connected,
  }
}

function activateVideo(context: Context): StepDraft {
  return {
    id: 'video-activate',
    phase: 'set up',
    title: 'Activate and update the video unit',
    minutes: 15,
    why: 'A new unit transmits only after it is activated, and both ends want the same version.',
    need: ['a fan', 'a computer', 'cable'],
    uses: ids(ofSlot(context, 'video transmitter')),
    after: ['second-power'],
    cautions: ['Without moving air it overheats: fan on, aerial on, props off.'],
  }
}

export const power: Rule = context => {
  if (ofSlot(context, 'board', 'speed controller', 'power distribution').length === 0) return []
  const hasDevices =
    does(context, 'video transmitter') ||
    does(context, 'receiver') ||
    ofSlot(context, 'camera', 'navigation').length > 0
  return [
    firstPower(context),
    ...(ofSlot(context, 'motor').length > 0 ? [motorsTest(context)] : []),
    ...(hasDevices ? [secondPower(context)] : []),
    ...(isDigital(context) ? [activateVideo(context)] : []),
  ]
}

import { cellWarningV } from './settings'
import { shortName } from '../../../aircraft/wiring'
import type { Mounting } from '../../../model/data'
import type { Line } from '../../../model/ledger'
import { frameMade } from './facts'
import { solderLines } from './airframe'
import { does, ids, jointFact, ofSlot, whole, type Rule } from './context'

function turnWords({ boardUpsideDown, boardTurnDeg }: Mounting): string {
  const turned = [boardUpsideDown ? 'upside down' : '', boardTurnDeg !== 0 ? `turned by ${boardTurnDeg}°` : '']
  return turned.filter(Boolean).join(', ')
}

export const setUp: Rule = context => {
  const { mounting } = context.fit
  if (ofSlot(context, 'board').length === 0) return []
  const warning = cellWarningV(context)
  return [
    {
      id: 'bind',
      phase: 'set up',
      title: 'Bind the radio',
      minutes: 6,
      why: 'Hand controller and receiver must know each other before anything can be armed.',
      need: ['hand controller'],
      uses: ids(ofSlot(context, 'receiver', 'board')),
      after: ['second-power', 'first-power'],
      cautions: ['Props off.'],
      facts: does(context, 'receiver')
        ? []
        : ['Nobody has said where the receiver is: say at the board that it holds one, or add its line.'],
    },
    {
      id: 'settings',
      phase: 'set up',
      title: 'Settings of the flight-controller firmware',
      minutes: 25,
      why: 'Each of these has made a first flight short.',
      need: ['a computer', 'hand controller'],
      uses: ids(ofSlot(context, 'board')),
      after: ['second-power', 'first-power', 'bind', 'motors-test'],
      facts: [
        mounting.boardUpsideDown || mounting.boardTurnDeg !== 0
          ? `Board orientation: ${turnWords(mounting)}.`
          : 'Board orientation: as it came, the arrow forwards. Tilt it: the picture on the screen tilts with it.',
        'Motor order and direction: one after another, by the drawing on the screen.',
        ...(mounting.pushedProps || mounting.motorsUpsideDown
          ? ['The props push from below: every direction is the other way round; say “props reversed” to the firmware.']
          : []),
        'Channel order as your hand controller sends it; each stick moves its own bar, centre 1500.',
        'Failsafe: motors stop when the hand controller is switched off.',
        'An arming switch, and a switch for the sounder or motor beeps.',
        ...(warning
          ? [
              `Low-volt warning: ${warning.cellV.toFixed(2)} V a cell, ${warning.packV.toFixed(1)} V for the pack of ${warning.cells}.`,
            ]
          : []),
        ...(does(context, 'speed controller') || ofSlot(context, 'speed controller').length > 0
          ? ['Current scale: put it right after the first pack, by what the charger puts back.']
          : []),
      ],
      cautions: ['Props off.'],
      test: {
        doThis: 'Arm, low throttle; then switch the hand controller off.',
        see: 'All motors turn the right way and stop within a second of losing the radio.',
        otherwise: 'Nothing flies before the failsafe works: radio and failsafe settings again.',
      },
      proves: ['bind', 'motors-join', 'radio'],
    },
  ]
}

export const coat: Rule = context => {
  const coatings = ofSlot(context, 'coating')
  if (coatings.length === 0) return []
  return [
    {
      id: 'coat',
      phase: 'coat',
      title: 'Coat the boards',
      minutes: 30,
      why: 'Dew on grass is enough to end a board.',
      need: ['brush', 'masking tape', 'lamp that shows the coat'],
      parts: whole(coatings),
      after: ['second-power', 'settings', 'video-activate'],
      over: [],
      facts: [
        'Mask: every plug and button, the USB socket, the memory card slot, the barometer, the camera’s ' +
          'lens and sensor, heat sinks, and pads you still want to solder.',
      ],
      cautions: ['Work with fresh air. Power it only when it is dry.'],
      test: {
        doThis: 'Power up through the limiter when dry.',
        see: 'As before it was coated.',
        otherwise: 'A plug has coating in it: clean it with the thinner the coating names.',
      },
      proves: ['coat'],
    },
  ]
}

export const close: Rule = context => {
  const canopies = ofSlot(context, 'canopy')
  const ties = ofSlot(context, 'wire', 'other').filter(line => !solderLines(context).includes(line))
  const made = frameMade(context)
  const joints = context.fit.joints.filter(joint => joint.holds !== 'motors' && joint.holds !== 'boards')
  const inside = [
    'board-in',
    'stack',
    'capacitor',
    'radio',
    'video',
    'camera',
    'coat',
    'device-navigation',
    'device-sounder',
    ...ids(ofSlot(context, 'payload')).map(id => `device-${id}`),
  ]
  return [
    {
      id: 'close',
      phase: 'close',
      title:
        canopies.length > 0
          ? 'Canopy on, leads tied'
          : made === 'plates'
            ? 'Top plate on, leads tied'
            : 'Leads tied, everything fast',
      minutes: 15,
      why: 'Closed only now, when everything under it has been seen working.',
      need: ['driver', 'ties', 'cutter'],
      parts: [...whole(canopies), ...whole(ties)],
      after: ['settings', 'second-power', 'motors-test'],
      over: inside,
      facts: [
        ...joints.map(jointFact),
        'A tie holds each motor lead to its arm; another takes the pull of the power lead, so that the joint on the board never does.',
      ],
      cautions: [
        made === 'plates'
          ? 'No wire between plate and standoff, none where a prop can reach.'
          : 'No wire pressed, none where a prop can reach.',
      ],
    },
  ]
}

export const props: Rule = context => {
  const found = ofSlot(context, 'propeller')
  const guards = ofSlot(context, 'guard')
  const { mounting } = context.fit
  const out = []
  if (guards.length > 0)
    out.push({
      id: 'guards',
      phase: 'props' as const,
      title: guards.map(shortName).join(', '),
      minutes: 8,
      why: 'On before the props: they go over the motors.',
      need: ['driver'],
      parts: whole(guards),
      after: ['frame-base', 'motors-place', 'close'],
      over: ['motors-place'],
    })
  if (found.length === 0) return out
  if (mounting.pushedProps || mounting.motorsUpsideDown)
    out.push({
      id: 'directions',
      phase: 'props' as const,
      title: 'Directions, for pushed props',
      minutes: 6,
      why: 'Below the arm everything is mirrored: a prop that looks right pushes the craft into the ground.',
      need: ['a strip of paper'],
      after: ['settings', 'motors-test'],
      facts: ['The side with the lettering faces up, the way the craft climbs: towards the motor here.'],
      cautions: ['Props off: hold a strip of paper at the bell instead.'],
      test: {
        doThis: 'Arm at low throttle and hold paper at each bell.',
        see: 'Front left and back right turn alike, the other two the other way, as the firmware’s drawing for reversed props shows.',
        otherwise: 'Reverse that motor in the settings, or swap two of its wires.',
      },
      proves: ['motors-join', 'settings'],
    })
  out.push({
    id: 'props',
    phase: 'props' as const,
    title: `${found.map(shortName).join(', ')} on, after everything else`,
    minutes: 6,
    why: 'Nothing is fitted after them: from here on every power-up is a live one.',
    need: ['driver or press'],
    parts: whole(found),
    after: ['settings', 'motors-test', 'directions', 'guards', 'close', 'pack-on', 'loose-load'],
    over: ['motors-place'],
    facts: ['Two of each direction, as the drawing shows; the rising edge leads.'],
    cautions: ['Pack unplugged while you fit them. From now on never power it on the bench with props.'],
  })
  return out
}

function packTitle(fixings: readonly Line[], pack: Line | null): string {
  const held = fixings.map(line => (line.slot === 'strap' ? 'Strap' : 'Pad'))
  const words = [...new Set(held)].join(' and ')
  if (!pack) return words
  return words === '' ? `${shortName(pack)} in its place` : `${words}, and ${shortName(pack)} in its place`
}

export const packOn: Rule = context => {
  const fixings = ofSlot(context, 'strap', 'pad')
  const { pack } = context
  if (fixings.length === 0 && !pack) return []
  return [
    {
      id: 'pack-on',
      phase: 'pack',
      title: packTitle(fixings, pack),
      minutes: 6,
      why: 'Its place is the balance: lift the craft under the middle of its props, it hangs level.',
      need: [],
      parts: [...whole(fixings), ...(pack ? whole([pack]) : [])],
      after: ['dry-fit', 'close', 'settings'],
      facts: pack ? ['Mark the place with a line of tape: every pack goes there.'] : [],
      cautions: [
        ...(fixings.some(line => line.slot === 'strap') ? ['The strap goes over no wire.'] : []),
        ...(pack
          ? ['It stays unplugged until the props are on and you are outside. Never fly a swollen or damaged pack.']
          : []),
      ],
    },
  ]
}

export const last: Rule = () => [
  {
    id: 'weigh',
    phase: 'weigh',
    title: 'All-up weighing',
    minutes: 5,
    why: 'The whole craft as it flies, on one scale: what the ledger has been saying all along.',
    need: ['scale'],
    after: ['pack-on', 'props', 'loose-load', 'close'],
  },
  {
    id: 'maiden',
    phase: 'maiden',
    title: 'Maiden: checks, then the first hover',
    minutes: 15,
    why: 'A short hover at knee height says more than an hour at the bench.',
    need: ['a place without people', 'the card'],
    after: ['weigh', 'settings'],
    cautions: ['Never fly over people. Confirm with your aviation authority what applies to you.'],
  },
]

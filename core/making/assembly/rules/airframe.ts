import type { PlannedWire } from '../../../aircraft/fit'
import { shortName } from '../../../aircraft/wiring'
import { measureOf } from '../../../model/properties'
import { choiceOf, frameMade } from './facts'
import { heldBy, screwFacts } from './screws'
import { ids, jointFact, leadFact, ofSlot, whole, wiresTo, type StepDraft, type Rule } from './context'

const iron = 'Solder with ventilation and eye protection.'

/** Loose on the bench first: what has no room or does not reach is found with nothing soldered. */
export const dryFit: Rule = ({ fit, wires }) => [
  {
    id: 'dry-fit',
    phase: 'dry fit',
    title: 'Put it all together loosely, without solder',
    minutes: 15,
    why: 'What has no room, a cable that does not reach and a screw that touches are found now, with nothing to undo.',
    need: ['tweezers', 'a screw or two a corner', 'a ruler'],
    facts: [
      ...(fit.stack ? [`The stack has ${fit.stack.layers.length} layers: compare with the drawing in Fit.`] : []),
      ...wires.filter(row => row.shortMm > 0).map(row => `${row.wire.name}: ${row.words}`),
    ],
    test: {
      doThis: 'Close it with your fingers, plug every cable, turn every motor.',
      see: 'Nothing is pressed, every cable reaches with its slack, no screw touches a winding or a board.',
      otherwise: 'Change it in Fit: spacer, screw length, lead, or another part.',
    },
  },
]

export const frame: Rule = context => {
  const parts = [...ofSlot(context, 'frame'), ...ofSlot(context, 'standoff'), ...ofSlot(context, 'printed part')]
  if (parts.length === 0) return []
  const made = frameMade(context)
  return [
    {
      id: 'frame-base',
      phase: 'frame',
      title: made === 'plates' ? 'Frame: bottom plate and arms, the top plate stays off' : 'Frame: look it over',
      minutes: made === 'plates' ? 20 : 5,
      why:
        made === 'plates'
          ? 'Everything is soldered on the open frame; the top plate closes it later.'
          : 'A crack or a warp is changed now, not after the solder.',
      need: ['driver', 'fine file'],
      parts: [...whole(parts), ...heldBy(context, 'frame')],
      after: ['dry-fit'],
      facts: [
        ...(made === 'plates' ? ['When you weigh before it is closed, lay the top plate on the pan as well.'] : []),
        ...screwFacts(context, 'frame'),
      ],
      cautions: /carbon|plate/i.test(parts.map(line => line.name).join(' '))
        ? ['Break sharp carbon edges with a wet file: the dust is harmful, wear a mask.']
        : [],
    },
  ]
}

/** Leads that are longer than their way. */
function trimLeads(uses: readonly string[], trim: readonly PlannedWire[]): StepDraft {
  return {
    id: 'leads-trim',
    phase: 'motors',
    title: 'Cut the motor leads to length',
    minutes: 12,
    why: 'Lead that hangs over is grams and finds a propeller. Weigh the motors before and after: the difference goes into the ledger.',
    need: ['cutter', 'ruler', 'stripper'],
    uses,
    after: ['motors-place'],
    facts: trim.map(leadFact),
    cautions: ['Measure along the way it will lie, slack included. What is cut off does not come back.'],
  }
}

export const motors: Rule = context => {
  const found = ofSlot(context, 'motor')
  if (found.length === 0) return []
  const joints = context.fit.joints.filter(joint => joint.holds === 'motors')
  const leads = wiresTo(context, 'motor', 'motors', 'Motor leads')
  const trim = leads.filter(row => row.savedG > 0)
  const plug = found.map(line => choiceOf(line, 'plug')).find(Boolean)
  return [
    {
      id: 'motors-place',
      phase: 'motors',
      title: `${found.reduce((sum, line) => sum + line.quantity, 0)} motors on the frame`,
      minutes: 15,
      why: 'Screwed down first, the leads are measured along the way they will really lie.',
      need: ['driver', 'thread-lock where the screws are steel in metal'],
      parts: [...whole(found), ...heldBy(context, 'motors')],
      after: ['dry-fit', 'frame-base'],
      facts: [
        ...joints.map(jointFact),
        ...screwFacts(context, 'motors'),
        ...(context.fit.mounting.motorsUpsideDown ? ['The motors hang below the arms: leads up through the arm.'] : []),
        ...leads.map(leadFact),
      ],
      cautions:
        joints.length > 0 ? [] : ['No screw length is planned: a screw that touches the windings kills a motor.'],
      test: {
        doThis: 'Turn each bell by hand.',
        see: 'It turns freely and runs on; no rubbing, no grit.',
        otherwise: 'A screw is too long, or the bell is bent: take the screw out at once.',
      },
      proves: ['motors-place'],
    },
    ...(trim.length > 0 ? [trimLeads(ids(found), trim)] : []),
    {
      id: 'motors-join',
      phase: 'motor leads',
      title: plug ? 'Plug the motors in' : 'Solder the motors to the board',
      minutes: plug ? 5 : 35,
      why: plug
        ? `Their leads end in plugs (${plug}).`
        : 'Three wires a motor, in any order: the direction is set later.',
      need: plug ? ['tweezers'] : ['iron, fine tip', 'flux', 'solder 0.5 mm'],
      uses: [...ids(found), ...ids(ofSlot(context, 'board', 'speed controller'))],
      parts: whole(solderLines(context)),
      after: ['motors-place', 'leads-trim', 'board-in'],
      facts: leads.map(row => `${row.wire.name}: ${row.lengthMm} mm each.`),
      cautions: plug ? ['Straight in: bent pins break.'] : [iron],
    },
  ]
}

/** Solder counted as a line of its own goes on where most of it is used. */
export const solderLines = (context: Parameters<Rule>[0]) =>
  ofSlot(context, 'other').filter(line => /solder/i.test(line.name))

export const boardIn: Rule = context => {
  const speed = ofSlot(context, 'speed controller', 'power distribution')
  const first = speed.length > 0 ? speed : ofSlot(context, 'board')
  const leads = ofSlot(context, 'power lead')
  if (first.length === 0) return []
  const rated = ofSlot(context, 'capacitor').map(line => ({ line, ratedV: measureOf(line, 'ratedV') }))
  const full = context.packVolts?.highV ?? null
  return [
    {
      id: 'board-in',
      phase: 'power',
      title: `${first.map(shortName).join(' and ')} on its mounts${leads.length > 0 ? ', power lead soldered' : ''}`,
      minutes: 20,
      why: 'The thick wires come first: they need the most heat, and nothing else is near yet.',
      need: ['iron, wide tip', 'flux', 'solder'],
      parts: [...whole(first), ...whole(leads), ...heldBy(context, 'boards')],
      after: ['dry-fit'],
      over: [],
      facts: [
        ...(ofSlot(context, 'board').every(board => first.includes(board)) ? mountingFacts(context) : []),
        ...screwFacts(context, 'boards'),
        ...wiresTo(context, 'power lead').map(leadFact),
        ...(leads.length > 0
          ? ['Red is plus, black is minus; pre-tin both sides, hold until the wire sits in the pool.']
          : []),
      ],
      cautions: [iron, 'Look at plus and minus twice: a swapped lead kills everything on the board.'],
    },
    ...(rated.length > 0
      ? [
          {
            id: 'capacitor',
            phase: 'power' as const,
            title: 'Capacitor across the power pads',
            minutes: 10,
            why: 'It takes the spikes of the speed controllers; legs as short as they go.',
            need: ['iron', 'heat-shrink'],
            parts: whole(rated.map(entry => entry.line)),
            after: ['board-in'],
            cautions: [
              ...rated.flatMap(({ ratedV }) =>
                ratedV !== undefined && full !== null && ratedV < full
                  ? [
                      `Rated ${ratedV} V, a full pack has ${Number(full.toFixed(1))} V: it can burst. Take a higher one.`,
                    ]
                  : [],
              ),
              'The stripe is minus.',
              iron,
            ],
            facts: rated.flatMap(({ ratedV }) =>
              ratedV !== undefined && full !== null && ratedV >= full
                ? [`Rated ${ratedV} V; a full pack has ${Number(full.toFixed(1))} V.`]
                : [],
            ),
          },
        ]
      : []),
  ]
}

/** How the flight controller sits: said where it goes on, whether it is alone or over a speed controller. */
export function mountingFacts({ fit: { mounting } }: Parameters<Rule>[0]): string[] {
  return [
    ...(mounting.boardUpsideDown ? ['The board hangs upside down: tell the flight-controller firmware.'] : []),
    ...(mounting.boardTurnDeg !== 0
      ? [`The board is turned by ${mounting.boardTurnDeg}°: tell the flight-controller firmware.`]
      : []),
  ]
}

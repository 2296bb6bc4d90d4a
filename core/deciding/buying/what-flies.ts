import type { Line, Slot } from '../../model/ledger'

export const tools = [
  ['Solder, thin, with flux core', 'for every joint'],
  ['Heat-shrink, two widths', 'over every splice'],
  ['Current limiter or fused lead', 'for the first power-up'],
  ['Thread-lock, medium', 'metal into metal'],
  ['Hex drivers for the threads used', 'and gentle torque'],
  ['Isopropyl alcohol and a brush', 'flux off, before any coating'],
  ['Goggles for the eyes and a dust mask', 'for cutting and drilling carbon'],
] as const

/** How many of what breaks first a builder keeps for a season. */
export const spares: readonly (readonly [Slot, number])[] = [
  ['propeller', 8],
  ['motor', 1],
  ['strap', 1],
  ['aerial', 1],
]

/** What flies wants, by slot, with the reason; what a craft of its class has besides comes from the class. */
export const whatFlies: readonly (readonly [
  slot: Slot,
  name: string,
  why: string,
  count: number,
  when: (fitted: readonly Line[]) => boolean,
])[] = [
  ['receiver', 'Receiver', 'nothing on board hears the hand controller', 1, fitted => hasSlot(fitted, 'motor')],
  [
    'video transmitter',
    'Video transmitter',
    'nothing sends the camera’s picture',
    1,
    fitted => hasSlot(fitted, 'camera'),
  ],
  [
    'aerial',
    'Aerial for the transmitter',
    'never powered without one',
    1,
    fitted => hasSlot(fitted, 'video transmitter'),
  ],
  [
    'power lead',
    'Power lead',
    'nothing joins the pack to the board',
    1,
    fitted => hasSlot(fitted, 'board') || hasSlot(fitted, 'speed controller'),
  ],
  [
    'strap',
    'Strap',
    'holds the pack',
    1,
    fitted => fitted.some(line => line.slot === 'pack' && (line.pack?.cells ?? 0) >= 2),
  ],
  ['propeller', 'Propellers', 'one a motor', 4, fitted => hasSlot(fitted, 'motor')],
  ['pack', 'Pack', 'nothing to fly on', 1, fitted => hasSlot(fitted, 'motor')],
  [
    'capacitor',
    'Capacitor',
    'takes the spikes off a supply of three cells or more',
    1,
    fitted => fitted.some(line => line.slot === 'pack' && (line.pack?.cells ?? 0) >= 3),
  ],
  [
    'screw',
    'Screws',
    'nothing holds the motors; say the joints in Fit for their length',
    1,
    fitted => hasSlot(fitted, 'motor') && hasSlot(fitted, 'frame'),
  ],
]
const hasSlot = (lines: readonly Line[], slot: Slot) => lines.some(line => line.slot === slot)

/** The groups a ledger is read in, in reading order. */
export const groups = [
  'Frame',
  'Drive',
  'Boards & power',
  'Video',
  'Radio',
  'Fixings',
  'Payload',
  'Flight pack',
] as const
export type Group = (typeof groups)[number]

/** What a line is for. The order is the reading order within a group. */
export const slots = [
  'frame',
  'canopy',
  'guard',
  'motor',
  'propeller',
  'board',
  'speed controller',
  'power distribution',
  'power lead',
  'capacitor',
  'camera',
  'video transmitter',
  'aerial',
  'receiver',
  'navigation',
  'sounder',
  'strap',
  'pad',
  'screw',
  'standoff',
  'printed part',
  'wire',
  'coating',
  'other',
  'payload',
  'pack',
] as const
export type Slot = (typeof slots)[number]

/** What a slot does, what limits it and what to choose before it; `usualCount` is how many a four-motor craft carries. */
export interface SlotFacts {
  group: Group
  label: string
  sentence: string
  usualCount: number
}

export const slotFacts: Record<Slot, SlotFacts> = {
  frame: {
    group: 'Frame',
    label: 'Frame',
    usualCount: 1,
    sentence:
      'Carries everything and sets the largest prop; limited by stiffness and by the hole patterns it offers. Choose the prop size first.',
  },
  canopy: {
    group: 'Frame',
    label: 'Canopy',
    usualCount: 1,
    sentence:
      'Holds the camera and shields the boards; limited by the camera’s width and tilt. Choose the camera first.',
  },
  guard: {
    group: 'Frame',
    label: 'Guard',
    usualCount: 1,
    sentence: 'Keeps props off people and walls; costs grams and thrust. Choose frame and prop first.',
  },
  motor: {
    group: 'Drive',
    label: 'Motor',
    usualCount: 4,
    sentence:
      'Turns volts into thrust; limited by current, heat and the prop it can swing. Choose cell count and prop first.',
  },
  propeller: {
    group: 'Drive',
    label: 'Propeller',
    usualCount: 4,
    sentence: 'Makes the thrust; limited by the frame’s clearance and the motor’s torque. Choose the frame first.',
  },
  board: {
    group: 'Boards & power',
    label: 'Board',
    usualCount: 1,
    sentence:
      'Flies the craft, and in one piece drives the motors too; limited by cells, amps and hole pattern. Choose the motors first.',
  },
  'speed controller': {
    group: 'Boards & power',
    label: 'Speed controller',
    usualCount: 1,
    sentence: 'Switches the motor current; limited by continuous amps and cells. Choose the motors first.',
  },
  'power distribution': {
    group: 'Boards & power',
    label: 'Power distribution',
    usualCount: 1,
    sentence: 'Splits and regulates the pack’s volts; limited by the amps of each output. Add up the devices first.',
  },
  'power lead': {
    group: 'Boards & power',
    label: 'Power lead',
    usualCount: 1,
    sentence: 'Brings the pack’s current in; limited by gauge, length and plug. Choose the pack’s plug first.',
  },
  capacitor: {
    group: 'Boards & power',
    label: 'Capacitor',
    usualCount: 1,
    sentence: 'Takes the spikes off the supply; its volts must stand above a full pack. Choose the cell count first.',
  },
  camera: {
    group: 'Video',
    label: 'Camera',
    usualCount: 1,
    sentence:
      'Sees for you; limited by its family and the width of its mount. Choose the video transmitter’s family first.',
  },
  'video transmitter': {
    group: 'Video',
    label: 'Transmitter',
    usualCount: 1,
    sentence:
      'Sends the picture; limited by the volts and amps of its feed and by heat. Choose the goggles’ family first.',
  },
  aerial: {
    group: 'Video',
    label: 'Aerial',
    usualCount: 1,
    sentence: 'Carries the signal; limited by its connector and hand of polarisation. Choose the unit it serves first.',
  },
  receiver: {
    group: 'Radio',
    label: 'Receiver',
    usualCount: 1,
    sentence: 'Hears the hand controller; must be of the same radio family. Choose the hand controller first.',
  },
  navigation: {
    group: 'Radio',
    label: 'Navigation',
    usualCount: 1,
    sentence:
      'Knows where the craft is; wants a clear sky view and distance from the transmitter. Choose whether you fly far first.',
  },
  sounder: {
    group: 'Radio',
    label: 'Sounder',
    usualCount: 1,
    sentence:
      'Helps to find a lost craft; motors can beep instead while the pack is connected. Choose how you search first.',
  },
  strap: {
    group: 'Fixings',
    label: 'Strap',
    usualCount: 1,
    sentence: 'Holds the pack; must not slip in a crash. It flies with you, so it counts. Choose the pack first.',
  },
  pad: {
    group: 'Fixings',
    label: 'Pad',
    usualCount: 1,
    sentence: 'Keeps the pack from sliding and the frame from wearing it. Choose the pack’s place first.',
  },
  screw: {
    group: 'Fixings',
    label: 'Screws',
    usualCount: 16,
    sentence:
      'Holds parts together; too long touches windings, too short holds nothing. Choose the thickness clamped first.',
  },
  standoff: {
    group: 'Fixings',
    label: 'Standoff',
    usualCount: 4,
    sentence: 'Keeps plates apart; its height must clear the stack. Choose the boards first.',
  },
  'printed part': {
    group: 'Fixings',
    label: 'Printed part',
    usualCount: 1,
    sentence: 'Holds what has no hole of its own; its grams are in walls and fill. Choose what it must hold first.',
  },
  wire: {
    group: 'Fixings',
    label: 'Wire',
    usualCount: 1,
    sentence: 'Joins the parts; every centimetre is copper. Place the boards first.',
  },
  coating: {
    group: 'Fixings',
    label: 'Coating',
    usualCount: 1,
    sentence: 'Keeps water off the boards; buttons, plugs and barometers stay bare. Test the boards first.',
  },
  other: {
    group: 'Fixings',
    label: 'Other',
    usualCount: 1,
    sentence: 'What is really on board though nobody lists it: solder, tape, heat-shrink, glue, ties.',
  },
  payload: {
    group: 'Payload',
    label: 'Payload',
    usualCount: 1,
    sentence: 'What the craft carries for its purpose; limited by what is left under the limit. Choose the pack first.',
  },
  pack: {
    group: 'Flight pack',
    label: 'Pack',
    usualCount: 1,
    sentence:
      'The heaviest part and the last decision; limited by plug, amps and the grams left. Choose everything else first.',
  },
}

/** The group a slot is read in. */
export function groupOf(slot: Slot): Group {
  return slotFacts[slot].group
}

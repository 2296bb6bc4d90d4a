import { slotFacts, slots, type Slot } from '../data'

/** Everyday words for slots, beside their own names; without number, in small letters. */
const everyday: Readonly<Record<string, Slot>> = {
  'frame kit': 'frame',
  arm: 'frame',
  plate: 'frame',
  carbon: 'frame',
  shell: 'canopy',
  duct: 'guard',
  'prop guard': 'guard',
  bumper: 'guard',
  engine: 'motor',
  prop: 'propeller',
  blade: 'propeller',
  fc: 'board',
  'flight controller': 'board',
  'flight control': 'board',
  'flight board': 'board',
  aio: 'board',
  'all-in-one': 'board',
  'all in one': 'board',
  autopilot: 'board',
  esc: 'speed controller',
  escs: 'speed controller',
  'electronic speed controller': 'speed controller',
  '4-in-1': 'speed controller',
  '4in1': 'speed controller',
  '4 in 1': 'speed controller',
  pdb: 'power distribution',
  'distribution board': 'power distribution',
  regulator: 'power distribution',
  bec: 'power distribution',
  lead: 'power lead',
  'battery lead': 'power lead',
  'battery cable': 'power lead',
  'power cable': 'power lead',
  pigtail: 'power lead',
  cap: 'capacitor',
  cam: 'camera',
  'fpv camera': 'camera',
  vtx: 'video transmitter',
  'video tx': 'video transmitter',
  video: 'video transmitter',
  'video unit': 'video transmitter',
  antenna: 'aerial',
  antennae: 'aerial',
  rx: 'receiver',
  radio: 'receiver',
  'radio receiver': 'receiver',
  gps: 'navigation',
  gnss: 'navigation',
  compass: 'navigation',
  'satellite receiver': 'navigation',
  buzzer: 'sounder',
  beeper: 'sounder',
  finder: 'sounder',
  'battery strap': 'strap',
  band: 'strap',
  'rubber band': 'strap',
  'battery pad': 'pad',
  grip: 'pad',
  'grip pad': 'pad',
  bolt: 'screw',
  nut: 'screw',
  hardware: 'screw',
  fastener: 'screw',
  'stand-off': 'standoff',
  spacer: 'standoff',
  pillar: 'standoff',
  print: 'printed part',
  '3d print': 'printed part',
  '3d printed part': 'printed part',
  printed: 'printed part',
  mount: 'printed part',
  tpu: 'printed part',
  cable: 'wire',
  wiring: 'wire',
  'conformal coating': 'coating',
  coat: 'coating',
  lacquer: 'coating',
  solder: 'other',
  tape: 'other',
  'heat shrink': 'other',
  'heat-shrink': 'other',
  heatshrink: 'other',
  glue: 'other',
  'zip tie': 'other',
  tie: 'other',
  misc: 'other',
  miscellaneous: 'other',
  sundry: 'other',
  sundries: 'other',
  'action camera': 'payload',
  'action cam': 'payload',
  'hd camera': 'payload',
  load: 'payload',
  battery: 'pack',
  batteries: 'pack',
  batt: 'pack',
  lipo: 'pack',
  accumulator: 'pack',
  accu: 'pack',
}

/** The slot a builder means by a word, its own name or an everyday one, in one or many; null for a word that names none. */
export function slotNamed(text: string): Slot | null {
  const wanted = text.trim().toLowerCase().replace(/\s+/g, ' ')
  const singular = wanted.endsWith('s') ? wanted.slice(0, -1) : wanted
  const own = slots.find(
    slot =>
      slot === wanted ||
      slot === singular ||
      slotFacts[slot].label.toLowerCase() === wanted ||
      slotFacts[slot].label.toLowerCase() === singular,
  )
  return (
    own ??
    (Object.hasOwn(everyday, wanted)
      ? everyday[wanted]!
      : Object.hasOwn(everyday, singular)
        ? everyday[singular]!
        : null)
  )
}

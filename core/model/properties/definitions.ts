import { slots, type Slot } from '../ledger'
import type { Choice, Measure, Plain, Property, PropertyTable, PropertyUnit, Sense } from '../data'

const measure = (
  key: string,
  label: string,
  unit: PropertyUnit,
  least: number,
  most: number,
  sense: Sense = 'is',
): Measure => ({ kind: 'measure', key, label, unit, least, most, sense, whole: false })
const whole = (
  key: string,
  label: string,
  unit: PropertyUnit,
  least: number,
  most: number,
  sense: Sense = 'is',
): Measure => ({ ...measure(key, label, unit, least, most, sense), whole: true })
const choice = (key: string, label: string, choices: readonly string[]): Choice => ({
  kind: 'choice',
  key,
  label,
  unit: '',
  choices,
  sense: 'is',
})
const plain = (
  kind: Plain['kind'],
  key: string,
  label: string,
  sense: Sense = 'is',
  unit: PropertyUnit = '',
): Plain => ({ kind, key, label, unit, sense })

const cells = [
  whole('cellsMin', 'Cells, fewest', '', 1, 14, 'wants at least'),
  whole('cellsMax', 'Cells, most', '', 1, 14, 'bears at most'),
]
const supply = [
  measure('voltsMin', 'Volts, lowest', 'V', 0.5, 80, 'wants at least'),
  measure('voltsMax', 'Volts, highest', 'V', 0.5, 80, 'bears at most'),
]
const draw = [measure('drawA', 'Draws', 'A', 0, 50, 'draws'), measure('drawW', 'Draws', 'W', 0, 200, 'draws')]
const outline = [
  measure('widthMm', 'Width', 'mm', 1, 400),
  measure('lengthMm', 'Length', 'mm', 1, 400),
  measure('heightMm', 'Height', 'mm', 0.2, 200),
]
const pattern = plain('patterns', 'pattern', 'Hole pattern', 'is', 'mm')
const outputs = plain('outputs', 'outputs', 'Regulated outputs', 'gives', 'A')
const provides = plain('provides', 'provides', 'Also does the work of', 'gives')
/** How a pack is doing: a retired one is not flown. */
export const packStates = ['fine', 'tired', 'retired'] as const
export const chargePolicies = ['full', 'storage', 'own end voltage'] as const
const propMounts = ['two screws', 'pressed on a shaft', 'nut on a threaded shaft', 'snapped on'] as const
const videoFamily = plain('text', 'videoFamily', 'Video family')
const radioFamily = plain('text', 'radioFamily', 'Radio family')
const connector = plain('text', 'connector', 'Connector')
const plug = plain('text', 'plug', 'Plug')
const material = plain('text', 'material', 'Material')

/** What becomes of a pack over the years. */
const packLife = [
  choice('packState', 'State', packStates),
  plain('day', 'boughtOn', 'Bought on'),
  choice('chargePolicy', 'Charge policy', chargePolicies),
  measure('chargeToV', 'Own end voltage a cell', 'V', 2.5, 4.5),
  plain('day', 'lastChargedOn', 'Last charged on'),
  plain('text', 'cautions', 'Caution'),
]

/** Hands of polarisation. */
export const polarisations = ['left hand', 'right hand', 'linear'] as const

/** What a lens sees: its angle, along what it is told, how it draws, and the shape of its picture. */
const view = [
  measure('viewDeg', 'Field of view, degrees', '', 20, 220),
  choice('viewAlong', 'Field of view is told', ['across', 'up', 'diagonal']),
  choice('lens', 'Lens draws', ['straight lines straight', 'wide']),
  choice('aspect', 'Shape of the picture', ['4:3', '16:9', '1:1']),
]
/** How arms lie: squarely, longer than wide, a little wider, or much wider so that props stay out of the picture. */
export const armLayouts = ['X', 'stretched', 'hybrid', 'wide'] as const

const table: PropertyTable = {
  frame: [
    measure('propMaxMm', 'Largest prop', 'mm', 20, 400, 'bears at most'),
    measure('ductMm', 'Duct, inside', 'mm', 20, 400, 'bears at most'),
    measure('wheelbaseMm', 'Motor to motor, diagonal', 'mm', 30, 700),
    plain('patterns', 'motorPatterns', 'Motor patterns', 'is', 'mm'),
    plain('patterns', 'boardPatterns', 'Board patterns', 'is', 'mm'),
    measure('freeHeightMm', 'Free height between plates', 'mm', 1, 200, 'bears at most'),
    measure('cameraWidthMm', 'Camera width', 'mm', 5, 60),
    measure('armThicknessMm', 'Arm thickness', 'mm', 0.5, 12),
    measure('plateThicknessMm', 'Plate thickness', 'mm', 0.5, 12),
    choice('make', 'Made as', ['one piece', 'single arms', 'one shared motor plate']),
    measure('trayLengthMm', 'Pack tray, length', 'mm', 5, 300, 'bears at most'),
    measure('trayWidthMm', 'Pack tray, width', 'mm', 5, 300, 'bears at most'),
    measure('trayFrontMm', 'Pack tray, front edge ahead of the middle', 'mm', -150, 300),
    choice('armLayout', 'Arms', armLayouts),
    measure('spacingForwardMm', 'Motor to motor, along the nose', 'mm', 20, 600),
    measure('spacingSidewaysMm', 'Motor to motor, across', 'mm', 20, 600),
  ],
  canopy: [
    measure('cameraWidthMm', 'Camera width', 'mm', 5, 60),
    measure('heightMm', 'Height', 'mm', 1, 200),
    material,
  ],
  guard: [measure('ductMm', 'Guard, inside', 'mm', 20, 400, 'bears at most'), material],
  motor: [
    measure('statorDiameterMm', 'Stator, diameter', 'mm', 3, 60),
    measure('statorHeightMm', 'Stator, height', 'mm', 1, 40),
    measure('kv', 'Turns per volt', 'kV', 100, 50_000),
    ...cells,
    pattern,
    measure('shaftMm', 'Shaft', 'mm', 0.5, 10),
    choice('propMount', 'Prop mounting', propMounts),
    choice('screwThread', 'Screw thread', ['M1', 'M1.2', 'M1.4', 'M1.6', 'M2', 'M2.5', 'M3']),
    measure('screwDepthMm', 'Depth free for screws', 'mm', 0.3, 20, 'bears at most'),
    measure('leadLengthMm', 'Lead length', 'mm', 0, 500),
    { ...plug, label: 'Plug on its leads' },
    whole('leadAwg', 'Lead gauge', 'AWG', 10, 36),
    measure('resistanceMohm', 'Resistance', 'mΩ', 1, 5000),
    measure('maxCurrentA', 'Most current', 'A', 0.1, 100, 'draws'),
    plain('bench', 'bench', 'Bench table'),
    provides,
  ],
  propeller: [
    measure('diameterMm', 'Diameter', 'mm', 20, 400),
    measure('pitchMm', 'Pitch', 'mm', 5, 300),
    whole('blades', 'Blades', '', 1, 8),
    choice('mount', 'Mounting', propMounts),
    measure('shaftMm', 'Hole', 'mm', 0.5, 10),
    plain('yes', 'directionPair', 'Sold as a pair of both directions'),
  ],
  board: [
    pattern,
    ...outline,
    ...cells,
    measure('ampsContinuous', 'Amps a motor, continuous', 'A', 0.5, 200, 'bears at most'),
    measure('ampsBurst', 'Amps a motor, burst', 'A', 0.5, 300, 'bears at most'),
    outputs,
    radioFamily,
    videoFamily,
    plain('yes', 'laysFiguresOver', 'Picture goes through it, figures laid over'),
    ...draw,
    provides,
  ],
  'speed controller': [
    pattern,
    ...outline,
    ...cells,
    measure('ampsContinuous', 'Amps a motor, continuous', 'A', 0.5, 200, 'bears at most'),
    measure('ampsBurst', 'Amps a motor, burst', 'A', 0.5, 300, 'bears at most'),
    outputs,
  ],
  'power distribution': [
    pattern,
    ...outline,
    ...cells,
    measure('ampsContinuous', 'Amps through, continuous', 'A', 1, 400, 'bears at most'),
    outputs,
  ],
  'power lead': [whole('awg', 'Gauge', 'AWG', 10, 36), measure('lengthMm', 'Length', 'mm', 5, 500), plug],
  capacitor: [
    measure('capacitanceUf', 'Capacitance', 'µF', 1, 10_000),
    measure('ratedV', 'Rated', 'V', 2, 200, 'bears at most'),
    measure('diameterMm', 'Diameter', 'mm', 2, 40),
    measure('lengthMm', 'Length', 'mm', 2, 80),
  ],
  camera: [measure('widthMm', 'Width', 'mm', 5, 60), videoFamily, ...supply, ...draw, ...view],
  'video transmitter': [
    videoFamily,
    ...supply,
    ...draw,
    measure('powerMw', 'Transmits at most', 'mW', 0.1, 5000),
    pattern,
    ...outline,
    plain('text', 'aerialConnector', 'Aerial connector'),
    outputs,
    provides,
  ],
  aerial: [
    connector,
    choice('polarisation', 'Hand of polarisation', polarisations),
    measure('bandLowMhz', 'Band, from', 'MHz', 100, 10_000),
    measure('bandHighMhz', 'Band, to', 'MHz', 100, 10_000),
    choice('serves', 'Serves', ['video', 'radio']),
    measure('heightMm', 'Height', 'mm', 1, 300),
  ],
  receiver: [
    radioFamily,
    ...supply,
    ...draw,
    whole('aerials', 'Aerials', '', 0, 4, 'wants at least'),
    plain('text', 'aerialConnector', 'Aerial connector'),
    ...outline,
    plain('yes', 'aerialOn', 'Aerial is part of it'),
  ],
  navigation: [...supply, ...draw, ...outline],
  sounder: [...supply, ...draw, plain('yes', 'selfPowered', 'Has a cell of its own')],
  strap: [measure('lengthMm', 'Length', 'mm', 20, 600), measure('widthMm', 'Width', 'mm', 2, 60), material],
  pad: [
    measure('lengthMm', 'Length', 'mm', 2, 300),
    measure('widthMm', 'Width', 'mm', 2, 200),
    measure('thicknessMm', 'Thickness', 'mm', 0.1, 20),
  ],
  screw: [
    choice('thread', 'Thread', ['M1', 'M1.2', 'M1.4', 'M1.6', 'M2', 'M2.5', 'M3', 'M4']),
    measure('lengthMm', 'Length', 'mm', 1, 80),
    choice('head', 'Head', ['socket cap', 'button', 'pan', 'countersunk']),
    material,
  ],
  standoff: [
    choice('thread', 'Thread', ['M1.4', 'M1.6', 'M2', 'M2.5', 'M3']),
    measure('lengthMm', 'Length', 'mm', 2, 100),
    measure('outerMm', 'Outside', 'mm', 2, 20),
    material,
  ],
  'printed part': [material, measure('volumeCm3', 'Volume, cm³', '', 0.01, 500)],
  wire: [whole('awg', 'Gauge', 'AWG', 10, 36), measure('lengthMm', 'Length', 'mm', 1, 5000)],
  coating: [material, measure('areaCm2', 'Area, cm²', '', 0.1, 1000)],
  other: [material],
  payload: [...supply, ...draw, ...outline, videoFamily, provides, ...view],
  pack: [
    ...outline,
    measure('resistanceMohm', 'Resistance of a cell', 'mΩ', 0.5, 500),
    choice('resistanceFrom', 'Resistance is', ['measured', 'assumed']),
    plain('yes', 'balanceLead', 'Has a balance lead'),
    ...packLife,
  ],
}

/** The properties of a kind, in the order they are asked for. */
export function propertiesOf(slot: Slot): readonly Property[] {
  return table[slot]
}

const byKey = new Map(slots.map(slot => [slot, new Map(table[slot].map(property => [property.key, property]))]))

export function propertyNamed(slot: Slot, key: string): Property | undefined {
  return byKey.get(slot)!.get(key)
}

/** Slots whose parts want volts and amps from a feed. */
export const poweredSlots: readonly Slot[] = slots.filter(slot =>
  table[slot].some(property => property.key === 'drawA'),
)

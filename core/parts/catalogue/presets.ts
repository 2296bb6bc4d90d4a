import { CoreInputError } from '../../basics/errors'
import { makeLine, makeMass, slotFacts, type Chemistry, type Line, type Slot } from '../../model/ledger'
import { countedG, materialNamed, screwForm, screwG } from '../../mass/mass-calculators'
import { typicalMass, typicalPackFacts, typicalProperties } from './typical'

/** One usual line of a craft class: slot, class of part, how many. */
type PresetLine = readonly [slot: Slot, partClass: string, quantity?: number]
/** What the facts have no class for, as a range in grams that is a guess and says so. */
interface Guessed {
  readonly slot: Slot
  readonly name: string
  readonly lowG: number
  readonly highG: number
}
/** Screws of one kind: thread, head, length in mm, how many, what they hold. */
type ScrewSet = readonly [thread: string, head: string, lengthMm: number, count: number, holds: string]
interface Preset {
  readonly name: string
  readonly lines: readonly PresetLine[]
  readonly guessed?: readonly Guessed[]
  readonly screws: readonly ScrewSet[]
  /** Solder joints, where the facts' solder of a whole build would be too much for so small a craft. */
  readonly joints?: number
  /** Chemistry of the pack, where it is not the one its class has. */
  readonly chemistry?: Chemistry
}

/** Grams of one solder joint. Our choice. */
const jointG = 0.02
/** Screws of a class are of the usual sizes; another choice weighs up to a quarter more or less. Our choice. */
const screwSpread = 0.25
/** Joints are large or small. Our choice. */
const jointSpread = 0.5

const large: readonly PresetLine[] = [
  ['other', 'solder for a whole build'],
  ['other', 'tape and heat-shrink for a whole build'],
]
const open35: readonly PresetLine[] = [
  ['power lead', '30 A class plug and 16-18 AWG'],
  ['capacitor', '220-470 uF 25-35 V'],
  ['camera', 'digital nano'],
  ['video transmitter', 'digital light'],
  ['aerial', 'circular stub'],
  ['receiver', '2.4 GHz ceramic or wire'],
]
const ducted1S: readonly PresetLine[] = [
  ['power lead', '1S plug and lead'],
  ['canopy', '1S whoop'],
]
const tape = (lowG: number, highG: number): Guessed => ({ slot: 'other', name: 'Tape and heat-shrink', lowG, highG })
const motors9 = (lengthMm: number): ScrewSet => ['M2', 'button', lengthMm, 16, 'motors']

/**
 * The usual slots of each craft class. Every class counts screws, solder and tape that suit its size, so that a plan is
 * not silently short.
 */
export const craftPresets: readonly Preset[] = [
  {
    name: '65 mm ducted',
    chemistry: 'LiHV',
    joints: 8,
    guessed: [tape(0.05, 0.2)],
    screws: [
      ['M1.4', 'pan', 3, 12, 'motors'],
      ['M1.4', 'pan', 4, 4, 'board and canopy'],
    ],
    lines: [
      ['frame', '65 mm ducted'],
      ['motor', '0802', 4],
      ['propeller', '31 mm', 4],
      ['board', 'all-in-one 1S'],
      ...ducted1S,
      ['camera', 'analogue nano'],
      ['video transmitter', 'analogue 25-400 mW'],
      ['aerial', 'wire dipole'],
      ['pack', '1S 300 mAh'],
    ],
  },
  {
    name: '75 mm ducted',
    chemistry: 'LiHV',
    joints: 10,
    guessed: [tape(0.05, 0.3)],
    screws: [
      ['M1.4', 'pan', 3, 12, 'motors'],
      ['M1.4', 'pan', 4, 4, 'board and canopy'],
    ],
    lines: [
      ['frame', '75 mm ducted'],
      ['motor', '1002', 4],
      ['propeller', '40 mm', 4],
      ['board', 'all-in-one 1S'],
      ...ducted1S,
      ['camera', 'digital nano'],
      ['video transmitter', 'digital whoop class'],
      ['aerial', 'wire dipole'],
      ['pack', '1S 450 mAh'],
    ],
  },
  {
    name: '85 mm ducted',
    joints: 20,
    guessed: [tape(0.1, 0.5)],
    screws: [
      ['M1.4', 'pan', 4, 16, 'motors'],
      ['M2', 'button', 6, 4, 'board and canopy'],
    ],
    lines: [
      ['frame', '85 mm ducted'],
      ['canopy', '2-3 inch printed'],
      ['motor', '1103', 4],
      ['propeller', '2 in', 4],
      ['board', 'all-in-one 2-4S 12-20 A'],
      ['power lead', '30 A class plug and 16-18 AWG'],
      ['camera', 'analogue nano'],
      ['video transmitter', 'analogue 25-400 mW'],
      ['aerial', 'wire dipole'],
      ['receiver', '2.4 GHz ceramic or wire'],
      ['strap', 'fabric 10-12 mm'],
      ['pack', '2S 450 mAh'],
    ],
  },
  {
    name: '2.5-inch open',
    joints: 30,
    guessed: [tape(0.1, 0.6)],
    screws: [
      ['M1.4', 'pan', 5, 16, 'motors'],
      ['M2', 'button', 8, 4, 'board and canopy'],
    ],
    lines: [
      ['frame', '2.5-inch open'],
      ['canopy', '2-3 inch printed'],
      ['motor', '1103', 4],
      ['propeller', '2.5 in', 4],
      ['board', 'all-in-one 2-4S 12-20 A'],
      ['power lead', '30 A class plug and 16-18 AWG'],
      ['capacitor', '220-470 uF 25-35 V'],
      ['camera', 'analogue nano'],
      ['video transmitter', 'analogue 25-400 mW'],
      ['aerial', 'wire dipole'],
      ['receiver', '2.4 GHz ceramic or wire'],
      ['strap', 'fabric 10-12 mm'],
      ['pack', '2S 450 mAh'],
    ],
  },
  {
    name: '2.5-inch ducted',
    guessed: [{ slot: 'frame', name: 'Frame with ducts, 2.5-inch', lowG: 40, highG: 75 }],
    screws: [
      ['M2', 'button', 6, 16, 'motors'],
      ['M2', 'button', 8, 8, 'ducts and plates'],
    ],
    lines: [
      ['motor', '1404', 4],
      ['propeller', '2.5 in', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ...open35,
      ['strap', 'fabric 15-20 mm'],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 650 mAh'],
    ],
  },
  {
    name: '3-inch ultralight',
    screws: [motors9(6), ['M2', 'button', 10, 4, 'board and canopy']],
    lines: [
      ['frame', '3-inch open ultralight'],
      ['canopy', '2-3 inch printed'],
      ['motor', '1404', 4],
      ['propeller', '3 in three-blade', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ['power lead', '30 A class plug and 16-18 AWG'],
      ['capacitor', '220-470 uF 25-35 V'],
      ['camera', 'digital micro'],
      ['video transmitter', 'digital light'],
      ['aerial', 'circular stub'],
      ['receiver', '2.4 GHz ceramic or wire'],
      ['strap', 'fabric 15-20 mm'],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 650 mAh'],
    ],
  },
  {
    name: '3-inch ducted',
    guessed: [{ slot: 'frame', name: 'Frame with ducts, 3-inch', lowG: 55, highG: 100 }],
    screws: [motors9(6), ['M2', 'button', 8, 12, 'ducts and plates']],
    lines: [
      ['motor', '1507', 4],
      ['propeller', '3 in three-blade', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ...open35,
      ['strap', 'fabric 15-20 mm'],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 850 mAh'],
    ],
  },
  {
    name: '3.5-inch open',
    screws: [motors9(7), ['M2', 'button', 6, 12, 'plates and standoffs']],
    lines: [
      ['frame', '3.5-inch freestyle'],
      ['motor', '1404', 4],
      ['propeller', '3.5 in', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ...open35,
      ['standoff', '20-25 mm aluminium', 6],
      ['strap', 'fabric 15-20 mm'],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 650 mAh'],
    ],
  },
  {
    name: '3.5-inch ducted',
    guessed: [{ slot: 'frame', name: 'Frame with ducts, 3.5-inch', lowG: 70, highG: 130 }],
    screws: [motors9(7), ['M2', 'button', 8, 12, 'ducts and plates']],
    lines: [
      ['motor', '2004', 4],
      ['propeller', '3.5 in', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ...open35,
      ['strap', 'fabric 15-20 mm'],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 850 mAh'],
    ],
  },
  {
    name: '4-inch long range',
    screws: [motors9(7), ['M2', 'button', 6, 12, 'plates and standoffs']],
    lines: [
      ['frame', '4-inch ultralight'],
      ['motor', '1404', 4],
      ['propeller', '4 in', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ['power lead', '30 A class plug and 16-18 AWG'],
      ['capacitor', '220-470 uF 25-35 V'],
      ['camera', 'digital nano'],
      ['video transmitter', 'digital light'],
      ['aerial', 'circular stub'],
      ['receiver', '2.4 GHz two-aerial'],
      ['navigation', 'small satellite receiver'],
      ['sounder', 'self-powered or plain'],
      ['standoff', '20-25 mm aluminium', 6],
      ['strap', 'fabric 15-20 mm', 2],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 3000 mAh lithium-ion'],
    ],
  },
  {
    name: '5-inch ultralight',
    screws: [
      ['M2', 'button', 8, 16, 'motors'],
      ['M3', 'button', 8, 12, 'plates and standoffs'],
    ],
    lines: [
      ['frame', '5-inch ultralight'],
      ['motor', '2004', 4],
      ['propeller', '5 in', 4],
      ['board', 'all-in-one 4-6S 35-45 A'],
      ...open35,
      ['standoff', '20-25 mm aluminium', 6],
      ['strap', 'fabric 15-20 mm'],
      ['pad', 'pack grip pad'],
      ...large,
      ['pack', '4S 650 mAh'],
    ],
  },
]

/** The slots a craft of a class needs; null for a class that is not there. */
export function slotsOfClass(craftClass: string): ReadonlySet<Slot> | null {
  const preset = craftPresets.find(p => p.name === craftClass)
  return preset
    ? new Set([
        ...preset.lines.map(([slot]) => slot),
        ...(preset.guessed ?? []).map(({ slot }) => slot),
        ...(preset.screws.length > 0 ? ['screw' as const] : []),
      ])
    : null
}

/**
 * The lines of a craft class with typical masses; screws are worked out of the usual sizes, and what the facts have no class
 * for is a guess. `newId` makes ids for lines and mass versions.
 * Throws {@link CoreInputError} for a class that is not there.
 */
export function presetLines(craftClass: string, newId: () => string): Line[] {
  const preset = craftPresets.find(p => p.name === craftClass)
  if (!preset)
    throw new CoreInputError('presetLines', 'craftClass', craftClass, {
      is: 'one of',
      what: 'one of the known classes',
    })
  const typical = preset.lines.map(line => typicalLine(line, preset, newId))
  const before = typical.findIndex(line => line.slot === 'pack')
  const more = [
    ...preset.screws.map(set => screwLine(set, newId)),
    ...(preset.joints === undefined ? [] : [solderLine(preset.joints, newId)]),
  ]
  const guessed = (preset.guessed ?? []).map(one => guessedLine(one, newId))
  const [first, others] = [guessed.filter(line => line.slot === 'frame'), guessed.filter(line => line.slot !== 'frame')]
  return [...first, ...typical.slice(0, before), ...more, ...others, ...typical.slice(before)]
}

function typicalLine([slot, partClass, quantity = 1]: PresetLine, preset: Preset, newId: () => string): Line {
  const typical = typicalMass(slot, partClass)
  if (!typical)
    throw new CoreInputError('presetLines', 'partClass', `${slot} ${partClass}`, {
      is: 'one of',
      what: 'a class of the typical masses',
    })
  const facts = slot === 'pack' ? typicalPackFacts(partClass) : null
  return makeLine({
    id: newId(),
    slot,
    quantity,
    name: slot === 'other' ? capital(partClass) : `${slotFacts[slot].label}, ${partClass}`,
    mass: makeMass({
      versionId: newId(),
      evidence: 'typical',
      valueG: round4((typical.lowG + typical.highG) / 2),
      halfRangeG: round4((typical.highG - typical.lowG) / 2),
      origin: `typical for ${partClass}`,
    }),
    properties: typicalProperties(slot, partClass),
    pack: facts && {
      label: 'P1',
      ...facts,
      ...(preset.chemistry ? { chemistry: preset.chemistry } : {}),
      cRating: null,
      plug: '',
    },
  })
}

function screwLine([thread, head, lengthMm, count, holds]: ScrewSet, newId: () => string): Line {
  const material = 'alloy steel'
  const eachG = screwG(screwForm(thread, head), lengthMm, materialNamed(material)!.densityGPerCm3)
  return makeLine({
    id: newId(),
    slot: 'screw',
    quantity: count,
    name: `${thread} × ${lengthMm} ${head}, ${holds}`,
    properties: { thread, lengthMm, head, material },
    mass: makeMass({
      versionId: newId(),
      evidence: 'worked out',
      valueG: round4(eachG),
      resolutionG: 0.001,
      ownSpreadG: round4(screwSpread * eachG * count),
      origin: 'worked out of the usual size',
    }),
  })
}

function solderLine(joints: number, newId: () => string): Line {
  const grams = countedG(joints, jointG)
  return makeLine({
    id: newId(),
    slot: 'other',
    name: `Solder, ${joints} joints`,
    mass: makeMass({
      versionId: newId(),
      evidence: 'worked out',
      valueG: round4(grams),
      resolutionG: 0.001,
      ownSpreadG: round4(jointSpread * grams),
      origin: `${joints} joints of ${jointG} g`,
    }),
  })
}

function guessedLine({ slot, name, lowG, highG }: Guessed, newId: () => string): Line {
  return makeLine({
    id: newId(),
    slot,
    name: `${name} (guessed)`,
    mass: makeMass({
      versionId: newId(),
      evidence: 'guess',
      valueG: round4((lowG + highG) / 2),
      ownSpreadG: round4((highG - lowG) / 2),
      origin: 'guessed: the facts have no such class',
    }),
  })
}

/** The class ranges have one or two decimals; their middle is kept to four, free of binary dust. */
function round4(value: number): number {
  return Math.round(value * 1e4) / 1e4
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

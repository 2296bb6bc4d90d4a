import type { Line, Slot } from '../../model/ledger'
import { propertiesOfLine } from '../../model/properties'
import { materialNamed, materials, materialsFor, titaniumAlloy, screwForms, wireGauges } from './facts'
import { quarterWaveMm, spliceG, wiresG } from './wire'
import { safeLengths, screwForm, screwG, screwVerdict } from './screw'
import { countedG, filmG, materialSavesG, holeG, plateG, printedG, tubeG } from './solids'

/** A thing to be asked for: a measure with its unit, or a choice. */
export interface CalculatorInput {
  readonly key: string
  readonly label: string
  readonly unit: string
  /** What it could be, to show what is meant; never taken unless it is typed. */
  readonly example: string
  readonly choices: readonly string[] | null
}
/** What a calculator gives: grams, or a sentence where grams are not the question. */
export interface Worked {
  readonly grams: number | null
  readonly words: string
  readonly caution: string
}

type Values = Readonly<Record<string, string | number>>

/** A small sum builders do by hand. */
export interface Calculator {
  readonly key: string
  readonly title: string
  /** Whether the grams are of one piece of the line, of the whole line, or only said (a saving, a length). */
  readonly gives: 'each' | 'line' | 'advice'
  readonly asks: readonly CalculatorInput[]
  /** What can go wrong with it, said before anything is typed. */
  readonly caution?: string
  readonly work: (values: Values) => Worked
}

const measure = (key: string, label: string, unit: string, example: string): CalculatorInput => ({
  key,
  label,
  unit,
  example,
  choices: null,
})
const choice = (key: string, label: string, choices: readonly string[], example = choices[0]!): CalculatorInput => ({
  key,
  label,
  unit: '',
  example,
  choices,
})
const n = (values: Values, key: string) => Number(values[key])
const density = (values: Values) => materialNamed(String(values.material))!.densityGPerCm3
const noteOf = (values: Values) => materialNamed(String(values.material))?.note ?? ''
const names = (use: string) => materialsFor(use).map(material => material.name)
const grams = (value: number, words: string, caution = ''): Worked => ({ grams: value, words, caution })

const threads = [...new Set(screwForms.map(form => form.thread))]
const heads = [...new Set(screwForms.map(form => form.head))]
const gauges = wireGauges.map(gauge => String(gauge.awg))
const drilling =
  'Drilled or cut structure can fail in flight: never over people. Eyes, mask and wet cutting for carbon.'

/** The calculators, in the order they are offered. */
export const calculators: readonly Calculator[] = [
  {
    key: 'wire',
    title: 'Wire',
    gives: 'line',
    asks: [
      choice('awg', 'Gauge, AWG', gauges, '20'),
      measure('lengthMm', 'Length of each', 'mm', '60'),
      measure('count', 'How many', '', '1'),
    ],
    work: v =>
      grams(wiresG(n(v, 'awg'), n(v, 'lengthMm'), n(v, 'count')), `${v.count} × ${v.lengthMm} mm of AWG ${v.awg}`),
  },
  {
    key: 'trim',
    title: 'Trimming leads',
    gives: 'advice',
    asks: [
      choice('awg', 'Gauge, AWG', gauges, '28'),
      measure('lengthMm', 'Cut off each', 'mm', '20'),
      measure('count', 'How many leads', '', '12'),
    ],
    work: v =>
      grams(
        wiresG(n(v, 'awg'), n(v, 'lengthMm'), n(v, 'count')),
        `saved by cutting ${v.lengthMm} mm off ${v.count} leads of AWG ${v.awg}`,
      ),
  },
  {
    key: 'splice',
    title: 'Splicing leads longer',
    gives: 'advice',
    asks: [
      choice('awg', 'Gauge, AWG', gauges, '28'),
      measure('lengthMm', 'Longer by', 'mm', '30'),
      measure('count', 'How many leads', '', '3'),
    ],
    work: v =>
      grams(
        -spliceG(n(v, 'awg'), n(v, 'lengthMm'), n(v, 'count')),
        `off: ${v.count} leads of AWG ${v.awg} become ${v.lengthMm} mm longer, joints and sleeves included`,
      ),
  },
  {
    key: 'material',
    title: 'The same in another material',
    gives: 'advice',
    asks: [
      measure('gramsG', 'Weighs now', 'g', '5.59'),
      choice(
        'material',
        'Of',
        materials.map(material => material.name),
        'alloy steel',
      ),
      choice(
        'then',
        'Then of',
        materials.map(material => material.name),
        titaniumAlloy,
      ),
    ],
    work: v =>
      grams(
        materialSavesG(n(v, 'gramsG'), String(v.material), String(v.then)),
        `saved by ${String(v.then)} in place of ${String(v.material)}, the same size`,
        materialNamed(String(v.then))?.note ?? '',
      ),
  },
  {
    key: 'screw',
    title: 'Screw',
    gives: 'each',
    asks: [
      choice('thread', 'Thread', threads, 'M2'),
      choice('head', 'Head', heads, 'button'),
      measure('lengthMm', 'Length', 'mm', '8'),
      choice('material', 'Material', names('screw')),
    ],
    work: v =>
      grams(
        screwG(screwForm(String(v.thread), String(v.head)), n(v, 'lengthMm'), density(v)),
        `${v.thread} × ${v.lengthMm} ${v.head}, ${v.material}`,
        noteOf(v),
      ),
  },
  {
    key: 'joint',
    title: 'Screw length for a joint',
    gives: 'advice',
    asks: [
      measure('clampedMm', 'Clamped thickness', 'mm', '3'),
      measure('engagementMm', 'Thread to hold', 'mm', '2'),
      measure('freeDepthMm', 'Free depth', 'mm', '3.5'),
      measure('lengthMm', 'Screw at hand', 'mm', '6'),
    ],
    work(v) {
      const joint = {
        clampedMm: n(v, 'clampedMm'),
        engagementMm: n(v, 'engagementMm'),
        freeDepthMm: n(v, 'freeDepthMm'),
      }
      const { shortestMm, longestMm } = safeLengths(joint)
      if (longestMm < shortestMm)
        return {
          grams: null,
          words:
            `No length fits: it wants ${shortestMm} mm to hold and touches something beyond ${longestMm} mm. ` +
            `A washer or a nut below makes room.`,
          caution: '',
        }
      const said = {
        fits: 'fits',
        'too short': 'holds too few threads',
        'too long': 'would touch what lies beyond (windings, a board, a cell)',
      }[screwVerdict(joint, n(v, 'lengthMm'))]
      return { grams: null, words: `From ${shortestMm} to ${longestMm} mm; ${v.lengthMm} mm ${said}.`, caution: '' }
    },
  },
  {
    key: 'plate',
    title: 'Flat plate',
    gives: 'each',
    asks: [
      measure('areaMm2', 'Area', 'mm²', '2000'),
      measure('thicknessMm', 'Thickness', 'mm', '2'),
      choice('material', 'Material', names('plate')),
      measure('diameterMm', 'Holes, diameter', 'mm', '3'),
      measure('count', 'How many holes', '', '4'),
    ],
    work: v =>
      grams(
        plateG(n(v, 'areaMm2'), n(v, 'thicknessMm'), density(v), [
          { diameterMm: n(v, 'diameterMm'), count: n(v, 'count') },
        ]),
        `${v.areaMm2} mm² of ${v.thicknessMm} mm ${v.material}`,
        noteOf(v),
      ),
  },
  {
    key: 'hole',
    title: 'Drilling holes',
    gives: 'advice',
    caution: drilling,
    asks: [
      measure('diameterMm', 'Diameter', 'mm', '6'),
      measure('thicknessMm', 'Thickness', 'mm', '3'),
      choice('material', 'Material', [...names('plate'), ...names('print'), 'nylon 6/6']),
      measure('count', 'How many', '', '8'),
    ],
    work: v =>
      grams(
        holeG(n(v, 'diameterMm'), n(v, 'thicknessMm'), density(v), n(v, 'count')),
        `taken off by ${v.count} holes of ${v.diameterMm} mm`,
      ),
  },
  {
    key: 'printed',
    title: 'Printed part',
    gives: 'each',
    asks: [
      measure('volumeCm3', 'Volume', 'cm³', '3'),
      measure('wallCm3', 'of it walls', 'cm³', '1.5'),
      measure('fill', 'Fill', '%', '20'),
      choice('material', 'Material', names('print')),
    ],
    work: v =>
      grams(
        printedG(n(v, 'volumeCm3'), n(v, 'wallCm3'), n(v, 'fill') / 100, density(v)),
        `${v.volumeCm3} cm³, ${v.fill} % filled, ${v.material}`,
      ),
  },
  {
    key: 'tube',
    title: 'Standoff, spacer or tube',
    gives: 'each',
    asks: [
      measure('outerMm', 'Outside', 'mm', '5'),
      measure('innerMm', 'Inside', 'mm', '2.2'),
      measure('lengthMm', 'Length', 'mm', '20'),
      choice('material', 'Material', [...names('standoff'), 'carbon-fibre plate', 'silicone rubber']),
    ],
    work: v =>
      grams(
        tubeG(n(v, 'outerMm'), n(v, 'innerMm'), n(v, 'lengthMm'), density(v)),
        `${v.outerMm}/${v.innerMm} mm, ${v.lengthMm} mm, ${v.material}`,
        noteOf(v),
      ),
  },
  {
    key: 'film',
    title: 'Coating or tape',
    gives: 'line',
    asks: [
      measure('areaCm2', 'Area', 'cm²', '20'),
      measure('filmMm', 'Film', 'mm', '0.05'),
      choice('material', 'Material', [...names('coating'), ...names('pad')]),
    ],
    work: v =>
      grams(
        filmG(n(v, 'areaCm2'), n(v, 'filmMm'), density(v)),
        `${v.areaCm2} cm², ${v.filmMm} mm of ${v.material}`,
        noteOf(v),
      ),
  },
  {
    key: 'counted',
    title: 'Solder joints, ties, dots of glue',
    gives: 'line',
    asks: [measure('count', 'How many', '', '24'), measure('eachG', 'Each', 'g', '0.02')],
    work: v => grams(countedG(n(v, 'count'), n(v, 'eachG')), `${v.count} of ${v.eachG} g`),
  },
  {
    key: 'aerial',
    title: 'Quarter-wave aerial',
    gives: 'advice',
    caution: 'Aerial on before a transmitter is powered.',
    asks: [
      measure('frequencyMhz', 'Frequency', 'MHz', '2440'),
      measure('velocityFactor', 'Velocity factor', '', '0.95'),
    ],
    work: v => ({
      grams: null,
      words: `Leave ${quarterWaveMm(n(v, 'frequencyMhz'), n(v, 'velocityFactor')).toFixed(1)} mm exposed.`,
      caution: '',
    }),
  },
]

const shapes = ['plate', 'printed', 'hole'] as const
const forSlot: Partial<Record<Slot, readonly string[]>> = {
  wire: ['wire'],
  'power lead': ['wire'],
  screw: ['screw', 'joint'],
  standoff: ['tube'],
  'printed part': ['printed'],
  frame: shapes,
  canopy: ['printed'],
  guard: ['printed'],
  pad: ['film', 'plate'],
  strap: ['plate'],
  coating: ['film'],
  aerial: ['wire', 'aerial'],
  motor: ['trim'],
  payload: ['printed', 'plate'],
  other: ['counted', 'wire', 'film', 'plate', 'tube', 'printed'],
}

/** What can be worked out of a part of this kind from its dimensions, the most usual first; none where only a scale can tell. */
export function calculatorsFor(slot: Slot): readonly Calculator[] {
  return (forSlot[slot] ?? []).map(key => calculators.find(calculator => calculator.key === key)!)
}

/** The choice a builder's own words mean: by name, or the only one they stand in ("titanium"); "steel" may be either. */
function meant(choices: readonly string[], said: string): string | undefined {
  if (choices.includes(said)) return said
  const words = said.trim().toLowerCase()
  const having = words === '' ? [] : choices.filter(choice => choice.toLowerCase().includes(words))
  return having.length === 1 ? having[0] : undefined
}

/** What a line's properties already say of what a calculator asks; the rest has to be typed. */
export function answersOf(
  calculator: Calculator,
  line: Pick<Line, 'properties' | 'pack'>,
): Readonly<Record<string, string>> {
  const properties = propertiesOfLine(line)
  return Object.fromEntries(
    calculator.asks.flatMap(({ key, choices }) => {
      const value = properties[key]
      if (typeof value !== 'number' && typeof value !== 'string') return []
      const answer = choices ? meant(choices, String(value)) : String(value)
      return answer === undefined ? [] : [[key, answer]]
    }),
  )
}

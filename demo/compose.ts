/**
 * Writes the demo builds in `demo/builds` from the scenario below, through the application's own commands, so that their
 * journals are real. Run with `npm run demo:compose`; the files it writes are what the demo loads.
 */
import { mkdtempSync, readFileSync, readdirSync, writeFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { gzipSync } from 'node:zlib'
import { join } from 'node:path'
import type { WorkedFlight } from '../core/aircraft/flown'
import type { Command } from '../core/changes/commands'
import {
  blankAim,
  makeLine,
  makeMass,
  type Evidence,
  type Line,
  type Mass,
  type PackFacts,
  type Slot,
} from '../core/model/ledger'
import { typicalMass } from '../core/parts/catalogue'
import type { FlightPlan } from '../core/aircraft/power'
import { makeApplication } from '../server/services/application'
import { demoKits, demoParts } from './drawer'
import { logOf, loggedFlights } from './logs'
import { demoFindings, demoSeasons, demoSettings, lastDemoDay } from './flights'
import { flySeason } from '../simulators/flights/season'
import { flightPlanOf } from '../core/aircraft/flight'
import { ListingBiasTable } from '../core/mass/listings'
import { estimatesOf } from '../core/mass/loadout'
import { nougatShavings } from './shavings'
import { assemblyOfDemo } from './assembly'
import { fitOf } from './fit'
import { knownOf } from './properties'

const here = import.meta.dirname
const migrationFolder = join(here, '../server/db/migrations')
const migrations = readdirSync(migrationFolder).map(name => ({
  name,
  sql: readFileSync(join(migrationFolder, name), 'utf8'),
}))
const folder = mkdtempSync(join(tmpdir(), 'demo-'))
const evening = Date.parse('2026-10-03T18:10:00Z')
const dayMs = 86_400_000
let day = 0
let clock = evening
const app = makeApplication(join(folder, 'demo.sqlite'), migrations, () => new Date(clock).toISOString())
let counter = 0
const versionId = () => `m${++counter}`

const tramShed = {
  place: 'Quillhaven tram shed',
  purpose: 'winter indoor league',
  purposeKind: 'any' as const,
  comparator: '<=' as const,
  limit: { value: 30, unit: 'g' as const },
  counts: 'take-off' as const,
  conditions: [],
  within: ['may start in the 65 mm heats'],
  beyond: ['flies in the open heats after ten o’clock'],
  always: ['ducts on all four props', 'pilots stay behind the net'],
  source: 'notice on the tram shed door',
  status: 'in force' as const,
  since: null,
}

type Known = [evidence: Evidence, valueG: number, more?: Partial<Mass>]
function mass([evidence, valueG, more]: Known): Mass {
  return makeMass({ versionId: versionId(), evidence, valueG, ...more })
}
function typical(slot: Slot, partClass: string): Known {
  const t = typicalMass(slot, partClass)!
  return [
    'typical',
    (t.lowG + t.highG) / 2,
    { halfRangeG: Number(((t.highG - t.lowG) / 2).toFixed(4)), origin: `typical for ${partClass}` },
  ]
}
function line(
  id: string,
  slot: Slot,
  name: string,
  known: Known,
  more: Partial<Line> & { listed?: number } = {},
): Line {
  const { listed, ...rest } = more
  const m = mass(known)
  const listing =
    listed !== undefined
      ? { valueG: listed, resolutionG: Number.isInteger(listed) ? 1 : 0.1 }
      : known[0] === 'listed'
        ? { valueG: known[1], resolutionG: m.resolutionG }
        : null
  return makeLine({ id, slot, name, mass: m, listing, ...rest })
}
const w = (g: number, more: Partial<Mass> = {}): Known => ['weighed', g, more]
/** Weighed as it came, so that it can be held against its listing. */
const ws = (g: number, more: Partial<Mass> = {}): Known => ['weighed', g, { basis: 'as supplied', ...more }]
const four = (totalG: number, more: Partial<Mass> = {}): Known => ['weighed', totalG, { valueCount: 4, ...more }]
const pack = (
  label: string,
  cells: number,
  capacityMah: number,
  plug: string,
  chemistry: PackFacts['chemistry'] = 'LiPo',
  cRating: number | null = 75,
): PackFacts => ({ label, cells, chemistry, capacityMah, cRating, plug })

interface Story {
  flying?: Partial<FlightPlan>
  id: string
  name: string
  craftClass: string
  lines: Line[]
  setups: { id: string; name: string; lineIds: string[] }[]
  flies: [string, string]
  steps: [note: string, command: Command][]
  /** It was planned from listings and guesses, and weighed over the first evenings. */
  planned?: boolean
  /** What the builder calls the day of a step, by its number. */
  marks?: Record<number, string>
}

/** Guesses are too low more often than too high. */
const guessedAs = (id: string) => [0.85, 0.94, 1.08, 0.97, 1.03][id.length % 5]!

/** What a part was thought to weigh before it lay on the scale. */
function thought(one: Line): Line {
  const { id, listing, mass: known, quantity } = one
  const base = { versionId: `plan-${id}`, valueCount: 1 }
  return {
    ...one,
    mass: listing
      ? makeMass({ ...base, evidence: 'listed', ...listing, basis: 'as supplied' })
      : makeMass({
          ...base,
          evidence: 'guess',
          valueG: Number(((known!.valueG / known!.valueCount) * guessedAs(id)).toFixed(quantity > 4 ? 2 : 1)),
        }),
  }
}
/** The parts weighed on one of the first evenings: the camera before its case comes off. */
const weighedOn = ({ slot }: Line, i: number): number => (slot === 'payload' ? 0 : i % 4)

async function tell({
  flying,
  id,
  name,
  craftClass,
  lines,
  setups,
  flies,
  steps,
  planned,
  marks,
}: Story): Promise<void> {
  clock = evening + ++day * dayMs
  await app.builds.insert(
    {
      id,
      name,
      craftClass,
      archived: false,
      reference: null,
      aim: blankAim(),
      lines: [],
      setups: [{ id: 'as-built', name: 'as built', lineIds: [] }],
      flies: { setupId: 'as-built', packLineId: null },
      neverFlown: [],
      observations: [],
      fit: null,
      flying: null,
      shave: null,
      assembly: assemblyOfDemo[id] ?? null,
      places: null,
      shelf: null,
    },
    [],
    [],
  )
  let revision = 1
  const run = async (note: string, command: Command) => {
    clock += 60_000 * (7 + ((revision * 13) % 23))
    revision = (await app.builds.command(id, revision, command, note)).revision
  }
  const first = planned ? lines.map(thought) : lines
  await run('', { type: 'lines.add', lines: first.map(one => ({ ...one, ...knownOf[id]?.[one.id] })), beforeId: null })
  for (const setup of setups) await run('', { type: 'setup.put', setup })
  await run('', { type: 'loadout.fly', choice: { setupId: flies[0], packLineId: flies[1] } })
  if (fitOf[id]) await run('', { type: 'fit.set', fields: fitOf[id] })
  if (flying) await run('', { type: 'flying.set', fields: flying })
  for (const [i, [note, command]] of steps.entries()) {
    clock = evening + ++day * dayMs + revision * 480_000
    const onPan = planned ? lines.filter((one, at) => weighedOn(one, at) === i) : []
    if (onPan.length > 0)
      await run(i === 0 ? 'the parts came' : '', {
        type: 'lines.change',
        changes: onPan.map(({ id: lineId, mass: known }) => ({ id: lineId, fields: { mass: known } })),
      })
    await run(note, command)
    if (marks?.[i]) await app.builds.mark(id, app.builds.journal(id).entries[0]!.seq, marks[i])
  }
  writeFileSync(join(here, 'builds', `${id}.build.json`), app.files.exportBuild(id))
}

const reweigh = (id: string, known: Known): Command => ({
  type: 'lines.change',
  changes: [{ id, fields: { mass: mass(known) } }],
})
const aim = (fields: Partial<ReturnType<typeof blankAim>>): Command => ({ type: 'build.set', fields: { aim: fields } })

app.rules.add('tram-shed-30', tramShed)

await tell({
  id: 'sherbet',
  name: 'Sherbet',
  craftClass: '65 mm ducted, 1S',
  lines: [
    line('frame', 'frame', 'Tallow Works “Thimble” frame, 65 mm ducts', ws(3.42), { listed: 3.3, priceEachCents: 690 }),
    line('canopy', 'canopy', 'Clear canopy, 22° tilt', ws(1.04), { listed: 1, priceEachCents: 350 }),
    line('motors', 'motor', 'Ostler 0802, leads 40 mm', four(7.14, { basis: 'as supplied' }), {
      quantity: 4,
      listed: 1.73,
      priceEachCents: 890,
    }),
    line('props', 'propeller', 'Three-blade 31 mm, pressed on', ['listed', 0.24], { quantity: 4, priceEachCents: 45 }),
    line('board', 'board', 'Nettle & Daughter all-in-one 1S, 5 A, radio inside', ws(3.58), {
      listed: 3.4,
      priceEachCents: 5490,
    }),
    line('lead', 'power lead', 'Pigtail with two round pins 1.0 mm', w(0.72), { priceEachCents: 250 }),
    line('camera', 'camera', 'Analogue nano camera, case off', w(1.31), { listed: 2.6, priceEachCents: 1690 }),
    line('aerial', 'aerial', 'Wire dipole, trimmed', w(0.21), { priceEachCents: 90 }),
    line('screws', 'screw', 'M1.4 × 4 pan, seven of them', w(0.41, { valueCount: 7 }), {
      quantity: 7,
      priceEachCents: 4,
    }),
    line('sundries', 'other', 'Solder, one turn of tape', ['guess', 0.3]),
    line('s1', 'pack', 'Single cell 300 mAh, high voltage', ws(7.61), {
      listed: 7.5,
      priceEachCents: 590,
      pack: pack('S1', 1, 300, 'two round pins 1.0 mm', 'LiHV'),
    }),
    line('s2', 'pack', 'Single cell 300 mAh, high voltage', ws(7.83), {
      listed: 7.5,
      priceEachCents: 590,
      pack: pack('S2', 1, 300, 'two round pins 1.0 mm', 'LiHV'),
    }),
  ],
  setups: [],
  flies: ['as-built', 's1'],
  flying: { style: 'race', temperatureC: 14, reservePercent: 10 },
  steps: [
    [
      '',
      aim({
        purpose: 'winter indoor league',
        places: ['Quillhaven tram shed'],
        cardIds: ['tram-shed-30'],
        goalDryG: 20.5,
        goalMinutes: 3,
        goalPriceCents: 12000,
      }),
    ],
    ['props on the little scale at last', reweigh('props', four(0.97, { basis: 'as supplied' }))],
    ['weighed the finished thing before and after soldering', reweigh('sundries', w(0.24))],
  ],
})

await tell({
  id: 'praline',
  name: 'Praline',
  craftClass: '2.5-inch open, 2S',
  lines: [
    line('frame', 'frame', 'Pocket Foundry “Wicket” one-piece, 2 mm', ws(14.18), {
      listed: 13.5,
      priceEachCents: 1890,
    }),
    line('canopy', 'canopy', 'Printed canopy, soft filament', w(2.88), { priceEachCents: 300 }),
    line('motors', 'motor', 'Ostler 1202.5, leads cut to 45 mm', w(4.61, { pieceReadingsG: [4.6, 4.63, 4.61, 4.6] }), {
      quantity: 4,
      listed: 4.8,
      priceEachCents: 1290,
    }),
    line('props', 'propeller', 'Three-blade 2.5 in, pressed on', four(4.52, { basis: 'as supplied' }), {
      quantity: 4,
      listed: 1.1,
      priceEachCents: 60,
    }),
    line('board', 'board', 'Nettle & Daughter all-in-one, 12 A', ws(5.38), { listed: 5.2, priceEachCents: 6290 }),
    line('lead', 'power lead', 'AWG 18, 60 mm, two bullets 2 mm', ['worked out', 3.1], { priceEachCents: 320 }),
    line('capacitor', 'capacitor', '220 µF 25 V', ['listed', 1.3], { priceEachCents: 80 }),
    line('camera', 'camera', 'Analogue nano camera', ws(3.06), { listed: 2.9, priceEachCents: 1890 }),
    line('vtx', 'video transmitter', 'Fennel & Rook analogue 200 mW', ws(2.24), { listed: 2.1, priceEachCents: 2190 }),
    line('aerial', 'aerial', 'Wire dipole', w(0.34), { priceEachCents: 90 }),
    line('receiver', 'receiver', '2.4 GHz, ceramic aerial', ws(0.62), { listed: 0.6, priceEachCents: 1490 }),
    line('strap', 'strap', 'Fabric strap 10 mm, 120 mm', w(1.94), { priceEachCents: 120 }),
    line('screws', 'screw', 'M2 × 6 button, steel', ['worked out', 0.24], { quantity: 12, priceEachCents: 6 }),
    line('sundries', 'other', 'Solder, heat-shrink, two ties', ['guess', 1.4]),
    line('guards', 'guard', 'Bumpers, soft filament', w(4.86), {
      role: 'fitting',
      priceEachCents: 400,
      note: 'For the tram shed; the ridge does not need them.',
    }),
    line('lamp', 'payload', 'Clip-on tail lamp with its own cell', w(4.35), {
      role: 'payload',
      removable: true,
      tie: 'lamp',
      priceEachCents: 750,
    }),
    line('lampclip', 'payload', 'Printed clip for the lamp', w(0.62), {
      role: 'payload',
      removable: true,
      tie: 'lamp',
      priceEachCents: 50,
    }),
    line('q1', 'pack', '2S 450 mAh, soft case', w(25.42), {
      priceEachCents: 1090,
      pack: pack('Q1', 2, 450, 'two bullets 2 mm'),
    }),
    line('q2', 'pack', '2S 530 mAh, high voltage', w(30.18), {
      priceEachCents: 1390,
      pack: pack('Q2', 2, 530, 'two bullets 2 mm', 'LiHV'),
    }),
    line('q3', 'pack', '2S 850 mAh, from an older craft', w(46.9), {
      priceEachCents: 1490,
      pack: pack('Q3', 2, 850, 'two bullets 2 mm'),
    }),
  ],
  setups: [
    { id: 'guards', name: 'bumpers', lineIds: ['guards'] },
    { id: 'lamp', name: 'bumpers and lamp', lineIds: ['guards', 'lamp', 'lampclip'] },
  ],
  flies: ['guards', 'q2'],
  flying: { style: 'freestyle', temperatureC: 14 },
  steps: [
    [
      '',
      aim({
        purpose: 'harbour evenings',
        places: ['United Kingdom', 'Japan'],
        cardIds: ['uk-flyer-100', 'jp-100'],
        goalMinutes: 4,
        reserveG: 1,
      }),
    ],
    ['came with a longer strap, cut it', reweigh('strap', w(1.71))],
  ],
})

await tell({
  id: 'marzipan',
  name: 'Marzipan',
  craftClass: '3-inch ultralight, 4S',
  lines: [
    line('frame', 'frame', 'Fennel & Rook “Wren 3” plates, 3 mm arms', ['listed', 41.5, { resolutionG: 0.5 }], {
      priceEachCents: 3490,
    }),
    line('cradle', 'printed part', 'Printed camera cradle, soft filament', w(3.12), { priceEachCents: 250 }),
    line(
      'motors',
      'motor',
      'Ostler 1504, leads cut to 62 mm',
      w(10.94, { pieceReadingsG: [10.92, 10.97, 10.95, 10.92] }),
      { quantity: 4, listed: 11.2, priceEachCents: 1690 },
    ),
    line('props', 'propeller', 'Three-blade 3.0 in, two-screw hub', four(5.96, { basis: 'as supplied' }), {
      quantity: 4,
      listed: 1.45,
      priceEachCents: 70,
    }),
    line('board', 'board', 'Nettle & Daughter all-in-one, 35 A, 25.5 mm pattern', ws(8.6), {
      listed: 8.3,
      priceEachCents: 7890,
    }),
    line('lead', 'power lead', 'AWG 16 silicone, 55 mm, 30 A class plug', ['worked out', 4.71], {
      priceEachCents: 420,
    }),
    line('capacitor', 'capacitor', '470 µF 16 V, low resistance', ['listed', 2.05], {
      priceEachCents: 90,
      note: 'The only one in the drawer that was short enough.',
    }),
    line('camera', 'camera', 'Digital nano camera, 14 mm', ws(4.12), { listed: 4, priceEachCents: 4900 }),
    line('vtx', 'video transmitter', 'Oddfellow digital, cased, 9 V feed', ['listed', 16.9, { resolutionG: 0.1 }], {
      priceEachCents: 12900,
    }),
    line('vtx-open', 'video transmitter', 'Oddfellow digital, open board', ['listed', 11.1, { resolutionG: 0.1 }], {
      priceEachCents: 11900,
      state: 'candidate',
      insteadOf: 'vtx',
    }),
    line('vtx-analogue', 'video transmitter', 'Fennel & Rook analogue, 400 mW', ['listed', 4.6, { resolutionG: 0.1 }], {
      priceEachCents: 2790,
      state: 'candidate',
      insteadOf: 'vtx',
    }),
    line(
      'vtx-long',
      'video transmitter',
      'Oddfellow digital, long range, 1 W',
      ['listed', 24.3, { resolutionG: 0.1 }],
      { priceEachCents: 15900, state: 'candidate', insteadOf: 'vtx' },
    ),
    line('aerial', 'aerial', 'Stub, left-hand', ['guess', 1.35], { priceEachCents: 990 }),
    line('receiver', 'receiver', '2.4 GHz, ceramic aerial', ws(0.63), { listed: 0.6, priceEachCents: 1490 }),
    line('screws', 'screw', 'M2 × 8 button, steel', w(5.02, { valueCount: 16 }), { quantity: 16, priceEachCents: 8 }),
    line('strap', 'strap', 'Rubberised strap, 140 mm', w(3.41), { priceEachCents: 240 }),
    line('strap-light', 'strap', 'Fabric strap 12 mm, 130 mm', ['listed', 2.2], {
      priceEachCents: 180,
      state: 'candidate',
      insteadOf: 'strap',
    }),
    line('pad', 'pad', 'Grip pad under the pack', w(0.92), { priceEachCents: 110 }),
    line('sundries', 'other', 'Solder, heat-shrink, tape', w(1.84)),
    line('lamp', 'payload', 'Ridge lamp, 9 V, 0.6 A', w(6.2), {
      role: 'payload',
      priceEachCents: 990,
      note: 'For finding the way back after sunset.',
    }),
    line('gps', 'navigation', 'Small satellite receiver', w(5.05), {
      role: 'fitting',
      listed: 4.9,
      priceEachCents: 1590,
    }),
    line('p4', 'pack', '4S 720 mAh', w(84.62), {
      listed: 82,
      priceEachCents: 2190,
      pack: pack('P4', 4, 720, 'two bullets 2 mm, 30 A class'),
    }),
    line('p7', 'pack', '4S 850 mAh', w(99.58), {
      listed: 96,
      priceEachCents: 2490,
      pack: pack('P7', 4, 850, 'two bullets 2 mm, 30 A class', 'LiPo', 95),
    }),
  ],
  setups: [
    { id: 'ridge', name: 'ridge, lamp and navigation', lineIds: ['lamp', 'gps'] },
    { id: 'day', name: 'day, navigation', lineIds: ['gps'] },
  ],
  flies: ['day', 'p7'],
  flying: { altitudeM: 340, temperatureC: 12, warnCellV: 3.7, alsoCardIds: ['ca-250'] },
  steps: [
    [
      '',
      aim({
        purpose: 'ridge walks in summer',
        places: ['United States'],
        cardIds: ['us-recreation'],
        reserveG: 0.5,
        goalMinutes: 7,
        goalPriceCents: 45000,
      }),
    ],
    ['plates arrived, lighter than feared', reweigh('frame', ws(41.2))],
    [
      'camera in its cradle, measured from the motors',
      {
        type: 'places.put',
        pieces: [
          { lineId: 'camera', number: 0, xMm: 52, yMm: 0, zMm: 32, sigmaMm: 0.5, turnDeg: 0, tiltDeg: 20 },
          { lineId: 'gps', number: 0, xMm: -58, yMm: 0, zMm: 33, sigmaMm: 1, turnDeg: 0, tiltDeg: 0 },
          { lineId: 'lead', number: 0, xMm: -46, yMm: 0, zMm: 10, sigmaMm: 3, turnDeg: 0, tiltDeg: 0 },
          { lineId: 'cradle', number: 0, xMm: 46, yMm: 0, zMm: 28, sigmaMm: 1, turnDeg: 0, tiltDeg: 0 },
        ],
      },
    ],
    ['', { type: 'lines.change', changes: [{ id: 'pad', fields: { name: 'Grip pad under the pack, 40 × 25 mm' } }] }],
  ],
})

await tell({
  id: 'nougat',
  name: 'Nougat',
  craftClass: '3.5-inch open, 4S, heat camera',
  lines: [
    line('frame', 'frame', 'Pocket Foundry “Gate 35” plates, 4 mm arms', ws(44.1), {
      listed: 42,
      priceEachCents: 3990,
    }),
    line('motors', 'motor', 'Ostler 1404, full leads', four(36.84, { basis: 'as supplied' }), {
      quantity: 4,
      listed: 9,
      priceEachCents: 1590,
    }),
    line('props', 'propeller', 'Two-blade 3.5 in', four(7.92), { quantity: 4, listed: 1.9, priceEachCents: 80 }),
    line('board', 'board', 'Nettle & Daughter all-in-one, 35 A, 25.5 mm pattern', ws(8.56), {
      listed: 8.3,
      priceEachCents: 7890,
    }),
    line('lead', 'power lead', 'AWG 16 silicone, 90 mm, 30 A class plug', w(6.31), { priceEachCents: 460 }),
    line('capacitor', 'capacitor', '470 µF 35 V', w(2.82), { listed: 2.6, priceEachCents: 120 }),
    line('camera', 'camera', 'Digital nano camera, 19 mm', ws(5.1), { listed: 4.8, priceEachCents: 5200 }),
    line('vtx', 'video transmitter', 'Tallow Works digital light unit', w(15.3), { priceEachCents: 13900 }),
    line('aerial', 'aerial', 'Stub on 60 mm of coax', w(2.38), { priceEachCents: 1090 }),
    line('receiver', 'receiver', '2.4 GHz, two aerials', ws(1.72), { listed: 1.6, priceEachCents: 1990 }),
    line('screws', 'screw', 'M2 × 10 socket cap, steel', w(6.72, { valueCount: 20 }), {
      quantity: 20,
      priceEachCents: 9,
    }),
    line('strap', 'strap', 'Rubberised strap, 180 mm', w(4.38), { priceEachCents: 260 }),
    line('pad', 'pad', 'Silicone pad under the pack', w(1.62), { priceEachCents: 150 }),
    line('sundries', 'other', 'Solder, tape, ties', w(2.07)),
    line('heat', 'payload', 'Heat-sensing camera, stripped', w(25.64), {
      role: 'payload',
      tie: 'heat camera',
      priceEachCents: 23900,
      note: 'Counts the nests on the sea wall in April.',
    }),
    line('heatmount', 'payload', 'Printed mount with rubber balls', w(4.12), {
      role: 'payload',
      tie: 'heat camera',
      priceEachCents: 300,
    }),
    line('heatcable', 'payload', 'Feed and trigger cable', w(1.36), {
      role: 'payload',
      tie: 'heat camera',
      priceEachCents: 200,
    }),
    line('n1', 'pack', '4S 650 mAh', w(79.34), {
      listed: 77,
      priceEachCents: 1990,
      pack: pack('N1', 4, 650, 'two bullets 2 mm, 30 A class'),
    }),
  ],
  setups: [{ id: 'nests', name: 'heat camera', lineIds: ['heat', 'heatmount', 'heatcable'] }],
  flies: ['nests', 'n1'],
  flying: { temperatureC: 9, reservePercent: 20 },
  planned: true,
  marks: { 4: 'maiden' },
  steps: [
    [
      '',
      aim({
        purpose: 'counting nests on the sea wall',
        places: ['United States'],
        cardIds: ['us-recreation'],
        reserveG: 1,
      }),
    ],
    ['took the case off the heat camera', reweigh('heat', w(24.31))],
    ...nougatShavings.map((shaving): [string, Command] => ['', { type: 'shaving.put', shaving }]),
    [
      'the pad wears: a thinner one next time',
      { type: 'lines.change', changes: [{ id: 'pad', fields: { note: 'Wears after a dozen landings on stone.' } }] },
    ],
  ],
})

await tell({
  id: 'treacle',
  name: 'Treacle',
  craftClass: '4-inch long range, lithium-ion',
  lines: [
    line('frame', 'frame', 'Frame, 4-inch ultralight', typical('frame', '4-inch ultralight')),
    line('motors', 'motor', 'Ostler 1404, low kV', ['listed', 9.1, { resolutionG: 0.1 }], {
      quantity: 4,
      priceEachCents: 1590,
    }),
    line('props', 'propeller', 'Two-blade 4 in', typical('propeller', '4 in'), { quantity: 4, priceEachCents: 90 }),
    line('board', 'board', 'All-in-one, 35 A', typical('board', 'all-in-one 4-6S 35-45 A')),
    line('lead', 'power lead', 'Power lead, 16-18 AWG', typical('power lead', '30 A class plug and 16-18 AWG')),
    line('capacitor', 'capacitor', '470 µF 35 V', ['listed', 2.6], { priceEachCents: 120 }),
    line('camera', 'camera', 'Digital nano camera', ws(4.05), { listed: 4, priceEachCents: 4900 }),
    line('vtx', 'video transmitter', 'Oddfellow digital, open board', ['listed', 11.1, { resolutionG: 0.1 }], {
      priceEachCents: 11900,
    }),
    line('aerial', 'aerial', 'Stub', typical('aerial', 'circular stub')),
    line('receiver', 'receiver', 'Two-aerial receiver', ['listed', 1.6, { resolutionG: 0.1 }], {
      priceEachCents: 1990,
    }),
    line('gps', 'navigation', 'Small satellite receiver', ws(5.12), { listed: 4.9, priceEachCents: 1590 }),
    line('sounder', 'sounder', 'Self-powered sounder', ['guess', 2], { role: 'fitting' }),
    line('straps', 'strap', 'Fabric straps 15 mm', typical('strap', 'fabric 15-20 mm'), { quantity: 2 }),
    line('screws', 'screw', 'M2 × 8 button, steel', ['worked out', 0.3], { quantity: 18 }),
    line('solder', 'other', 'Solder for a whole build', typical('other', 'solder for a whole build')),
    line('tape', 'other', 'Tape and heat-shrink', typical('other', 'tape and heat-shrink for a whole build')),
    line('l1', 'pack', 'Two 18650 cells, 3000 mAh, not bought yet', ['listed', 94], {
      priceEachCents: 2100,
      pack: pack('L1', 2, 3000, 'two bullets 2 mm, 30 A class', 'Li-ion', 8),
    }),
  ],
  setups: [{ id: 'far', name: 'with sounder', lineIds: ['sounder'] }],
  flies: ['far', 'l1'],
  flying: { reservePercent: 10, endCellV: 2.9 },
  steps: [
    [
      '',
      aim({
        purpose: 'along the coast path',
        places: ['United States', 'Canada'],
        cardIds: ['us-recreation', 'ca-250'],
        goalMinutes: 25,
      }),
    ],
    ['the cells a neighbour weighed', reweigh('l1', typical('pack', '2S 3000 mAh lithium-ion'))],
  ],
})

const parts = demoParts((buildId, lineId) => app.builds.read(buildId).build.lines.find(l => l.id === lineId)!)
await app.parts.put(parts.map(part => ({ ...part, kitId: null })))
for (const kit of demoKits)
  await app.parts.putKit(
    kit,
    parts.filter(part => part.kitId === kit.id),
  )
const gear = {
  radioFamily: '2.4 GHz, wide',
  videoFamily: 'digital; analogue',
  polarisation: 'left hand',
  chargerCells: 6,
  chargerPlugs: 'two bullets 2 mm, 30 A class; two round pins 1.0 mm',
}
writeFileSync(
  join(here, 'drawer.json'),
  `${JSON.stringify({ gear, kits: demoKits, parts: app.parts.all().parts }, null, 1)}\n`,
)

// The seasons of the craft that have flown, on top of the builds as they are.
for (const [id, season] of Object.entries(demoSeasons)) {
  const { build, revision } = app.builds.read(id)
  const estimates = estimatesOf(build, new ListingBiasTable())
  const flights = flySeason(build, revision, estimates, flightPlanOf(build), season.truth, season.flights, lastDemoDay)
  const findings = demoFindings(flights).filter(finding => finding.buildId === id)
  const changesOf = (kind: 'flight' | 'finding' | 'settingsRecord', things: readonly { readonly id: string }[]) =>
    things.map(({ id: of, ...set }) => ({ kind, id: of, seen: null, set: set as Record<string, unknown> }))
  const settings = id === 'praline' ? demoSettings(revision) : []
  const changes = [
    ...changesOf('flight', flights),
    ...changesOf('finding', findings),
    ...changesOf('settingsRecord', settings),
  ]
  await app.keeping.change('flights', [{ changes, key: null, onTop: false }])
  const { worked } = app.flights.ofBuild(id)
  for (const flight of flights.filter(one => (loggedFlights as readonly string[]).includes(one.id))) {
    const logged = logOf(flight, worked.find(one => one.id === flight.id)! as WorkedFlight)
    writeFileSync(join(here, 'logs', `${flight.id}.csv.gz`), gzipSync(logged.text, { level: 9 }))
    const { id: flightId, loggedMah, resistance } = logged.flight
    const change = { kind: 'flight' as const, id: flightId, set: { loggedMah, resistance } }
    await app.keeping.change('flights', [{ changes: [change], key: null, onTop: false }])
  }
  writeFileSync(join(here, 'builds', `${id}.build.json`), app.files.exportBuild(id, true))
}

for (const entry of app.builds.shelf()) {
  console.log(
    entry.name,
    entry.massG.toFixed(2),
    '±',
    (1.96 * entry.sigmaG).toFixed(2),
    entry.word,
    entry.probability?.toFixed(4),
    'headroom',
    entry.headroomG?.toFixed(2),
    'dry',
    entry.dryG.toFixed(2),
    `${entry.weighedLines}/${entry.lines}`,
  )
}
for (const id of ['praline', 'marzipan'])
  for (const row of (await app.builds.report(id)).rows)
    console.log(row.loadout, row.auwG.toFixed(2), row.spreadG.toFixed(2), row.cards.map(c => c.verdict).join(' | '))
app.close()
rmSync(folder, { recursive: true })

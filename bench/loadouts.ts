/**
 * Sixty packs × twelve set-ups × four rule cards. Weight and verdict against a general spreadsheet engine that computes the
 * same cells; minutes with the whole discharge of each against a plain loop that steps through the same discharges.
 */
import { HyperFormula } from 'hyperformula'
import { makeBuild, applyCommand } from '../core/changes/commands'
import { sheetCells, sheetFlights, type LoadoutCell } from '../core/aircraft/flight'
import { blankAim, makeLine, makeMass, type Build, type Line } from '../core/model/ledger'
import { ListingBiasTable } from '../core/mass/listings'
import { estimatesOf } from '../core/mass/loadout'
import { normalQuantile } from '../core/maths/numbers'
import { blankFlightPlan, openCircuitV, usualCutOffV } from '../core/aircraft/power'
import { limitG, startingCards } from '../core/limits/rules'
import { medianMs, seeded } from './measure'

const packCount = 60
const setupCount = 12
const random = seeded(11)
const cards = startingCards
  .filter(card => card.counts === 'take-off' && limitG(card) !== null)
  .concat(
    startingCards
      .filter(card => card.limit && card.counts !== 'take-off')
      .map(card => ({ ...card, counts: 'take-off' as const })),
  )
  .slice(0, 4)
if (cards.length !== 4) throw new Error(`${cards.length} cards instead of 4`)

const grams = (id: string, valueG: number) => makeMass({ versionId: id, evidence: 'weighed', valueG })
const lines: Line[] = [
  makeLine({ id: 'frame', slot: 'frame', name: 'frame', mass: grams('frame', 41) }),
  makeLine({
    id: 'motors',
    slot: 'motor',
    name: 'motors',
    quantity: 4,
    mass: grams('motors', 11),
    properties: {
      kv: 3850,
      bench: [
        [20, 16.4, 0.8, 38],
        [40, 16.3, 1.9, 88],
        [60, 16.2, 3.4, 140],
        [80, 16, 5.1, 190],
        [100, 15.8, 6.7, 231],
      ].map(([throttlePercent, volts, amps, thrustG]) => ({
        throttlePercent: throttlePercent!,
        volts: volts!,
        amps: amps!,
        thrustG: thrustG!,
      })),
    },
  }),
  makeLine({
    id: 'props',
    slot: 'propeller',
    name: 'props',
    quantity: 4,
    mass: grams('props', 1.5),
    properties: { diameterMm: 76.2 },
  }),
  ...Array.from({ length: 30 }, (_, i) =>
    makeLine({
      id: `l${i}`,
      slot: 'other',
      name: `line ${i}`,
      role: i % 3 ? 'airframe' : 'fitting',
      mass: grams(`l${i}`, 0.5 + random() * 3),
    }),
  ),
  ...Array.from({ length: packCount }, (_, p) =>
    makeLine({
      id: `p${p}`,
      slot: 'pack',
      name: `pack ${p}`,
      mass: grams(`p${p}`, 60 + p),
      pack: {
        label: `P${p}`,
        cells: 4,
        chemistry: 'LiPo',
        capacityMah: 450 + 10 * p,
        cRating: 80,
        plug: 'two bullets 2 mm',
      },
    }),
  ),
]
const fittings = lines.filter(line => line.role === 'fitting').map(line => line.id)
let build: Build = makeBuild({
  id: 'b',
  name: 'b',
  aim: { ...blankAim(), cardIds: cards.map(card => card.id) },
  lines,
  setups: Array.from({ length: setupCount }, (_, s) => ({
    id: `s${s}`,
    name: `s${s}`,
    lineIds: fittings.filter((_id, i) => (i + s) % 3 !== 0),
  })),
  flies: { setupId: 's0', packLineId: 'p0' },
})
const estimates = estimatesOf(build, new ListingBiasTable())
const edit = (n: number) => {
  build = applyCommand(build, {
    type: 'lines.change',
    changes: [
      {
        id: 'frame',
        fields: { mass: makeMass({ versionId: `e${n}`, evidence: 'weighed', valueG: 38 + (n % 100) / 20 }) },
      },
    ],
  })
}

// The same cells as a sheet: value, square of the own part and the shared gain of every line; per loadout mean, u and four verdicts.
const shared = 'gain:unchecked'
const partOf = (line: Line) => {
  const { valueG, contributions } = estimates.of(line)
  return [
    valueG,
    Object.entries(contributions)
      .filter(([key]) => key !== shared)
      .reduce((sum, [, c]) => sum + c * c, 0),
    contributions[shared] ?? 0,
  ]
}
const k = normalQuantile(build.aim.confidence)
const column = (letter: string, ids: readonly string[]) =>
  ids.map(id => `Parts!${letter}${lines.findIndex(line => line.id === id) + 1}`).join(',')
const always = lines.filter(line => line.slot !== 'pack' && line.role === 'airframe').map(line => line.id)
const letters = ['A', 'B', 'C']
const sums = [
  letters.map(l => `=SUM(${column(l, always)})`),
  ...build.setups.map(setup => letters.map(l => `=SUM(${column(l, setup.lineIds)})`)),
]
const loadoutRows = lines.flatMap((line, i) =>
  line.slot === 'pack'
    ? build.setups.map((_, s) => {
        const total = (l: string) => `(Sums!${l}1+Sums!${l}${s + 2}+Parts!${l}${i + 1})`
        const n = (i - (lines.length - packCount)) * setupCount + s + 1
        return [
          `=${total('A')}`,
          `=SQRT(${total('B')}+${total('C')}^2)`,
          ...cards.map(card => {
            const limit = limitG(card)!
            return card.comparator === '<'
              ? `=IF(A${n}+${k}*B${n}<${limit},"Clear",IF(A${n}-${k}*B${n}>=${limit},"Over","Too close to call"))`
              : `=IF(A${n}+${k}*B${n}<=${limit},"Clear",IF(A${n}-${k}*B${n}>${limit},"Over","Too close to call"))`
          }),
        ]
      })
    : [],
)
const sheet = HyperFormula.buildFromSheets(
  { Parts: lines.map(partOf), Sums: sums, Loadouts: loadoutRows },
  { licenseKey: 'gpl-v3', useArrayArithmetic: false },
)
const [partsId, loadoutsId] = [sheet.getSheetId('Parts')!, sheet.getSheetId('Loadouts')!]
const theirs = sheet.getSheetValues(loadoutsId)
sheetCells(build, [], cards, estimates).forEach((cell, i) => {
  const [mean, u, ...words] = theirs[i] as [number, number, ...string[]]
  if (
    Math.abs(mean - cell.massG) > 1e-6 ||
    Math.abs(u - cell.sigmaG) > 1e-6 ||
    cell.judgements.some((j, c) => j.verdict!.word !== words[c])
  )
    throw new Error(`The two disagree at loadout ${i}`)
})
let n = 0
const verdictsMs = medianMs(() => {
  edit(n++)
  sheetCells(build, [], cards, estimates)
})
const engineMs = medianMs(() => {
  edit(n++)
  sheet.setCellContents({ sheet: partsId, row: 0, col: 0 }, [partOf(build.lines[0]!)])
}, 31)
console.log(
  `verdicts of ${packCount} packs × ${setupCount} set-ups × ${cards.length} cards after an edit: ` +
    `${verdictsMs.toFixed(2)} ms (${verdictsMs < 5 ? 'under' : 'NOT under'} 5 ms); spreadsheet ` +
    `engine / core = ${(engineMs / verdictsMs).toFixed(0)}`,
)

/** The same discharges, stepped through a tenth of a second at a time. */
function plainLoop(cells: readonly LoadoutCell[], watts: readonly number[]): number {
  let seconds = 0
  cells.forEach(({ pack }, i) => {
    const { cells: count, chemistry, capacityMah } = pack.pack!
    const ohm = (count * 7.5) / capacityMah
    const cutV = count * usualCutOffV(chemistry)
    for (let charge = 1; charge > 0.15;) {
      const openV = count * openCircuitV(chemistry, charge)
      const inside = openV * openV - 4 * ohm * watts[i]!
      if (inside < 0) break
      const volts = (openV + Math.sqrt(inside)) / 2
      if (volts < cutV) break
      charge -= ((watts[i]! / volts) * 0.1) / (capacityMah * 3.6)
      seconds += 0.1
    }
  })
  return seconds
}
const cells = sheetCells(build, [], cards, estimates)
const flights = sheetFlights(build, cells, blankFlightPlan, null)
const watts = flights.map(flight => flight.forecast!.meanW)
const [mine, loops] = [flights.reduce((sum, flight) => sum + 60 * flight.forecast!.minutes, 0), plainLoop(cells, watts)]
if (Math.abs(mine - loops) > 1e-3 * loops) throw new Error(`The two disagree: ${mine} s against ${loops} s`)
const flightsMs = medianMs(() => {
  sheetFlights(build, cells, blankFlightPlan, null)
}, 15)
const loopMs = medianMs(() => {
  plainLoop(cells, watts)
}, 5)
const fitsMs = medianMs(() => {
  sheetFlights(build, cells, blankFlightPlan, {
    radioFamily: '',
    videoFamily: '',
    polarisation: '',
    chargerCells: 6,
    chargerPlugs: '',
  })
}, 5)
console.log(
  `minutes of the same ${cells.length} loadouts, three discharges and two full throttles each: ` +
    `${flightsMs.toFixed(0)} ms (${flightsMs < 1000 ? 'under' : 'NOT under'} 1 s); a plain loop ` +
    `through one discharge each takes ${(loopMs / flightsMs).toFixed(1)} times as long`,
)
console.log(`with what each pack does not fit: ${fitsMs.toFixed(0)} ms`)

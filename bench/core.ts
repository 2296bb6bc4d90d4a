/**
 * The core's recalculation after one edit, against a general spreadsheet engine that computes the same cells and against
 * a plain loop without pedigree. Every figure is a ratio within this run; the sums are checked to agree first.
 */
import { HyperFormula } from 'hyperformula'
import { makeBuild, applyCommand } from '../core/changes/commands'
import { makeLine, makeMass, type Build, type Line } from '../core/model/ledger'
import { ListingBiasTable } from '../core/mass/listings'
import { allLoadouts, LineEstimates, loadoutMasses } from '../core/mass/loadout'
import { judge } from '../core/limits/verdict'
import { normalQuantile } from '../core/maths/numbers'
import { medianMs, seeded } from './measure'

const limitG = 249.4758035
const confidence = 0.95
const k = normalQuantile(confidence)

function buildOf(lineCount: number, packs: number, setups: number): Build {
  const random = seeded(lineCount * 1000 + packs)
  const evidences = ['weighed', 'listed', 'guess', 'worked out'] as const
  const lines: Line[] = []
  for (let i = 0; i < lineCount; i++) {
    const evidence = evidences[i % 4]!
    lines.push(
      makeLine({
        id: `l${i}`,
        slot: i % 3 ? 'motor' : 'camera',
        name: `line ${i}`,
        role: i % 8 === 7 ? 'fitting' : 'airframe',
        mass: makeMass({
          versionId: `v${i}`,
          evidence,
          valueG: Math.round(((random() * 800) / lineCount) * 100) / 100 + 0.01,
        }),
      }),
    )
  }
  for (let p = 0; p < packs; p++)
    lines.push(
      makeLine({
        id: `p${p}`,
        slot: 'pack',
        name: `pack ${p}`,
        mass: makeMass({ versionId: `vp${p}`, evidence: 'weighed', valueG: 60 + p }),
      }),
    )
  const optional = lines.filter(l => l.role === 'fitting').map(l => l.id)
  return makeBuild({
    id: 'b',
    name: 'b',
    lines,
    setups: Array.from({ length: setups }, (_, s) => ({
      id: `s${s}`,
      name: `s${s}`,
      lineIds: optional.filter((_id, i) => (i + s) % 3 !== 0),
    })),
    flies: { setupId: 's0', packLineId: 'p0' },
  })
}

const editOf = (build: Build, n: number) =>
  applyCommand(build, {
    type: 'lines.change',
    changes: [
      {
        id: 'l0',
        fields: { mass: makeMass({ versionId: `e${n}`, evidence: 'weighed', valueG: 5 + (n % 100) / 100 }) },
      },
    ],
  })

/** The same cells as a sheet: per line value and the squares of its own and shared parts, per loadout mean, u, headroom, verdict. */
function sheetOf(build: Build, estimates: LineEstimates) {
  const keys = ['gain:unchecked', 'listing:motor', 'listing:camera']
  const partRows = build.lines.map(line => {
    const e = estimates.of(line)
    const own = Object.entries(e.contributions)
      .filter(([key]) => !keys.includes(key))
      .reduce((sum, [, c]) => sum + c * c, 0)
    return [e.valueG, own, ...keys.map(key => e.contributions[key] ?? 0)]
  })
  const airframe = build.lines.map((l, i) => (l.slot !== 'pack' && l.role === 'airframe' ? i + 1 : 0)).filter(Boolean)
  const column = (letter: string, rows: number[]) =>
    rows.length ? rows.map(r => `Parts!${letter}${r}`).join(',') : '0'
  const letters = ['A', 'B', 'C', 'D', 'E']
  const sums = [
    letters.map(l => `=SUM(${column(l, airframe)})`),
    ...build.setups.map(s =>
      letters.map(
        l =>
          `=SUM(${column(
            l,
            s.lineIds.map(id => build.lines.findIndex(x => x.id === id) + 1),
          )})`,
      ),
    ),
  ]
  const packRows = build.lines.flatMap((l, i) => (l.slot === 'pack' ? [i + 1] : []))
  const loadouts = build.setups.flatMap((_s, si) =>
    packRows.map(row => {
      const total = (l: string) => `(Sums!${l}1+Sums!${l}${si + 2}+Parts!${l}${row})`
      const n = si * packRows.length + packRows.indexOf(row) + 1
      return [
        `=${total('A')}`,
        `=SQRT(${total('B')}+${total('C')}^2+${total('D')}^2+${total('E')}^2)`,
        `=${limitG}-A${n}`,
        `=IF(A${n}+${k}*B${n}<=${limitG},"Clear",IF(A${n}-${k}*B${n}>${limitG},"Over","Too close to call"))`,
      ]
    }),
  )
  return HyperFormula.buildFromSheets(
    { Parts: partRows, Sums: sums, Loadouts: loadouts },
    { licenseKey: 'gpl-v3', useArrayArithmetic: false },
  )
}

/** Means and comparisons only: what it costs without any pedigree, line by line for every loadout. */
function plainLoop(build: Build): number {
  const grams = build.lines.map(l => l.mass!.valueG)
  const isAirframe = build.lines.map(l => l.slot !== 'pack' && l.role === 'airframe')
  let clear = 0
  for (const setup of build.setups) {
    const chosen = new Set(setup.lineIds)
    const flies = build.lines.map((l, i) => isAirframe[i] || chosen.has(l.id))
    for (let p = 0; p < build.lines.length; p++) {
      if (build.lines[p]!.slot !== 'pack') continue
      let sum = grams[p]!
      for (let i = 0; i < grams.length; i++) if (flies[i]) sum += grams[i]!
      if (sum <= limitG) clear++
    }
  }
  return clear
}

function compare(lineCount: number, packs: number, setups: number) {
  let build = buildOf(lineCount, packs, setups)
  const estimates = new LineEstimates(new ListingBiasTable())
  const choices = allLoadouts(build)
  const verdicts = (b: Build) =>
    loadoutMasses(b, choices, estimates).map(
      ({ massG, sigmaG }) => judge({ massG, sigmaG, limitG, comparator: '<=', confidence }).word,
    )
  const sheet = sheetOf(build, estimates)
  const theirs = sheet.getSheetValues(sheet.getSheetId('Loadouts')!)
  const mine = loadoutMasses(build, choices, estimates)
  mine.forEach(({ massG, sigmaG }, i) => {
    const [mean, u] = theirs[i] as number[]
    if (Math.abs(mean! - massG) > 1e-6 || Math.abs(u! - sigmaG) > 1e-6)
      throw new Error(`The two disagree at loadout ${i}: ${mean} ± ${u} against ${massG} ± ${sigmaG}`)
  })
  let n = 0
  const core = medianMs(() => {
    build = editOf(build, n++)
    verdicts(build)
  })
  const parts = sheet.getSheetId('Parts')!
  const engine = medianMs(() => {
    const e = estimates.of(editOf(build, n++).lines[0]!)
    const own = Object.entries(e.contributions)
      .filter(([key]) => key !== 'gain:unchecked')
      .reduce((sum, [, c]) => sum + c * c, 0)
    sheet.setCellContents({ sheet: parts, row: 0, col: 0 }, [
      [e.valueG, own, e.contributions['gain:unchecked'] ?? 0, 0, 0],
    ])
  }, 61)
  const plain = medianMs(() => {
    build = editOf(build, n++)
    plainLoop(build)
  })
  return { lines: lineCount, packs, setups, core, engine, plain }
}

for (const [lines, packs, setups] of [
  [40, 1, 1],
  [400, 1, 1],
  [40, 60, 12],
  [400, 60, 12],
] as const) {
  const { core, engine, plain } = compare(lines, packs, setups)
  console.log(
    `${String(lines).padStart(4)} lines, ${packs} packs × ${setups} set-ups: spreadsheet engine / ` +
      `core = ${(engine / core).toFixed(0)}   core / plain loop = ${(core / plain).toFixed(2)}   (core ` +
      `${core.toFixed(3)} ms)`,
  )
}

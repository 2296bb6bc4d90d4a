import { describe, expect, it } from 'vitest'
import drawer from '../../../demo/drawer.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { applyCommand, mostLines } from '../../changes/commands'
import type { Part } from '../../parts/drawer'
import type { GroundGear } from '../../aircraft/fit'
import { makeLine, type Build } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { openCircuitV } from '../../aircraft/power'
import { overviewOf } from '../../mass/report'
import { candidateRows, type CandidateRow } from './index'

const build = nougatFile.build as unknown as Build
const parts = drawer.parts as unknown as Part[]
const honesty = new ListingBiasTable()
const rows = (fittedId: string) =>
  candidateRows({
    build,
    fittedId,
    parts,
    choice: build.flies,
    cards: [],
    estimates: estimatesOf(build, honesty),
    gear: drawer.gear as GroundGear,
  })

describe('choosing for a slot', () => {
  const motors = rows('motors')
  const named = (name: string) => motors.find(row => row.line.name.startsWith(name))!
  it('compares what is fitted, the drawer and the typical classes', () => {
    expect(new Set(motors.map(row => row.source))).toEqual(new Set(['fitted', 'drawer', 'catalogue']))
    expect(motors.filter(row => row.source === 'drawer')).toHaveLength(parts.filter(p => p.slot === 'motor').length)
  })
  it('a typical pack is what its class says, whatever the fitted one is', () => {
    const ion = applyCommand(build, {
      type: 'lines.change',
      changes: [
        {
          id: build.flies.packLineId!,
          fields: { pack: { label: 'L', cells: 4, chemistry: 'Li-ion', capacityMah: 3000, cRating: null, plug: '' } },
        },
      ],
    })
    const classes = candidateRows({
      build: ion,
      fittedId: build.flies.packLineId!,
      parts: [],
      choice: build.flies,
      cards: [],
      estimates: estimatesOf(ion, honesty),
      gear: drawer.gear as GroundGear,
    }).filter(row => row.source === 'catalogue')
    const of = (name: string) => classes.find(row => row.line.name.endsWith(name))!.line.pack
    expect(of('4S 650 mAh')).toMatchObject({ cells: 4, chemistry: 'LiPo', capacityMah: 650 })
    expect(of('4S 3000 mAh lithium-ion')).toMatchObject({ cells: 4, chemistry: 'Li-ion', capacityMah: 3000 })
    expect(of('1S 300 mAh')).toMatchObject({ cells: 1, capacityMah: 300 })
  })
  it('weighs the whole set: four times 6.71 g instead of 36.84 g', () => {
    const row = named('Ostler 1303.5')
    expect(row.setG).toBeCloseTo(4 * 6.71, 9)
    expect(row.deltaG).toBeCloseTo(4 * 6.71 - 36.84, 9)
  })
  it('gives the total the build has when the candidate is really fitted', () => {
    const { line, auwG } = named('Fennel & Rook 1404')
    const added = applyCommand(build, {
      type: 'lines.add',
      lines: [{ ...line, state: 'candidate', insteadOf: 'motors' }],
      beforeId: null,
    })
    const fitted = applyCommand(added, { type: 'line.fit', id: line.id })
    expect(auwG).toBe(overviewOf(fitted, build.flies, [], estimatesOf(fitted, honesty)).massG)
  })
  it('tries candidates in a build that has as many lines as it can keep', () => {
    const filling = Array.from({ length: mostLines - build.lines.length }, (_, i) =>
      makeLine({ id: `filling-${i}`, slot: 'other', name: 'label', state: 'off' }),
    )
    const full = { ...build, lines: [...build.lines, ...filling] }
    expect(() =>
      applyCommand(full, { type: 'lines.add', lines: [{ ...build.lines[0]!, id: 'one more' }], beforeId: null }),
    ).toThrow()
    const estimates = estimatesOf(full, honesty)
    const given = {
      parts: parts.slice(0, 3),
      choice: full.flies,
      cards: [],
      estimates,
      gear: drawer.gear as GroundGear,
    }
    const auwOf = (list: readonly CandidateRow[]) => list.map(row => [row.line.name, row.auwG])
    expect(auwOf(candidateRows({ build: full, fittedId: 'motors', ...given }))).toEqual(
      auwOf(candidateRows({ ...given, build, fittedId: 'motors', estimates: estimatesOf(build, honesty) })),
    )
  })
  it('shows the figures of the kind: thrust per gram, kV × cells', () => {
    const figures = Object.fromEntries(named('Ostler 1404, 3750').figures.map(f => [f.key, f.value]))
    expect(figures).toMatchObject({ stator: '1404', kv: 3750, thrust: 262, kvCells: 15_000 })
    expect(figures.perGram).toBeCloseTo(262 / 9.1, 9)
  })
  it('says in the row what does not fit: three holes where the arm has four, two cells where the pack has four', () => {
    expect(named('Tallow Works 0802').findings.map(f => f.check)).toEqual(
      expect.arrayContaining(['motor-pattern', 'cells', 'prop-mount']),
    )
    expect(named('Ostler 1404, 3750').findings.filter(f => f.severity === 'clash')).toEqual([])
  })
  it('for packs gives mAh and watt-hours for the gram, and the all-up weight with that pack', () => {
    const packs = rows('n1')
    const row = packs.find(r => r.line.pack?.label === 'D2')!
    const figures = Object.fromEntries(row.figures.map(f => [f.key, f.value]))
    expect(figures.perGram).toBeCloseTo(850 / 94.2, 9)
    expect(figures.whPerKg).toBeCloseTo((0.85 * 4 * openCircuitV('LiPo', 0.5)) / 0.0942, 9)
    expect(row.deltaG).toBeCloseTo(94.2 - 79.34, 9)
  })
  it('has nothing for a line that is not there', () => expect(rows('nobody')).toEqual([]))
})

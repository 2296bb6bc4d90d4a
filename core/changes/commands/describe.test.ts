import { describe, expect, it } from 'vitest'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { makeLine, makeMass, type Build, type LineState } from '../../model/ledger'
import { applyCommand, describeCommand, diffBuilds, type Command } from './index'

const [marzipan, nougat] = [marzipanFile, nougatFile].map(file => file.build as unknown as Build) as [Build, Build]
const title = (build: Build, command: Command) =>
  describeCommand(command, build, diffBuilds(build, applyCommand(build, command))).title
const change = (
  id: string,
  fields: Extract<Command, { type: 'lines.change' }>['changes'][number]['fields'],
): Command => ({ type: 'lines.change', changes: [{ id, fields }] })
const properties = (build: Build, id: string) => build.lines.find(line => line.id === id)!.properties!

describe('an entry of the journal says what it changed, with values', () => {
  it.each<[Build, Command, string]>([
    [
      nougat,
      change('board', { properties: { ...properties(nougat, 'board'), cellsMin: 3, cellsMax: 4 } }),
      'Nettle & Daughter all-in-one, 35 A, 25.5 mm pattern: fewest cells 2 → 3, most cells 6 → 4',
    ],
    [nougat, change('strap', { priceEachCents: 320 }), 'Rubberised strap, 180 mm: price 2.60 → 3.20'],
    [nougat, change('strap', { priceEachCents: null }), 'Rubberised strap, 180 mm: price 2.60 → not said'],
    [nougat, change('strap', { note: 'sticky when warm' }), 'Rubberised strap, 180 mm: note “sticky when warm”'],
    [
      marzipan,
      change('vtx', { feed: { from: 'pack', output: '' } }),
      'Oddfellow digital, cased, 9 V feed: fed from “9 V” of Nettle & Daughter all-in-one, 35 A, 25.5 mm pattern → the pack',
    ],
    [
      nougat,
      { type: 'build.set', fields: { aim: { reserveG: 2, purpose: 'ridge' } } },
      'Aim: reserve 1 → 2, purpose counting nests on the sea wall → ridge',
    ],
    [
      nougat,
      { type: 'flying.set', fields: { style: 'race', reservePercent: 25 } },
      'Flying: style cruise → race, reserve 20 → 25',
    ],
    [
      nougat,
      { type: 'shaving.put', shaving: { ...nougat.shave!.shavings.find(s => s.id === 'leads')!, gramsG: 2.4 } },
      'Shaving “cut the motor leads to 75 mm”: grams off 2.7 → 2.4',
    ],
    [
      nougat,
      {
        type: 'fit.set',
        fields: {
          joints: nougat.fit!.joints.map(joint => (joint.id === 'motors' ? { ...joint, lengthMm: 6 } : joint)),
        },
      },
      'Fit: “Motors on the arms”: length 10 → 6',
    ],
    [nougat, { type: 'fit.set', fields: { wires: nougat.fit!.wires.slice(1) } }, 'Fit: “Motor leads” taken out'],
    [
      nougat,
      { type: 'loadout.fly', choice: { setupId: nougat.setups[0]!.id, packLineId: 'n1' } },
      'Flown as as built · N1, before as heat camera · N1',
    ],
    [
      nougat,
      {
        type: 'lines.change',
        changes: ['strap', 'pad', 'heatmount', 'heatcable'].map(id => ({ id, fields: { removable: true } })),
      },
      'Rubberised strap, 180 mm, Silicone pad under the pack, Printed mount with rubber balls and 1 more: removable',
    ],
    [
      nougat,
      {
        type: 'lines.change',
        changes: [
          { id: 'strap', fields: { priceEachCents: 320 } },
          { id: 'pad', fields: { note: 'thin' } },
        ],
      },
      'Rubberised strap, 180 mm: price 2.60 → 3.20, Silicone pad under the pack: note “thin”',
    ],
  ])('%#', (build, command, words) => {
    expect(title(build, command)).toBe(words)
  })
  it('of several lines that were weighed tells what they weigh together', () => {
    const weighed = (id: string, valueG: number) => ({
      id,
      fields: { mass: makeMass({ versionId: `w-${id}`, evidence: 'weighed', valueG }) },
    })
    const command: Command = { type: 'lines.change', changes: [weighed('strap', 4), weighed('pad', 1.5)] }
    const patch = diffBuilds(nougat, applyCommand(nougat, command))
    expect(describeCommand(command, nougat, patch)).toEqual({
      title: 'Rubberised strap, 180 mm, Silicone pad under the pack: grams changed',
      gramsBeforeG: 6,
      gramsAfterG: 5.5,
    })
  })
  it('a pack nobody has described yet goes by the label that is on it', () => {
    const pack = makeLine({ id: 'n9', slot: 'pack', name: 'New pack', packSoFar: { label: 'N9' } })
    expect(title(nougat, { type: 'lines.add', lines: [pack], beforeId: null })).toBe('Added N9 (New pack)')
  })
  it('names the part that was replaced, not what hangs on it', () => {
    const open = marzipan.lines.find(line => line.insteadOf === 'vtx')!
    expect(title(marzipan, { type: 'line.fit', id: open.id })).toBe(
      `Fitted ${open.name} instead of ${marzipan.lines.find(line => line.id === 'vtx')!.name}`,
    )
    const state: LineState = 'candidate'
    const board = marzipan.lines.find(line => line.slot === 'board')!
    const with_ = applyCommand(marzipan, {
      type: 'lines.add',
      lines: [
        makeLine({
          id: 'b2',
          slot: 'board',
          name: 'Second board',
          properties: board.properties,
          state,
          insteadOf: board.id,
        }),
      ],
      beforeId: null,
    })
    expect(title(with_, { type: 'line.fit', id: 'b2' })).toBe(`Fitted Second board instead of ${board.name}`)
  })
  it('is no longer than the journal takes, however much changed', () => {
    const long = 'x'.repeat(2000)
    for (const command of [
      change('strap', { note: long }),
      { type: 'build.set', fields: { aim: { purpose: long.slice(0, 200) } } },
    ] as Command[])
      expect(title(nougat, command).length).toBeLessThanOrEqual(300)
  })
})

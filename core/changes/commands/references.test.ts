import { describe, expect, it } from 'vitest'
import drawer from '../../../demo/drawer.json'
import marzipanFile from '../../../demo/builds/marzipan.build.json'
import nougatFile from '../../../demo/builds/nougat.build.json'
import { candidateRows } from '../../deciding/choosing'
import { fitReport, noGear, type GroundGear } from '../../aircraft/fit'
import { makeLine, type Build } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf } from '../../mass/loadout'
import { outputsOf } from '../../model/properties'
import { applyCommand } from './index'

const build = marzipanFile.build as unknown as Build
const nougat = nougatFile.build as unknown as Build
const board = build.lines.find(line => line.slot === 'board' && line.state === 'fitted')!
const fedFrom = (of: Build, id: string) =>
  of.lines
    .filter(line => line.feed?.from === id)
    .map(line => line.id)
    .sort()
const another = (outputs: readonly object[]) =>
  makeLine({
    id: 'other-board',
    slot: 'board',
    name: 'Another board',
    properties: { ...board.properties, heightMm: 9, outputs: outputs as never },
  })
const swapped = (outputs: readonly object[], of = build) => {
  const added = applyCommand(of, {
    type: 'lines.add',
    lines: [{ ...another(outputs), state: 'candidate', insteadOf: board.id }],
    beforeId: null,
  })
  return applyCommand(added, { type: 'line.fit', id: 'other-board' })
}

describe('what hung on a part that is replaced', () => {
  const before = fedFrom(build, board.id)
  const layersOf = (of: Build, id: string) => of.fit!.stack!.layers.filter(layer => layer.lineId === id)
  it('hangs on its successor where that has the output: feeds, the layer of the stack, its own feed', () => {
    expect(before.length).toBeGreaterThan(2)
    const next = swapped(outputsOf(board))
    expect(fedFrom(next, 'other-board')).toEqual(before)
    expect(fedFrom(next, board.id)).toEqual([])
    expect(layersOf(build, board.id)).toHaveLength(1)
    expect(layersOf(next, board.id)).toEqual([])
    expect(layersOf(next, 'other-board')).toMatchObject([{ name: 'Another board', heightMm: null }])
    const asked = (of: Build) =>
      fitReport(of, of.flies, noGear)
        .asked.filter(one => one.key === 'feed')
        .map(one => one.lineId)
        .sort()
    expect(asked(next)).toEqual(asked(build))
  })
  it('what its successor cannot feed is to be done, counted in Choosing, and right again when the old part comes back', () => {
    const [kept, ...others] = outputsOf(board)
    const lost = build.lines
      .filter(
        line =>
          line.feed?.from === board.id &&
          others.some(output => output.name === line.feed!.output) &&
          line.state === 'fitted' &&
          line.role === 'airframe',
      )
      .map(line => line.id)
    expect(lost.length).toBeGreaterThan(0)
    const next = swapped([kept!])
    const findings = fitReport(next, next.flies, noGear).findings.filter(finding => finding.check === 'feed-known')
    expect(findings.map(finding => finding.lineIds[0])).toEqual(expect.arrayContaining(lost))
    expect(findings[0]!.title).toContain('has lost its feed')
    const rows = candidateRows({
      build: applyCommand(build, {
        type: 'lines.add',
        lines: [{ ...another([kept!]), state: 'candidate', insteadOf: board.id }],
        beforeId: null,
      }),
      fittedId: board.id,
      parts: [],
      choice: build.flies,
      cards: [],
      estimates: estimatesOf(build, new ListingBiasTable()),
      gear: drawer.gear as GroundGear,
    })
    expect(
      rows
        .find(row => row.line.id === 'other-board')!
        .findings.filter(finding => finding.check === 'feed-known')
        .map(finding => finding.lineIds[0]),
    ).toEqual(expect.arrayContaining(lost))
    const back = applyCommand(next, { type: 'line.fit', id: board.id })
    expect(fedFrom(back, board.id)).toEqual(before)
  })
  it('screws: the joint goes with them at their own length', () => {
    const joint = build.fit!.joints.find(one => one.lineId !== null)!
    const screws = build.lines.find(line => line.id === joint.lineId)!
    const added = applyCommand(build, {
      type: 'lines.add',
      lines: [
        makeLine({
          id: 'short',
          slot: 'screw',
          name: 'Shorter',
          quantity: screws.quantity,
          properties: { ...screws.properties, lengthMm: 5 },
          state: 'candidate',
          insteadOf: screws.id,
        }),
      ],
      beforeId: null,
    })
    const next = applyCommand(added, { type: 'line.fit', id: 'short' })
    expect(next.fit!.joints.find(one => one.id === joint.id)).toMatchObject({ lineId: 'short', lengthMm: 5 })
    const unknown = applyCommand(
      applyCommand(added, { type: 'lines.change', changes: [{ id: 'short', fields: { properties: null } }] }),
      { type: 'line.fit', id: 'short' },
    )
    expect(unknown.fit!.joints.find(one => one.id === joint.id)).toMatchObject({ lineId: 'short', lengthMm: null })
  })
  it('a tied part hands its tie on: its successor comes off with the others', () => {
    const tied = nougat.lines.find(line => line.tie !== null && line.state === 'fitted')!
    const added = applyCommand(nougat, {
      type: 'lines.add',
      lines: [makeLine({ id: 'next', slot: tied.slot, name: 'Next', state: 'candidate', insteadOf: tied.id })],
      beforeId: null,
    })
    expect(applyCommand(added, { type: 'line.fit', id: 'next' }).lines.find(line => line.id === 'next')).toMatchObject({
      tie: tied.tie,
      role: tied.role,
      removable: tied.removable,
    })
  })
  it('deleted lines leave no feed, joint, layer or open shaving that points to them', () => {
    const ids = [board.id, build.fit!.joints.find(one => one.lineId !== null)!.lineId!]
    const gone = applyCommand(build, { type: 'lines.delete', ids })
    const pointed = [
      ...gone.lines.flatMap(line => [line.feed?.from, line.insteadOf]),
      ...gone.fit!.joints.map(joint => joint.lineId),
      ...gone.fit!.stack!.layers.map(layer => layer.lineId),
      ...(gone.shave?.shavings ?? []).filter(one => one.state !== 'done').flatMap(one => [one.lineId, one.candidateId]),
    ]
    for (const id of ids) expect(pointed).not.toContain(id)
  })
})

import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { makeMass } from '../../../core/model/ledger'
import type { Command } from '../../../core/changes/commands'
import { applicationOnDisk, demoFile } from '../../testing'

let disk: ReturnType<typeof applicationOnDisk>
let id: string
beforeEach(async () => {
  disk = applicationOnDisk()
  id = await disk.app.files.importBuild(demoFile('marzipan'))
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
let made = 0
const weigh = (lineId: string, valueG: number, evidence: 'weighed' | 'listed' = 'weighed'): Command => ({
  type: 'lines.change',
  changes: [{ id: lineId, fields: { mass: makeMass({ versionId: `m${made++}`, evidence, valueG }) } }],
})
const rename = (lineId: string, name: string): Command => ({
  type: 'lines.change',
  changes: [{ id: lineId, fields: { name } }],
})
const { read, command } = {
  read: () => disk.app.builds.read(id),
  command: (seen: number, wanted: Command, key: string | null = null) =>
    disk.app.builds.command(id, seen, wanted, '', key),
}
const line = (lineId: string) => read().build.lines.find(l => l.id === lineId)!

describe('a write that is sent again', () => {
  it('with its key gets the first answer and is done once, across a restart too', async () => {
    const seen = read().revision
    const first = await command(seen, weigh('vtx', 17.02), 'tab.1')
    disk.app.close()
    disk.app = disk.again()
    const again = await command(seen, weigh('vtx', 17.02), 'tab.1')
    expect(again).toEqual(first)
    expect(read().revision).toBe(seen + 1)
  })
  it('after it was taken back is not done a second time', async () => {
    const seen = read().revision
    const first = await command(seen, weigh('vtx', 17.02), 'tab.1')
    await disk.app.builds.undo(id, seen + 1, 'tab.2')
    expect((await command(seen, weigh('vtx', 17.02), 'tab.1')).entry?.seq).toBe(first.entry?.seq)
    expect((await disk.app.builds.undo(id, seen + 1, 'tab.2')).revision).toBe(seen + 2)
    expect(read().revision).toBe(seen + 2)
  })
  it('in another company is done once: what is there already is answered, what is new is done', async () => {
    const seen = read().revision
    await command(seen, weigh('vtx', 17.02), 'tab.1')
    const reply = await disk.app.builds.commands(id, seen, [
      { command: weigh('vtx', 17.02), note: '', key: 'tab.1' },
      { command: weigh('vtx', 17.1), note: '', key: 'tab.2' },
    ])
    expect(reply).toMatchObject({
      revision: seen + 2,
      entries: [{ gramsAfterG: 17.02 }, { gramsBeforeG: 17.02, gramsAfterG: 17.1 }],
    })
  })
})

describe('a write that saw an older revision', () => {
  it('is made where the fields do not meet', async () => {
    const seen = read().revision
    await command(seen, rename('vtx', 'another transmitter'), 'desk.1')
    const reply = await command(seen, weigh('vtx', 17.02), 'phone.1')
    expect(reply.revision).toBe(seen + 2)
    expect(line('vtx')).toMatchObject({ name: 'another transmitter', mass: { valueG: 17.02 } })
  })
  it('is refused where they do, says both in words, and changes nothing', async () => {
    const seen = read().revision
    await command(seen, weigh('vtx', 12.9, 'listed'), 'desk.1')
    const before = read()
    await expect(command(seen, weigh('vtx', 12.4), 'phone.1')).rejects.toMatchObject({
      code: 'stale',
      current: { revision: seen + 1 },
      meetings: [
        { what: 'Oddfellow digital, cased, 9 V feed: grams', mine: '12.40 g weighed', theirs: '12.90 g listed' },
      ],
    })
    expect(read()).toEqual(before)
    expect((await command(seen + 1, weigh('vtx', 12.4), 'phone.1')).entry).toMatchObject({
      gramsBeforeG: 12.9,
      gramsAfterG: 12.4,
    })
  })
  it('does not meet with what was typed at the same place before, however much others wrote between', async () => {
    const seen = read().revision
    await command(seen, rename('frame', 'somebody’s frame'), 'desk.1')
    await command(seen, weigh('vtx', 17.02), 'phone.1')
    await command(seen + 1, weigh('strap', 3.3), 'desk.2')
    expect((await command(seen, weigh('vtx', 17.1), 'phone.2')).revision).toBe(seen + 4)
    expect(line('vtx').mass?.valueG).toBe(17.1)
    expect(line('frame').name).toBe('somebody’s frame')
    // The desk saw 17.02 of the phone, not what came after it.
    await expect(command(seen + 2, weigh('vtx', 16.5), 'desk.3')).rejects.toMatchObject({
      code: 'stale',
      meetings: [{ theirs: '17.10 g weighed' }],
    })
  })
  it('meets with an undo and with what follows the drawer as with any other change', async () => {
    const first = await command(read().revision, weigh('vtx', 17.02), 'desk.1')
    await disk.app.builds.undo(id, first.revision)
    await expect(command(first.revision, weigh('vtx', 17.3), 'phone.1')).rejects.toMatchObject({ code: 'stale' })
    expect((await command(first.revision, rename('vtx', 'x'), 'phone.2')).revision).toBe(first.revision + 2)
  })
  it('of a revision that never was is refused', async () => {
    await expect(command(read().revision + 5, weigh('vtx', 17.02), 'phone.1')).rejects.toMatchObject({ code: 'stale' })
    await expect(command(-20, weigh('vtx', 17.02), 'phone.1')).rejects.toMatchObject({ code: 'stale' })
  })
  it('of a line that is gone is refused with a sentence', async () => {
    const seen = read().revision
    await command(seen, { type: 'lines.delete', ids: ['vtx'] }, 'desk.1')
    const late = command(seen, weigh('vtx', 17.02), 'phone.1')
    await expect(late).rejects.toMatchObject({ code: 'stale', meetings: [{ theirs: 'deleted' }] })
    await expect(command(seen + 1, weigh('vtx', 17.02), 'phone.1')).rejects.toMatchObject({
      code: 'refused',
      message: 'That line is no longer in this build.',
    })
  })
  it('whatever two places write in whatever order: everything is kept that nobody wrote over knowingly', async () => {
    const place = fc.constantFrom('desk', 'phone')
    const step = fc.record({
      place,
      lineId: fc.constantFrom('vtx', 'strap'),
      field: fc.constantFrom('note' as const, 'name' as const),
      value: fc.constantFrom('a', 'b', 'c'),
      looks: fc.boolean(),
    })
    let [merged, met] = [0, 0]
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 12 }), async steps => {
        const run = made++
        const sees = new Map([
          ['desk', read().revision],
          ['phone', read().revision],
        ])
        const believes = new Map([
          ['desk', read().build],
          ['phone', read().build],
        ])
        for (const [n, { place: at, lineId, field, value, looks }] of steps.entries()) {
          if (looks) {
            sees.set(at, read().revision)
            believes.set(at, read().build)
          }
          const before = read().build
          const was = believes.get(at)!.lines.find(l => l.id === lineId)![field]
          const is = before.lines.find(l => l.id === lineId)![field]
          const wanted: Command = { type: 'lines.change', changes: [{ id: lineId, fields: { [field]: value } }] }
          const answer = await command(sees.get(at)!, wanted, `${at}${run}.${n}`).catch(
            (error: { code: string }) => error,
          )
          if ('code' in answer) {
            expect(is !== was && is !== value && value !== was).toBe(true)
            expect(read().build).toEqual(before)
            met++
            continue
          }
          if (sees.get(at) !== read().revision - 1) merged++
          // Told that nothing of its own was needed, a page looks at what is there.
          if (!answer.entry) {
            sees.set(at, read().revision)
            believes.set(at, read().build)
            continue
          }
          // What it asked for is there, unless it asked for what it believed was there already.
          expect(read().build.lines.find(l => l.id === lineId)![field]).toBe(value === was ? is : value)
          believes.set(at, {
            ...believes.get(at)!,
            lines: believes.get(at)!.lines.map(l => (l.id === lineId ? { ...l, [field]: value } : l)),
          })
        }
      }),
      { numRuns: 250, seed: 3 },
    )
    expect(merged).toBeGreaterThan(40)
    expect(met).toBeGreaterThan(20)
  }, 120_000)
})

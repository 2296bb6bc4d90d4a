import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { testFinding, testFlight } from '../../core/aircraft/flown/testing'
import { makePart } from '../../core/parts/drawer'
import { makeMass } from '../../core/model/ledger'
import { keptKinds, type KeptChange, type KeptDocument, type KeptKind } from '../../shared/schemas/kept'
import { defaultSettings } from '../../shared/settings'
import { applicationOnDisk, demoFile } from '../testing'

let disk: ReturnType<typeof applicationOnDisk>
beforeEach(() => {
  disk = applicationOnDisk()
})
afterEach(() => {
  disk.app.close()
  disk.remove()
})
let keys = 0
const change = (document: KeptDocument, changes: KeptChange[], more: { key?: string | null; onTop?: boolean } = {}) =>
  disk.app.keeping.change(document, [{ changes, key: more.key ?? `k.${keys++}`, onTop: more.onTop ?? false }])
const { id: _id, ...strap } = makePart({
  id: 'strap',
  slot: 'strap',
  name: 'Fabric strap',
  owned: 5,
  mass: makeMass({ versionId: 's1', evidence: 'listed', valueG: 2.2 }),
})
/** The fields of a thing without its id. */
const fieldsOf = ({ id: _one, ...fields }: { readonly id: string }): Record<string, unknown> => fields
const part = () => disk.app.parts.one('strap')
const put = () => change('drawer', [{ kind: 'part', id: 'strap', seen: null, set: strap }])

const card = {
  place: 'Quillhaven pier',
  purpose: 'summer league',
  purposeKind: 'any',
  comparator: '<=',
  limit: { value: 8.5, unit: 'oz' },
  counts: 'take-off',
  conditions: [],
  within: [],
  beyond: [],
  always: [],
  source: 'notice',
  status: 'in force',
  since: null,
}
const scale = { name: 'blue', resolutionG: 0.01, capacityG: 200, repeatabilityG: null, checkIntervalDays: 30 }
const at = '2026-11-02T18:00:00.000Z'
/** One of every kind, a change of it, and what must be there before. */
const samples: Record<
  KeptKind,
  { set: Record<string, unknown>; then: Record<string, unknown> | null; first?: KeptChange[] }
> = {
  part: { set: strap, then: { bag: 'tin 4' } },
  kit: { set: { name: 'Set', priceCents: null, link: '', note: '', leavesOut: '' }, then: { note: 'one short' } },
  card: { set: card, then: { source: 'letter' } },
  verified: { set: { verifiedOn: '2026-11-02' }, then: { verifiedOn: '2026-11-03' } },
  scale: { set: scale, then: { name: 'blue pocket scale' } },
  reference: { set: { name: 'brass', massG: 50, toleranceG: 0.01, coin: false }, then: { toleranceG: 0.02 } },
  check: {
    set: {
      scaleId: 'blue',
      takenAt: at,
      placings: [
        { references: [], displayG: 0 },
        { references: [{ id: 'brass', massG: 50, toleranceG: 0.01 }], displayG: 50.1 },
      ],
    },
    then: null,
    first: [{ kind: 'scale', id: 'blue', seen: null, set: scale }],
  },
  tare: {
    set: { name: 'lid', scaleId: 'blue', displayG: 4.2, takenAt: at },
    then: { displayG: 4.3 },
    first: [{ kind: 'scale', id: 'blue', seen: null, set: scale }],
  },
  template: { set: { name: 'my way', order: [], own: [] }, then: { name: 'my new way' } },
  settings: { set: { currency: 'kr' }, then: { currency: 'mark' } },
  flight: { set: fieldsOf(testFlight({ id: 'thing' })), then: { durationS: 200, note: 'gusty' } },
  settingsRecord: {
    set: {
      ...{ buildId: 'marzipan', name: 'before filters', at: '2026-11-02T10:00', revision: 3 },
      ...{ firmware: [{ device: 'flight controller', version: '4.5.1' }], text: 'set a = 1\nset b = 2' },
    },
    then: { name: 'before the new filters' },
  },
  renewal: { set: { buildId: 'marzipan', key: 'p#0', at: '2026-11-03T10:00' }, then: { at: '2026-11-04T10:00' } },
  finding: { set: fieldsOf(testFinding({ id: 'thing' })), then: { goneAt: '2026-11-05T12:00' } },
}
const everything = () => ({
  parts: disk.app.parts.all(),
  cards: disk.app.rules.cards(),
  scales: disk.app.scales.all(),
  templates: disk.app.templates.all(),
  settings: disk.app.settings.load(),
  flown: disk.app.builds.exists('marzipan') ? disk.app.flights.ofBuild('marzipan') : null,
})

describe.each(Object.entries(samples))('a %s', (kind, { set, then, first }) => {
  const document = keptKinds[kind as KeptKind]
  const id = kind === 'verified' ? 'jp-100' : 'thing'
  const scope = document === 'flights' ? 'marzipan' : ''
  beforeEach(async () => {
    if (document === 'flights') await disk.app.files.importBuild(demoFile('marzipan'))
  })
  it('is put in, changed by field and taken back step by step, after a restart too', async () => {
    if (first) await change(document, first)
    const states = [everything()]
    await change(document, [{ kind: kind as KeptKind, id, set }])
    states.push(everything())
    if (then) {
      await change(document, [
        {
          kind: kind as KeptKind,
          id,
          seen: Object.fromEntries(Object.keys(then).map(key => [key, set[key]])),
          set: then,
        },
      ])
      states.push(everything())
    }
    expect(states.at(-1)).not.toEqual(states.at(-2))
    disk.app.close()
    disk.app = disk.again()
    for (const state of states.slice(0, -1).reverse()) {
      await disk.app.keeping.undo(document, scope)
      expect(everything()).toEqual(state)
    }
    for (const state of states.slice(1)) {
      await disk.app.keeping.redo(document, scope)
      expect(everything()).toEqual(state)
    }
  })
  it('with a field that is no such field is refused and changes nothing', async () => {
    if (first) await change(document, first)
    const before = everything()
    await expect(
      change(document, [{ kind: kind as KeptKind, id, set: { ...set, nonsense: 1 } }]),
    ).rejects.toMatchObject({ code: 'invalid' })
    expect(everything()).toEqual(before)
  })
})

describe('two who change the same thing', () => {
  it('are merged where the fields differ', async () => {
    await put()
    await change('drawer', [{ kind: 'part', id: 'strap', seen: { bag: '' }, set: { bag: 'tin 4' } }])
    await change('drawer', [
      { kind: 'part', id: 'strap', seen: { note: '', tags: [] }, set: { note: 'soft', tags: ['red'] } },
    ])
    expect(part()).toMatchObject({ bag: 'tin 4', note: 'soft', tags: ['red'] })
  })
  it('are told in words where one field has become something else, and may go over it knowingly', async () => {
    await put()
    await change('drawer', [{ kind: 'part', id: 'strap', seen: { bag: '' }, set: { bag: 'tin 4' } }])
    const mine: KeptChange[] = [{ kind: 'part', id: 'strap', seen: { bag: '' }, set: { bag: 'box 2' } }]
    await expect(change('drawer', mine)).rejects.toMatchObject({
      code: 'stale',
      meetings: [{ what: 'bag', mine: '“box 2”', theirs: '“tin 4”' }],
    })
    expect(part()!.bag).toBe('tin 4')
    await change('drawer', mine, { onTop: true })
    expect(part()!.bag).toBe('box 2')
  })
  it('what was changed since is not deleted unasked, and what is gone is not changed', async () => {
    await put()
    const seen = { ...strap }
    await change('drawer', [{ kind: 'part', id: 'strap', seen: { owned: 5 }, set: { owned: 6 } }])
    await expect(change('drawer', [{ kind: 'part', id: 'strap', seen, set: null }])).rejects.toMatchObject({
      code: 'stale',
    })
    await change('drawer', [{ kind: 'part', id: 'strap', seen, set: null }], { onTop: true })
    await expect(
      change('drawer', [{ kind: 'part', id: 'strap', seen: { bag: '' }, set: { bag: 'x' } }]),
    ).rejects.toMatchObject({ code: 'refused' })
  })
  it('an undo does not take back what somebody has changed since', async () => {
    await put()
    await change('drawer', [{ kind: 'part', id: 'strap', seen: { bag: '' }, set: { bag: 'tin 4' } }])
    await disk.app.parts.put([{ ...part()!, bag: 'by other means' }])
    await expect(disk.app.keeping.undo('drawer')).rejects.toMatchObject({ code: 'refused' })
    expect(part()!.bag).toBe('by other means')
  })
})

describe('a change that is sent again', () => {
  it('with its key is done once', async () => {
    await put()
    await change('drawer', [{ kind: 'part', id: 'strap', set: { owned: 6 } }], { key: 'tab.1' })
    await change('drawer', [{ kind: 'part', id: 'strap', set: { owned: 9 } }], { key: 'tab.1' })
    expect(part()!.owned).toBe(6)
  })
  it('of many things is all or nothing', async () => {
    const before = everything()
    await expect(
      disk.app.keeping.change('drawer', [
        {
          changes: [
            { kind: 'part', id: 'a', seen: null, set: strap },
            { kind: 'part', id: 'b', seen: null, set: { ...strap, owned: -1 } },
          ],
          key: null,
          onTop: false,
        },
      ]),
    ).rejects.toMatchObject({ code: 'invalid' })
    expect(everything()).toEqual(before)
  })
  it('a list brought in twice with one token is there once, and is taken back as one', async () => {
    const rows = [
      { id: 'r1', slot: 'strap' as const, name: 'a', owned: 1 },
      { id: 'r2', slot: 'pad' as const, name: 'b', owned: 2 },
    ]
    for (let i = 0; i < 2; i++)
      await disk.app.keeping.bringIn(['r1', 'r2'], 'list.0', () => {
        disk.app.parts.insertRows(rows)
      })
    expect(disk.app.parts.all().parts.map(p => p.id)).toEqual(['r1', 'r2'])
    await disk.app.keeping.undo('drawer')
    expect(disk.app.parts.all().parts).toEqual([])
  })
})

describe('what others rest on stays', () => {
  it('a part on a build, and a check that a weighing was made under', async () => {
    await put()
    const id = await disk.app.files.importBuild(demoFile('marzipan'))
    const { build, revision } = disk.app.builds.read(id)
    await change('scales', [{ kind: 'scale', id: 'blue', seen: null, set: scale }])
    await change('scales', [{ kind: 'check', id: 'c1', seen: null, set: samples.check.set }])
    const mass = makeMass({
      versionId: 'w1',
      evidence: 'weighed',
      valueG: 3,
      weighing: {
        takenAt: at,
        scaleId: 'blue',
        scaleName: 'blue',
        checkId: 'c1',
        method: 'on the pan',
        displaysG: [3],
        tare: null,
        contributions: { 'weighing:w1': 0.01 },
        supersedes: null,
      },
    })
    await disk.app.builds.command(
      id,
      revision,
      { type: 'lines.change', changes: [{ id: build.lines[0]!.id, fields: { mass, partId: 'strap' } }] },
      '',
    )
    await expect(disk.app.keeping.undo('scales')).rejects.toMatchObject({
      code: 'refused',
      message: expect.stringContaining('rests on this check'),
    })
    await expect(change('drawer', [{ kind: 'part', id: 'strap', set: null }])).rejects.toMatchObject({
      code: 'refused',
    })
    expect(disk.app.scales.all().checks).toHaveLength(1)
  })
  it('a deleted part comes back with its history, a kit with its pieces', async () => {
    await put()
    await change('drawer', [
      { kind: 'part', id: 'strap', set: { mass: makeMass({ versionId: 's2', evidence: 'weighed', valueG: 2.14 }) } },
    ])
    await change('drawer', [
      { kind: 'kit', id: 'k', set: samples.kit.set },
      { kind: 'part', id: 'strap', set: { kitId: 'k' } },
    ])
    const before = [everything(), disk.app.parts.history('strap')]
    await change('drawer', [{ kind: 'kit', id: 'k', set: null }])
    await change('drawer', [{ kind: 'part', id: 'strap', set: null }])
    for (let i = 0; i < 2; i++) await disk.app.keeping.undo('drawer')
    expect([everything(), disk.app.parts.history('strap')]).toEqual(before)
  })
  it('settings that were never kept have their defaults', () =>
    expect(disk.app.settings.load()).toEqual(defaultSettings))
})

import type { BuildReply } from '../shared/schemas/api'
import { demoBuilds, expect, OwnServer, test } from './server'

interface Write {
  readonly what: string
  readonly method?: string
  readonly path: string
  readonly body: unknown
  readonly headers?: Record<string, string>
}
const mass = (more: object = {}) => ({
  versionId: 'w1',
  evidence: 'weighed',
  valueG: 1,
  valueCount: 1,
  resolutionG: 0.01,
  pieceReadingsG: null,
  halfRangeG: null,
  ownSpreadG: null,
  basis: 'as fitted',
  origin: 'typed',
  weighing: null,
  ...more,
})
const weighing = (more: object = {}) => ({
  takenAt: '2026-11-02T18:00:00.000Z',
  scaleId: 'blue',
  scaleName: 'blue',
  checkId: null,
  method: 'on the pan',
  displaysG: [1],
  tare: null,
  contributions: { 'weighing:w1': 0.01 },
  supersedes: null,
  ...more,
})
const line = (more: object = {}) => ({
  id: 'new',
  slot: 'strap',
  name: 'New',
  quantity: 1,
  mass: null,
  listing: null,
  state: 'fitted',
  role: 'airframe',
  removable: false,
  priceEachCents: null,
  note: '',
  tie: null,
  insteadOf: null,
  pack: null,
  properties: null,
  partId: null,
  feed: null,
  ...more,
})
const pack = (more: object = {}) => ({
  label: 'P',
  cells: 4,
  chemistry: 'LiPo',
  capacityMah: 650,
  cRating: null,
  plug: '',
  ...more,
})
const command = (what: string, of: object, build = 'marzipan'): Write => ({
  what,
  path: `/api/builds/${build}/commands`,
  body: { command: of, note: '' },
})
const change = (what: string, fields: object) =>
  command(what, { type: 'lines.change', changes: [{ id: 'strap', fields }] })
const kept = (what: string, document: string, ...changes: object[]): Write => ({
  what,
  path: `/api/kept/${document}`,
  body: { edits: [{ changes }] },
})
const observation = (more: object = {}) => ({
  id: 'o',
  title: 'all',
  takenAt: '2026-11-02T18:00:00.000Z',
  scaleId: 'b',
  scaleName: 'b',
  checkId: null,
  displaysG: [100],
  tareDisplayG: null,
  valueG: 100,
  contributions: { 'own:o': 0.01 },
  subjects: [{ id: 'strap', slot: 'strap', quantity: 1, mass: null }],
  state: 'taken in',
  ...more,
})
const shaving = (more: object = {}) => ({
  id: 'x',
  what: 'cut',
  kind: 'cut',
  lineId: 'strap',
  candidateId: null,
  gramsG: 1,
  spreadG: 0.1,
  evidence: 'guess',
  cents: 0,
  minutes: 1,
  loss: 0,
  lossWord: 'nothing',
  gain: 0,
  forGood: false,
  slipPercent: 0,
  excludes: [],
  needs: [],
  state: 'idea',
  why: '',
  lock: null,
  doneOn: null,
  realG: null,
  ...more,
})

/** Writes that are well formed, and wrong: refused with a sentence and nothing changed, or taken, and then everything reads. */
const writes: readonly Write[] = [
  command('a candidate that stands for a ghost', {
    type: 'lines.add',
    lines: [line({ state: 'candidate', insteadOf: 'ghost' })],
    beforeId: null,
  }),
  command('a candidate that stands for itself', {
    type: 'lines.add',
    lines: [line({ state: 'candidate', insteadOf: 'new' })],
    beforeId: null,
  }),
  command('a line before a ghost', { type: 'lines.add', lines: [line()], beforeId: 'ghost' }),
  command('a line that is there', { type: 'lines.add', lines: [line({ id: 'strap' })], beforeId: null }),
  command('the same line twice', { type: 'lines.add', lines: [line(), line()], beforeId: null }),
  command('pack facts on a strap', { type: 'lines.add', lines: [line({ pack: pack() })], beforeId: null }),
  command('a pack without facts', { type: 'lines.add', lines: [line({ slot: 'pack' })], beforeId: null }),
  command('a line fed by a ghost', {
    type: 'lines.add',
    lines: [line({ slot: 'camera', feed: { from: 'ghost', output: '5 V' } })],
    beforeId: null,
  }),
  command('a line fed by itself', {
    type: 'lines.add',
    lines: [line({ slot: 'board', feed: { from: 'new', output: '' } })],
    beforeId: null,
  }),
  command('a part of the drawer that is not there', {
    type: 'lines.add',
    lines: [line({ partId: 'ghost' })],
    beforeId: null,
  }),
  command('ids every object has', {
    type: 'lines.add',
    lines: [line({ id: 'constructor', name: 'toString' })],
    beforeId: null,
  }),
  command('an id called __proto__', { type: 'lines.add', lines: [line({ id: '__proto__' })], beforeId: null }),
  change('half of a character in a name', { name: 'strap \ud83d' }),
  change('a null character in a note', { note: 'a\u0000b' }),
  change('grams next to nothing', { mass: mass({ valueG: 5e-324 }) }),
  change('the most grams there are', { mass: mass({ valueG: 10_000 }) }),
  change('a spread beyond the piece', { mass: mass({ ownSpreadG: 9999 }) }),
  change('a step of nothing', { mass: mass({ resolutionG: 0 }) }),
  change('more readings than pieces', { mass: mass({ pieceReadingsG: [1, 2, 3] }) }),
  change('grams of more pieces than there are', { mass: mass({ valueCount: 999 }) }),
  change('a typical mass without a range', { mass: mass({ evidence: 'typical' }) }),
  change('a weighing with causes every object has', {
    mass: mass({ weighing: weighing({ contributions: { constructor: 1 } }) }),
  }),
  change('a weighing with __proto__ among its causes', {
    mass: mass({ weighing: JSON.parse(JSON.stringify(weighing()).replace('"weighing:w1"', '"__proto__"')) as object }),
  }),
  change('a weighing that is surer than nothing', { mass: mass({ weighing: weighing({ contributions: {} }) }) }),
  change('a weighing of a scale that is not there', {
    mass: mass({ weighing: weighing({ scaleId: 'ghost', checkId: 'ghost' }) }),
  }),
  change('a listing of nothing', { listing: { valueG: 0, resolutionG: 0 } }),
  change('properties of another kind', { properties: { kv: 4000 } }),
  change('properties every object has', { properties: { constructor: 1 } }),
  change('999 pieces at the highest price', { quantity: 999, priceEachCents: 10_000_000 }),
  change('another slot, with what it had', { slot: 'motor' }),
  change('a tie with nobody', { tie: 'constructor' }),
  change('an off line that is payload', { state: 'off', role: 'payload' }),
  command('a ghost weighed', { type: 'line.weigh', id: 'ghost', mass: mass({}), as: 'further' }),
  command('a line weighed by its own version', {
    type: 'line.weigh',
    id: 'strap',
    mass: mass({ versionId: 'strap' }),
    as: 'further',
  }),
  command('a weighing beside that is a guess', {
    type: 'line.weigh',
    id: 'strap',
    mass: mass({ evidence: 'guess' }),
    as: 'further',
  }),
  command('another piece of grams that are not there', {
    type: 'line.another',
    id: 'strap',
    versionId: 'ghost',
    was: mass({}),
  }),
  command('a capacity next to nothing', {
    type: 'lines.change',
    changes: [{ id: 'p7', fields: { pack: pack({ capacityMah: 5e-324 }) } }],
  }),
  command('a pack of no slot pack', { type: 'lines.change', changes: [{ id: 'p7', fields: { slot: 'strap' } }] }),
  command('the same line changed twice', {
    type: 'lines.change',
    changes: [
      { id: 'strap', fields: { quantity: 2 } },
      { id: 'strap', fields: { quantity: 3 } },
    ],
  }),
  command('every line deleted', { type: 'lines.delete', ids: ['strap', 'strap'] }),
  command('a ghost fitted', { type: 'line.fit', id: 'ghost' }),
  command('a fitted line fitted', { type: 'line.fit', id: 'strap' }),
  command('a set-up of a line twice', {
    type: 'setup.put',
    setup: { id: 's', name: 's', lineIds: ['strap', 'strap'] },
  }),
  command('a set-up of ghosts', { type: 'setup.put', setup: { id: 's', name: 's', lineIds: ['ghost'] } }),
  command('a set-up called like a formula', { type: 'setup.put', setup: { id: 's', name: '=1+1', lineIds: [] } }),
  command('a loadout of a ghost', { type: 'loadout.fly', choice: { setupId: 'ghost', packLineId: null } }),
  command('a loadout with a strap for a pack', {
    type: 'loadout.fly',
    choice: { setupId: 'as-built', packLineId: 'strap' },
  }),
  command('a weighing together of ghosts', {
    type: 'observation.put',
    observation: observation({ subjects: [{ id: 'ghost', slot: 'strap', quantity: 1, mass: null }] }),
  }),
  command('a weighing together of one line twice', {
    type: 'observation.put',
    observation: observation({
      subjects: [
        { id: 'strap', slot: 'strap', quantity: 1, mass: null },
        { id: 'strap', slot: 'strap', quantity: 1, mass: null },
      ],
    }),
  }),
  command('a weighing together of nothing', {
    type: 'observation.put',
    observation: observation({ valueG: 0, displaysG: [0] }),
  }),
  command('a weighing together that is surer than nothing', {
    type: 'observation.put',
    observation: observation({ contributions: {} }),
  }),
  command('a joint of no screws', {
    type: 'fit.set',
    fields: {
      joints: [
        {
          id: 'j',
          name: 'j',
          holds: null,
          count: 0,
          thread: '',
          head: '',
          material: '',
          clampedMm: 0,
          engagementMm: 0,
          freeDepthMm: 0,
          beyond: 'nothing',
          into: '',
          lengthMm: null,
          lineId: 'ghost',
        },
      ],
    },
  }),
  command('two joints of one id', {
    type: 'fit.set',
    fields: {
      joints: [1, 2].map(n => ({
        id: 'j',
        name: `j${n}`,
        holds: null,
        count: 4,
        thread: 'M2',
        head: 'button',
        material: 'steel',
        clampedMm: 3,
        engagementMm: 3,
        freeDepthMm: 3,
        beyond: 'nothing',
        into: 'steel',
        lengthMm: null,
        lineId: null,
      })),
    },
  }),
  command('a stack of boards that are not there', {
    type: 'fit.set',
    fields: {
      stack: {
        layers: [
          {
            id: 'l',
            name: 'l',
            kind: 'board',
            lineId: 'ghost',
            heightMm: 0,
            widthMm: null,
            lengthMm: null,
            turnDeg: 0,
            bare: 'none',
            port: null,
          },
        ],
      },
    },
  }),
  command('a flight with no air', { type: 'flying.set', fields: { altitudeM: 60_000, temperatureC: -273 } }),
  command('cards looked at that are not there', {
    type: 'flying.set',
    fields: { alsoCardIds: ['ghost', 'constructor'] },
  }),
  command('cards chosen that are not there', { type: 'build.set', fields: { aim: { cardIds: ['ghost', 'ghost'] } } }),
  command('a reserve larger than any limit', { type: 'build.set', fields: { aim: { reserveG: 10_000 } } }),
  command('a confidence of a coin', { type: 'build.set', fields: { aim: { confidence: 0.5 } } }),
  command('a build that becomes a reference craft with lines', {
    type: 'build.set',
    fields: { reference: { massG: 0, spreadG: 0, thrustG: 0, priceCents: 0, minutes: 0 } },
  }),
  command('a shaving that needs itself', { type: 'shaving.put', shaving: shaving({ needs: ['x'], excludes: ['x'] }) }),
  command('a shaving of a ghost', { type: 'shaving.put', shaving: shaving({ lineId: 'ghost', candidateId: 'ghost' }) }),
  command('a shaving done by nobody', { type: 'shaving.do', id: 'ghost', mass: null, realG: null, on: '2026-11-02' }),
  command('a shaving that takes a kilogram off', {
    type: 'shaving.put',
    shaving: shaving({ gramsG: 1000, spreadG: 1000, state: 'done' }),
  }),
  command('a school every object has', {
    type: 'assembly.set',
    fields: { school: 'constructor', order: ['__proto__', 'toString'] },
  }),
  command('own steps in a circle', {
    type: 'assembly.set',
    fields: {
      own: [
        { id: 'a', title: 'a', words: '', phase: 'close', after: ['b'], minutes: 1 },
        { id: 'b', title: 'b', words: '', phase: 'close', after: ['a'], minutes: 1 },
      ],
    },
  }),
  command('a record of a step that is not there', {
    type: 'assembly.record',
    stepId: 'constructor',
    fields: { doneAt: '2026-11-02T18:00:00.000Z', photoIds: ['ghost'] },
  }),
  command('a failed test that is done', {
    type: 'assembly.record',
    stepId: 'dry-fit',
    fields: { test: 'failed', doneAt: '2026-11-02T18:00:00.000Z' },
  }),
  {
    what: 'a revision near the end of numbers',
    path: '/api/builds/marzipan/commands',
    body: { command: { type: 'build.set', fields: { name: 'N' } }, note: '' },
    headers: { 'if-match': '"999999999999999"' },
  },
  {
    what: 'a key that is none',
    path: '/api/builds/marzipan/commands',
    body: { command: { type: 'build.set', fields: { name: 'N' } }, note: '', key: 'a.b.c' },
  },
  {
    what: 'a hundred commands at once',
    path: '/api/builds/marzipan/commands/many',
    body: {
      commands: Array.from({ length: 100 }, () => ({
        command: { type: 'build.set', fields: { name: 'N' } },
        note: '',
      })),
    },
  },
  {
    what: 'a good and a bad one together',
    path: '/api/builds/marzipan/commands/many',
    body: {
      commands: [
        { command: { type: 'build.set', fields: { name: 'N' } }, note: '' },
        { command: { type: 'lines.delete', ids: ['ghost'] }, note: '' },
      ],
    },
  },
  {
    what: 'lines handed to a reference craft that is not there',
    path: '/api/builds/marzipan/hand-over',
    body: { lineIds: ['strap'], to: { kind: 'build', id: 'ghost' } },
  },
  {
    what: 'a line handed over twice',
    path: '/api/builds/marzipan/hand-over',
    body: { lineIds: ['strap', 'strap'], to: { kind: 'drawer' } },
  },
  {
    what: 'lines handed to their own build',
    path: '/api/builds/marzipan/hand-over',
    body: { lineIds: ['strap'], to: { kind: 'build', id: 'marzipan' } },
  },
  { what: 'a copy of a ghost', path: '/api/builds', body: { from: 'copy', name: 'C', buildId: 'ghost' } },
  {
    what: 'a class every object has',
    path: '/api/builds',
    body: { from: 'class', name: 'C', craftClass: 'constructor' },
  },
  {
    what: 'a note to an entry that is not there',
    method: 'PATCH',
    path: '/api/builds/marzipan/journal/9007199254740993',
    body: { note: 'x' },
  },
  kept('a part of a kit that is not there', 'drawer', {
    kind: 'part',
    id: 'p',
    seen: null,
    set: {
      slot: 'strap',
      name: 'P',
      properties: null,
      listing: null,
      mass: null,
      pack: null,
      priceCents: null,
      soldIn: 1,
      owned: 1,
      lost: 0,
      scrapped: 0,
      missing: 0,
      kitId: 'ghost',
      bag: '',
      link: '',
      note: '',
      tags: [],
    },
  }),
  kept('more lost than owned', 'drawer', {
    kind: 'part',
    id: 'p',
    seen: null,
    set: {
      slot: 'strap',
      name: 'P',
      properties: null,
      listing: null,
      mass: null,
      pack: null,
      priceCents: null,
      soldIn: 1,
      owned: 1,
      lost: 9,
      scrapped: 0,
      missing: 0,
      kitId: null,
      bag: '',
      link: '',
      note: '',
      tags: [],
    },
  }),
  kept('a scale among the parts', 'drawer', {
    kind: 'scale',
    id: 's',
    seen: null,
    set: { name: 's', resolutionG: 0.01, capacityG: 200, repeatabilityG: null, checkIntervalDays: 30 },
  }),
  kept('a check of a scale that is not there', 'scales', {
    kind: 'check',
    id: 'c',
    seen: null,
    set: { scaleId: 'ghost', takenAt: '2026-11-02T18:00:00.000Z', placings: [{ references: [], displayG: 0 }] },
  }),
  kept('a tray on no scale', 'scales', {
    kind: 'tare',
    id: 't',
    seen: null,
    set: { name: 't', scaleId: 'ghost', displayG: 1, takenAt: '2026-11-02T18:00:00.000Z' },
  }),
  kept('a starting card of one’s own', 'rules', {
    kind: 'card',
    id: 'jp-100',
    seen: null,
    set: {
      place: 'P',
      purpose: 'q',
      purposeKind: 'any',
      comparator: '<',
      limit: { value: 250, unit: 'g' },
      counts: 'take-off',
      conditions: [],
      within: [],
      beyond: [],
      always: [],
      source: '',
      status: 'in force',
      since: null,
    },
  }),
  kept('a card verified that is not there', 'rules', {
    kind: 'verified',
    id: 'ghost',
    set: { verifiedOn: '2026-11-02' },
  }),
  kept('a card without the limit it compares with', 'rules', {
    kind: 'card',
    id: 'mine',
    seen: null,
    set: {
      place: 'P',
      purpose: 'q',
      purposeKind: 'any',
      comparator: '<',
      limit: null,
      counts: 'take-off',
      conditions: [],
      within: [],
      beyond: [],
      always: [],
      source: '',
      status: 'in force',
      since: null,
    },
  }),
  kept('settings with a field of their own', 'settings', { kind: 'settings', id: 'settings', set: { constructor: 1 } }),
  kept('a scale out in the world', 'settings', { kind: 'settings', id: 'settings', set: { benchScale: 'a:0' } }),
  kept('a thing taken out that was never there', 'templates', { kind: 'template', id: 'ghost', set: null }),
  { what: 'a settings confidence beyond one', method: 'PUT', path: '/api/settings', body: { confidence: 1 } },
  {
    what: 'a passphrase of one character',
    method: 'PUT',
    path: '/api/passphrase',
    body: { passphrase: 'aaaaaaaaaaaaaaaa' },
  },
  {
    what: 'a list row with two slots’ facts',
    path: '/api/parts/rows',
    body: { rows: [{ id: 'r', slot: 'strap', name: 'r', owned: 1, properties: { kv: 1 } }] },
  },
  {
    what: 'a list row that is there',
    path: '/api/parts/rows',
    body: {
      rows: [
        { id: 'r2', slot: 'strap', name: 'r', owned: 1 },
        { id: 'r2', slot: 'strap', name: 'r', owned: 1 },
      ],
    },
  },
  {
    what: 'a mapping every object has',
    path: '/api/parts/mapping',
    body: { heads: 'constructor', mapping: { constructor: '__proto__' } },
  },
]

test('well-formed but wrong writes are refused with a sentence and change nothing, or are taken, and everything reads', async () => {
  test.setTimeout(240_000)
  expect(writes.length).toBeGreaterThan(80)
  const server = new OwnServer()
  await server.start()
  await server.bringIn(...demoBuilds)
  const text = async (path: string) => {
    const answer = await fetch(server.address + path)
    return { status: answer.status, body: await answer.text() }
  }
  const ids = async () =>
    (JSON.parse((await text('/api/builds')).body) as { entries: { id: string }[] }).entries.map(entry => entry.id)
  const state = async () => [
    await text('/api/builds'),
    ...(await Promise.all((await ids()).flatMap(id => [text(`/api/builds/${id}`), text(`/api/builds/${id}/journal`)]))),
    await text('/api/parts'),
    await text('/api/scales'),
    await text('/api/cards'),
    await text('/api/templates'),
    await text('/api/settings'),
  ]
  const wrong: string[] = []
  let [taken, refused] = [0, 0]
  for (const { what, method = 'POST', path, body, headers } of writes) {
    const before = await state()
    const id = /^\/api\/builds\/([^/]+)\//.exec(path)?.[1]
    const revision = id ? (JSON.parse((await text(`/api/builds/${id}`)).body) as BuildReply).revision : 0
    const answer = await fetch(server.address + path, {
      method,
      headers: { 'content-type': 'application/json', ...(id ? { 'if-match': `"${revision}"` } : {}), ...headers },
      body: JSON.stringify(body),
    })
    const said = await answer.text()
    if (answer.status >= 500) {
      wrong.push(`${what}: ${answer.status} ${said}`)
      continue
    }
    if (answer.status >= 400) {
      refused++
      if (!/^[\w“].*[.!]$/.test((JSON.parse(said) as { detail: string }).detail))
        wrong.push(`${what}: says “${(JSON.parse(said) as { detail: string }).detail}”`)
      if (JSON.stringify(await state()) !== JSON.stringify(before))
        wrong.push(`${what}: refused, and something changed`)
      continue
    }
    taken++
    for (const each of await ids()) {
      for (const part of ['', '/journal', '/report', '/export/sheet.md', '/export/parts.csv', '/export/build.json']) {
        const got = await text(`/api/builds/${each}${part}`)
        if (got.status !== 200)
          wrong.push(`${what}: taken, then ${each}${part} is ${got.status} ${got.body.slice(0, 200)}`)
      }
    }
    if ((JSON.parse((await text('/api/builds')).body) as { unreadable: object[] }).unreadable.length > 0)
      wrong.push(`${what}: taken, then the shelf has one that cannot be read`)
  }
  expect(wrong).toEqual([])
  const before = await state()
  await server.kill()
  await server.start()
  expect(await state()).toEqual(before)
  // What could be made can be taken elsewhere.
  const other = new OwnServer()
  await other.start()
  for (const id of await ids()) {
    const file = (await text(`/api/builds/${id}/export/build.json`)).body
    const made = await fetch(`${other.address}/api/builds/import`, { method: 'POST', body: file })
    expect(made.status, `${id}: ${(await made.clone().text()).slice(0, 300)}`).toBe(200)
    expect(
      await (
        await fetch(`${other.address}/api/builds/${((await made.json()) as { id: string }).id}/export/build.json`)
      ).text(),
    ).toBe(file)
  }
  console.log(`${writes.length} wrong writes: ${refused} refused, ${taken} taken`)
  await other.end()
  await server.end()
})

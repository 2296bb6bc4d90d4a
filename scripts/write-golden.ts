/**
 * Writes what this version of the application writes into `golden/<name>`: a database and files with edits of every kind,
 * weighings and undone steps, and the figures it gives for them. Run with `npm run golden -- <name>` before a change of
 * formats; `server/golden.test.ts` holds every later version to it.
 */
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Command } from '../core/changes/commands'
import { makeLine, makeMass, type Build, type Line } from '../core/model/ledger'
import { makeShaving } from '../core/deciding/shave'
import { evaluateCheck } from '../core/mass/scale'
import {
  takeByDifference,
  takeObservation,
  takeOneByOne,
  takeTogether,
  readAtHand,
  type ReadyScale,
  type Taking,
} from '../core/deciding/weigh'
import { ListingBiasTable } from '../core/mass/listings'
import { lineEstimate } from '../core/mass/evidence'
import { makeApplication } from '../server/services/application'

const name = process.argv[2]
if (!name || !/^[\w-]+$/.test(name)) throw new Error('Say which folder of golden/ to write: npm run golden -- 2026-12')
const root = join(import.meta.dirname, '..')
const migrationFolder = join(root, 'server/db/migrations')
const migrations = readdirSync(migrationFolder).map(file => ({
  name: file,
  sql: readFileSync(join(migrationFolder, file), 'utf8'),
}))
const folder = mkdtempSync(join(tmpdir(), 'golden-'))
let clock = Date.parse('2026-11-20T18:00:00Z')
const app = makeApplication(join(folder, 'ledger.sqlite'), migrations, () => new Date((clock += 61_000)).toISOString())

const scale = {
  id: 'blue',
  name: 'blue pocket scale',
  resolutionG: 0.01,
  capacityG: 500,
  repeatabilityG: 0.008,
  checkIntervalDays: 30,
}
const ready: ReadyScale = {
  scale,
  name: scale.name,
  check: {
    id: 'check',
    result: evaluateCheck(scale, [
      { references: [], displayG: 0 },
      { references: [{ id: 'brass', massG: 100, toleranceG: 0.01 }], displayG: 100.22 },
    ]),
  },
}
let counter = 0
const newId = (what: string) => `${what}-${++counter}`
const taking = (): Taking => ({
  ready,
  tare: { id: newId('tare'), name: 'zero key', displayG: 0 },
  takenAt: '2026-11-20T18:00:00.000Z',
  id: newId('weighing'),
})
const gramsOf = (line: Line) => lineEstimate(line, new ListingBiasTable()).valueG
const display = (grams: number) => Number((grams * 1.0022 + 0.03).toFixed(2))

/** Edits of every kind to one build, each made from what the build is by then; `null` takes the last one back, `true` does it again. */
const edits: ((build: Build) => Command | null | true)[] = [
  () => ({ type: 'build.set', fields: { craftClass: 'a class of its own', aim: { reserveG: 0.5, goalDryG: 120 } } }),
  ({ lines }) => ({
    type: 'line.weigh',
    id: lines[0]!.id,
    mass: takeTogether(taking(), lines[0]!, [display(gramsOf(lines[0]!))], lines[0]!.quantity, 'as fitted'),
    as: lines[0]!.mass!.evidence === 'weighed' ? 'further' : 'estimate',
  }),
  build => {
    const line = build.lines.find(one => one.slot === 'motor')!
    const each = gramsOf(line) / line.quantity
    return {
      type: 'line.weigh',
      id: line.id,
      mass: takeOneByOne(taking(), line, [each - 0.02, each + 0.03, each].map(display), 'as fitted'),
      as: 'further',
    }
  },
  build => {
    const counted = build.lines.filter(
      line => line.state === 'fitted' && line.role === 'airframe' && line.slot !== 'pack' && line.mass,
    )
    return {
      type: 'observation.put',
      observation: takeObservation(
        taking(),
        'dry aircraft',
        counted,
        [display(counted.reduce((sum, line) => sum + gramsOf(line), 0))],
        'taken in',
      ),
    }
  },
  ({ lines }) => {
    const lead = lines.find(line => line.slot === 'power lead')!
    return {
      type: 'line.weigh',
      id: lead.id,
      mass: takeByDifference(
        taking(),
        lead,
        display(gramsOf(lead)),
        display(gramsOf(lead) - 0.4),
        new ListingBiasTable(),
      ),
      as: 'another piece',
    }
  },
  ({ lines }) => {
    const strap = lines.find(line => line.slot === 'strap' || line.slot === 'other')!
    const read = readAtHand(
      ready,
      makeMass({ versionId: newId('typed'), evidence: 'weighed', valueG: 2.31 }),
      '2026-11-20T18:00:00.000Z',
    )
    if ('problem' in read) throw new Error(read.problem)
    return { type: 'lines.change', changes: [{ id: strap.id, fields: { mass: read.mass } }] }
  },
  () => null,
  () => true,
  ({ lines }) => ({
    type: 'lines.add',
    lines: [
      makeLine({
        id: 'dusk-lamp',
        slot: 'payload',
        name: 'Lamp',
        quantity: 2,
        mass: makeMass({ versionId: newId('typed'), evidence: 'guess', valueG: 1.2 }),
        note: 'for the dusk',
        tie: 'lamp',
      }),
      makeLine({
        id: 'dusk-clip',
        slot: 'printed part',
        name: 'Clip',
        tie: 'lamp',
        mass: makeMass({ versionId: newId('typed'), evidence: 'worked out', valueG: 0.4 }),
      }),
      makeLine({
        id: 'another-frame',
        slot: 'frame',
        name: 'Another frame',
        state: 'candidate',
        insteadOf: lines.find(line => line.slot === 'frame')!.id,
        mass: makeMass({ versionId: newId('typed'), evidence: 'listed', valueG: 30.5, resolutionG: 0.1 }),
        listing: { valueG: 30.5, resolutionG: 0.1 },
      }),
    ],
    beforeId: lines[1]!.id,
  }),
  ({ setups }) => ({
    type: 'setup.put',
    setup: { id: 'dusk', name: 'dusk', lineIds: [...setups[0]!.lineIds, 'dusk-lamp'] },
  }),
  ({ flies }) => ({ type: 'loadout.fly', choice: { ...flies, setupId: 'dusk' } }),
  ({ flies }) => ({ type: 'loadout.never', choice: { ...flies, setupId: 'dusk' }, never: true }),
  ({ lines }) => ({ type: 'lines.move', ids: [lines.at(-1)!.id], beforeId: lines[0]!.id }),
  () => ({
    type: 'lines.change',
    changes: [{ id: 'dusk-lamp', fields: { quantity: 1, removable: true, note: 'one is enough' } }],
  }),
  ({ fit, lines }) => ({
    type: 'fit.set',
    fields: {
      mounting: { motorsUpsideDown: true, pushedProps: true, boardUpsideDown: false, boardTurnDeg: 45 },
      joints: [
        ...(fit?.joints ?? []),
        {
          id: 'clip-joint',
          name: 'clip',
          holds: null,
          count: 2,
          thread: 'M2',
          head: 'button',
          material: 'alloy steel',
          clampedMm: 2,
          engagementMm: 2,
          freeDepthMm: 4,
          beyond: 'nothing',
          into: 'plastic',
          lengthMm: 5,
          lineId: lines.find(line => line.slot === 'screw')?.id ?? null,
          said: true,
        },
      ],
    },
  }),
  () => ({ type: 'flying.set', fields: { style: 'freestyle', temperatureC: 4, altitudeM: 350 } }),
  ({ lines }) => ({
    type: 'shaving.put',
    shaving: makeShaving({
      id: 'trim',
      what: 'trim the frame',
      kind: 'cut',
      lineId: lines.find(line => line.slot === 'frame' && line.state === 'fitted')!.id,
      gramsG: 0.8,
    }),
  }),
  () => ({
    type: 'shaving.put',
    shaving: makeShaving({ id: 'thought', what: 'a lighter aerial', kind: 'other', gramsG: 0.2 }),
  }),
  () => ({ type: 'shavings.plan', ids: ['trim'] }),
  () => ({ type: 'shave.set', fields: { spare: 'minutes', caps: { cents: 500, minutes: null, loss: null } } }),
  ({ lines }) => {
    const frame = lines.find(line => line.slot === 'frame' && line.state === 'fitted')!
    return {
      type: 'shaving.do',
      id: 'trim',
      mass: makeMass({
        versionId: newId('shaved'),
        evidence: 'weighed',
        valueG: gramsOf(frame) - 0.8,
        basis: 'as fitted',
      }),
      realG: 0.8,
      on: '2026-11-21',
    }
  },
  () => ({ type: 'line.fit', id: 'another-frame' }),
  () => ({ type: 'assembly.set', fields: { school: 'motors first', order: ['frame', 'motors'] } }),
  () => ({
    type: 'assembly.record',
    stepId: 'motors',
    fields: {
      startedAt: '2026-11-22T18:00:00.000Z',
      doneAt: '2026-11-22T18:20:00.000Z',
      minutes: 20,
      note: 'one screw was short',
    },
  }),
  () => ({ type: 'lines.delete', ids: ['dusk-clip'] }),
  () => ({ type: 'build.set', fields: { name: 'Of every kind' } }),
  () => null,
]

async function carryOut(id: string): Promise<void> {
  for (const edit of edits) {
    const { build, revision } = app.builds.read(id)
    const command = edit(build)
    if (command === null) await app.builds.undo(id, revision)
    else if (command === true) await app.builds.redo(id, revision)
    else await app.builds.command(id, revision, command, `edit ${++counter}`)
  }
}

const { id: scaleId, ...scaleFields } = scale
await app.keeping.change('scales', [
  { changes: [{ kind: 'scale', id: scaleId, seen: null, set: scaleFields }], key: null, onTop: false },
])
const demo = readdirSync(join(root, 'demo/builds')).filter(file => file.endsWith('.build.json'))
const files = Object.fromEntries(
  demo.map(file => [file.replace('.build.json', ''), readFileSync(join(root, 'demo/builds', file), 'utf8')]),
)
for (const [id, text] of Object.entries(files)) {
  await app.files.importBuild(text)
  await carryOut(id)
}
const ids = app.builds.shelf().map(entry => entry.id)
const reports = await Promise.all(ids.map(async id => [id, await app.builds.report(id)] as const))
const answers = {
  builds: Object.fromEntries(ids.map(id => [id, JSON.parse(app.files.exportBuild(id)) as object])),
  parts: app.parts.all(),
  scales: app.scales.all(),
  cards: { cards: app.rules.cards() },
  templates: app.templates.all(),
  settings: app.settings.load(),
  figures: { shelf: app.builds.shelf(), reports: Object.fromEntries(reports) },
}
app.close()

const target = join(root, 'golden', name)
mkdirSync(target, { recursive: true })
const pack = (file: string, content: string | Buffer) => {
  writeFileSync(join(target, `${file}.gz`), gzipSync(content, { level: 9 }))
}
pack('answers.json', JSON.stringify(answers))
pack('demo-files.json', JSON.stringify(files))
pack('jolly-gram.sqlite', readFileSync(join(folder, 'ledger.sqlite')))
rmSync(folder, { recursive: true })

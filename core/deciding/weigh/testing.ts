import fc from 'fast-check'
import { makeBuild, applyCommand, type Command } from '../../changes/commands'
import { blankAim, makeLine, makeMass, type Build, type Line, type LoadoutChoice } from '../../model/ledger'
import { ListingBiasTable } from '../../mass/listings'
import { estimatesOf, loadoutMasses } from '../../mass/loadout'
import { startingCards } from '../../limits/rules'
import { evaluateCheck, type Scale, type ScaleState } from '../../mass/scale'
import { placeOf } from './place'
import { takeObservation, takeTogether, type ReadyScale } from './take'

export const nobody = new ListingBiasTable()
export const good: Scale = {
  id: 'good',
  name: 'good',
  resolutionG: 0.01,
  capacityG: 500,
  repeatabilityG: 0.008,
  checkIntervalDays: 30,
}
export const coarse: Scale = {
  id: 'coarse',
  name: 'coarse',
  resolutionG: 0.1,
  capacityG: 2000,
  repeatabilityG: null,
  checkIntervalDays: 30,
}
export const check: ScaleState['check'] = {
  id: 'c',
  result: evaluateCheck(good, [
    { references: [], displayG: 0 },
    { references: [{ id: 'r', massG: 200, toleranceG: 0.02 }], displayG: 200.1 },
  ]),
}
export const checked: ReadyScale = { scale: good, check, name: 'good' }
export const unchecked: ReadyScale = { scale: coarse, check: null, name: 'coarse' }
/** As good as the checked one, and nobody has checked it. */
export const fine: ReadyScale = { scale: { ...good, id: 'fine' }, check: null, name: 'fine' }
let taken = 0
export const taking = (ready: ReadyScale) => ({
  ready,
  tare: { id: `tare-${taken}`, name: 'zero key', displayG: 0 },
  takenAt: '2026-11-01T10:00:00.000Z',
  id: `taken-${taken++}`,
})

export const guessedLine = (id: string, valueG: number): Line =>
  makeLine({ id, slot: 'other', name: id, mass: makeMass({ versionId: `g-${id}`, evidence: 'guess', valueG }) })
export const listed = (id: string, slot: Line['slot'], valueG: number, quantity = 1): Line =>
  makeLine({
    id,
    slot,
    name: id,
    quantity,
    mass: makeMass({ versionId: `l-${id}`, evidence: 'listed', valueG, resolutionG: 0.1 }),
    listing: { valueG, resolutionG: 0.1 },
  })
export const weighed = (line: Line, valueG: number, ready: ReadyScale = checked): Line => ({
  ...line,
  mass: takeTogether(taking(ready), line, [valueG], line.quantity, 'as fitted'),
})
export const flown: LoadoutChoice = { setupId: 's', packLineId: null }
export function buildOf(lines: readonly Line[]): Build {
  return makeBuild({
    id: 'b',
    name: 'b',
    aim: { ...blankAim(), cardIds: [startingCards[0]!.id] },
    lines,
    setups: [{ id: 's', name: 'as built', lineIds: [] }],
    flies: flown,
  })
}
export const total = (build: Build) => loadoutMasses(build, [flown], estimatesOf(build, nobody))[0]!
export const gramsOf = (build: Build, id: string) => estimatesOf(build, nobody).of(build.lines.find(l => l.id === id)!)
export const lineOf = (build: Build, id: string) => build.lines.find(l => l.id === id)!
export function weighTogether(
  build: Build,
  displayG: number,
  ready: ReadyScale = checked,
  ids: readonly string[] = build.lines.map(l => l.id),
): Build {
  const observation = takeObservation(
    taking(ready),
    'whole',
    ids.map(id => lineOf(build, id)),
    [displayG],
    'taken in',
  )
  return applyCommand(build, { type: 'observation.put', observation })
}
export function weighOne(
  build: Build,
  id: string,
  displayG: number,
  ready: ReadyScale = checked,
  as?: Extract<Command, { type: 'line.weigh' }>['as'],
): Build {
  const line = lineOf(build, id)
  const mass = takeTogether(taking(ready), line, [displayG], line.quantity, line.mass?.basis ?? 'as fitted')
  return applyCommand(build, {
    type: 'line.weigh',
    id,
    mass,
    as: as ?? placeOf(mass, line, build, estimatesOf(build, nobody), nobody),
  })
}
export const type = (build: Build, id: string, valueG: number, versionId: string) =>
  applyCommand(build, {
    type: 'lines.change',
    changes: [{ id, fields: { mass: makeMass({ versionId, evidence: 'weighed', valueG }) } }],
  })

const slots = ['frame', 'motor', 'propeller', 'strap', 'other'] as const
const lines = fc
  .array(
    fc.record({
      slot: fc.constantFrom(...slots),
      trueG: fc.double({ min: 0.4, max: 60, noNaN: true }),
      kind: fc.constantFrom('guess', 'listed', 'weighed on good', 'weighed on coarse', 'weighed on fine'),
      quantity: fc.constantFrom(1, 1, 1, 4),
    }),
    { minLength: 2, maxLength: 9 },
  )
  .map(given =>
    given.map(({ slot, trueG, kind, quantity }, i): Line => {
      const [id, each] = [`l${i}`, Number((trueG / quantity).toFixed(2)) || 0.01]
      const base = makeLine({
        id,
        slot,
        name: id,
        quantity,
        mass: makeMass({
          versionId: `v${i}`,
          evidence: kind === 'listed' ? 'listed' : 'guess',
          valueG: each,
          resolutionG: 0.1,
          basis: 'as fitted',
        }),
      })
      return kind.startsWith('weighed')
        ? weighed(
            base,
            Number((each * quantity).toFixed(2)),
            kind === 'weighed on good' ? checked : kind === 'weighed on fine' ? fine : unchecked,
          )
        : base
    }),
  )
const parts = fc.array(
  fc.record({
    from: fc.nat(8),
    count: fc.integer({ min: 2, max: 9 }),
    onGood: fc.boolean(),
    off: fc.double({ min: -0.03, max: 0.03, noNaN: true }),
  }),
  { maxLength: 3 },
)
/** Ledgers of all kinds of evidence, with weighings of several lines on two scales. */
export const madeUpLedger = fc.tuple(lines, parts).map(([made, weighings]) =>
  weighings.reduce((build, { from, count, onGood, off }) => {
    const ids = build.lines
      .slice(from % build.lines.length)
      .slice(0, count)
      .map(l => l.id)
    const sumG = ids.reduce((sum, id) => sum + gramsOf(build, id).valueG, 0)
    return weighTogether(build, Number((sumG * (1 + off)).toFixed(2)), onGood ? checked : unchecked, ids)
  }, buildOf(made)),
)

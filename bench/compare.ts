/**
 * Four builds of 400 lines beside each other, with every figure of each as a whole, against one evaluation of one of them:
 * its estimates and its overview made anew.
 */
import { craftFigures } from '../core/comparing/crafts'
import { compareLines } from '../core/comparing/lines'
import { makeBuild } from '../core/changes/commands'
import { startingCards } from '../core/limits/rules'
import { ListingBiasTable } from '../core/mass/listings'
import { estimatesOf } from '../core/mass/loadout'
import { overviewOf } from '../core/mass/report'
import { blankAim, makeLine, makeMass, slots, type Build, type Line } from '../core/model/ledger'
import { medianMs, seeded } from './measure'

const slotsUsed = slots.filter(slot => slot !== 'pack')
function buildOf(number: number): Build {
  const random = seeded(number + 7)
  const lines = Array.from({ length: 400 }, (_, i): Line => {
    const evidence = (['weighed', 'listed', 'guess', 'worked out'] as const)[i % 4]!
    const valueG = Number((random() * 2 + 0.02).toFixed(2))
    return makeLine({
      id: i === 399 ? 'pack' : `l${number}-${i}`,
      slot: i === 399 ? 'pack' : slotsUsed[i % slotsUsed.length]!,
      name: `part ${Math.floor(random() * 300)}`,
      mass: makeMass({ versionId: `v${number}-${i}`, evidence, valueG }),
      listing: evidence === 'listed' ? { valueG, resolutionG: 0.1 } : null,
    })
  })
  const aim = { cardIds: startingCards.slice(0, 2).map(({ id }) => id) }
  return makeBuild({
    id: `b${number}`,
    name: `b${number}`,
    lines,
    setups: [{ id: 'as', name: 'as built', lineIds: [] }],
    flies: { setupId: 'as', packLineId: 'pack' },
    aim: { ...blankAim(), ...aim },
  })
}
const builds = [0, 1, 2, 3].map(buildOf)
const honesty = new ListingBiasTable()
const evaluate = (build: Build) => {
  const estimates = estimatesOf(build, honesty)
  return { build, choice: build.flies, estimates, overview: overviewOf(build, build.flies, startingCards, estimates) }
}
const one = medianMs(() => evaluate(builds[0]!), 101)
const all = medianMs(() => {
  const columns = builds.map(evaluate)
  compareLines(columns)
  for (const column of columns) craftFigures(column, startingCards, null, column.overview)
}, 51)
const lines = medianMs(() => compareLines(builds.map(evaluate)), 51)
console.log(`one evaluation of a build of 400 lines: ${one.toFixed(2)} ms`)
console.log(`four compared line by line: ${(lines / one).toFixed(1)} of it`)
console.log(`the same with every figure of the whole (at most 20): ${(all / one).toFixed(1)} of it`)

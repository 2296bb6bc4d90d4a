import { typicalClasses, typicalPackFacts } from '../../parts/catalogue'
import { makeLine, makeMass, type Build, type LoadoutChoice, type PackFacts } from '../../model/ledger'
import type { LineEstimates } from '../../mass/loadout'
import { loadoutVerdicts } from '../../mass/report'
import type { RuleCard } from '../../limits/rules'
import type { LoadoutCell } from './loadout-matrix'
import { withTried } from './hypothetical-packs'

/** What pack could be carried with one set-up. */
export interface Carry {
  /** Grams of a weighed pack that are just Clear under every card; null when even none is. */
  readonly roomG: number | null
  /** Capacity of that many grams at the typical mAh/g of packs with these cells, lowest and highest. */
  readonly typicalMah: readonly [number, number] | null
  readonly mahPerG: readonly [number, number] | null
  /** The largest capacity among the packs of the sheet that stays Clear; null when none does. */
  readonly best: LoadoutCell | null
}

/** The mAh/g typical classes of these cells and chemistry have, lowest and highest; null when there are none. */
export function typicalMahPerG({
  cells,
  chemistry,
}: Pick<PackFacts, 'cells' | 'chemistry'>): readonly [number, number] | null {
  const ratios = typicalClasses('pack').flatMap(c => {
    const facts = typicalPackFacts(c.class)
    const same = facts && facts.cells === cells && (facts.chemistry === 'Li-ion') === (chemistry === 'Li-ion')
    return same ? [facts.capacityMah / c.highG, facts.capacityMah / c.lowG] : []
  })
  return ratios.length === 0 ? null : [Math.min(...ratios), Math.max(...ratios)]
}

/**
 * The heaviest pack that stays Clear, the reserve kept, with a set-up, and what capacity that is: by the packs of the
 * sheet, and by the typical
 * mAh/g of packs with the cells of `like`. The pack is taken as weighed.
 */
export function carryOf(
  build: Build,
  choice: LoadoutChoice,
  like: PackFacts,
  cells: readonly LoadoutCell[],
  cards: readonly RuleCard[],
  estimates: LineEstimates,
): Carry {
  const isClear = (grams: number) => {
    const line = makeLine({
      id: 'carried-pack',
      slot: 'pack',
      name: 'Pack',
      pack: like,
      mass: makeMass({ versionId: 'carried-pack', evidence: 'weighed', valueG: grams }),
    })
    const alone: Build = {
      ...withTried({ ...build, lines: build.lines.filter(l => l.slot !== 'pack') }, line),
      neverFlown: build.neverFlown
        .filter(n => n.packLineId === choice.packLineId)
        .map(n => ({ ...n, packLineId: line.id })),
    }
    return (
      loadoutVerdicts(alone, [{ setupId: choice.setupId, packLineId: line.id }], cards, estimates)[0]!.intoReserveG ===
      0
    )
  }
  const clear = cells.filter(
    cell =>
      cell.choice.setupId === choice.setupId &&
      cell.source !== 'typical' &&
      cell.intoReserveG === 0 &&
      cell.pack.pack?.cells === like.cells,
  )
  const best = clear.reduce<LoadoutCell | null>(
    (most, cell) => (most && most.pack.pack!.capacityMah >= cell.pack.pack!.capacityMah ? most : cell),
    null,
  )
  const mahPerG = typicalMahPerG(like)
  let [low, high] = [0, 2000]
  if (isClear(high)) return { roomG: null, typicalMah: null, mahPerG, best }
  if (!isClear(0.01)) return { roomG: null, typicalMah: null, mahPerG, best }
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2
    if (isClear(middle)) low = middle
    else high = middle
  }
  return { roomG: low, mahPerG, typicalMah: mahPerG && [low * mahPerG[0], low * mahPerG[1]], best }
}

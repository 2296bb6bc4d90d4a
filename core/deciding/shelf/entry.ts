import { figure } from '../../text/display'
import { progressOf, sequenceOf } from '../../making/assembly'
import type { Build, Evidence, Group, LoadoutChoice } from '../../model/ledger'
import { defaultLoadout, estimatesOf, isOnPurpose, loadoutName, sameLoadout } from '../../mass/loadout'
import type { ListingBiasTable } from '../../mass/listings'
import { overviewOf } from '../../mass/report'
import type { RuleCard } from '../../limits/rules'

/** A build as the shelf shows it: plain data that travels over the wire. */
export interface ShelfEntry {
  readonly id: string
  readonly name: string
  readonly craftClass: string
  readonly archived: boolean
  readonly pinned: boolean
  readonly tags: readonly string[]
  readonly reference: Build['reference']
  readonly massG: number
  readonly sigmaG: number
  readonly dryG: number
  readonly goalDryG: number | null
  readonly reserveG: number
  readonly segments: readonly { group: Group; massG: number }[]
  readonly word: string | null
  /** Over, and flown so on purpose. */
  readonly onPurpose: boolean
  readonly headroomG: number | null
  readonly intoReserveG: number | null
  readonly probability: number | null
  readonly limitG: number | null
  readonly limitWritten: string
  readonly loadout: string
  /** The loadout that decides, where the binding card looks at another than the one flown. */
  readonly decidedBy: string | null
  readonly lines: number
  readonly weighedLines: number
  readonly weighedWhole: boolean
  readonly openLines: number
  readonly evidences: Readonly<Record<Evidence, number>>
  /** How far it is put together; null while nobody has begun. */
  readonly assembled: { readonly done: number; readonly of: number; readonly failed: number } | null
}

/** The shelf entry of a build in its default loadout; a reference craft stands for itself. */
export function shelfEntry(build: Build, cards: readonly RuleCard[], honesty: ListingBiasTable): ShelfEntry {
  const choice = defaultLoadout(build)
  const overview = overviewOf(build, choice, cards, estimatesOf(build, honesty))
  const evidenceCounts = { guess: 0, typical: 0, listed: 0, 'worked out': 0, twin: 0, weighed: 0 }
  for (const line of overview.counted) if (line.mass) evidenceCounts[line.mass.evidence]++
  const { binding } = overview
  return {
    id: build.id,
    name: build.name,
    craftClass: build.craftClass,
    archived: build.archived,
    pinned: build.shelf?.pinned ?? false,
    tags: build.shelf?.tags ?? [],
    reference: build.reference,
    massG: overview.massG,
    sigmaG: overview.sigmaG,
    dryG: overview.dry.valueG,
    goalDryG: build.aim.goalDryG,
    reserveG: build.aim.reserveG,
    segments: overview.groups.map(g => ({ group: g.group, massG: g.estimate.valueG })),
    word: binding?.verdict?.word ?? null,
    onPurpose: binding?.verdict?.word === 'Over' && isOnPurpose(build, choice),
    headroomG: binding?.verdict?.headroomG ?? null,
    intoReserveG: overview.intoReserveG,
    probability: binding?.verdict?.probability ?? null,
    limitG: binding?.limitG ?? null,
    limitWritten: binding?.card.limit ? `${figure(binding.card.limit.value, 4)} ${binding.card.limit.unit}` : '',
    loadout: loadoutName(build, choice),
    decidedBy:
      binding?.heaviest && !sameLoadout(binding.heaviest, choice) ? loadoutName(build, binding.heaviest) : null,
    lines: overview.counted.length,
    weighedLines: overview.weighedLines,
    weighedWhole: overview.weighedWhole,
    openLines: overview.openLines,
    evidences: evidenceCounts,
    assembled: assembledOf(build, choice),
  }
}

function assembledOf(build: Build, choice: LoadoutChoice): ShelfEntry['assembled'] {
  const sorted = build.assembly ? sequenceOf(build, choice) : null
  if (!sorted || !('steps' in sorted)) return null
  const { done, of, failed } = progressOf(sorted.steps, build.assembly!)
  return { done, of, failed }
}

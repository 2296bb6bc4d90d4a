import { typicalClasses, typicalPackFacts } from '../../parts/catalogue'
import { applyCommand } from '../../changes/commands'
import { lineOfPart, type Part } from '../../parts/drawer'
import { spreadG } from '../../maths/estimate'
import { findingsOf, fitReport, type Finding, type GroundGear } from '../../aircraft/fit'
import {
  makeLine,
  makeMass,
  slotFacts,
  type Build,
  type Line,
  type LoadoutChoice,
  type PackFacts,
} from '../../model/ledger'
import type { LineEstimates } from '../../mass/loadout'
import { overviewOf } from '../../mass/report'
import type { RuleCard } from '../../limits/rules'
import type { Verdict } from '../../limits/verdict'
import { figuresOf, type Figure } from './figures'

/** Where a candidate comes from. */
export type CandidateSource = 'fitted' | 'on the list' | 'drawer' | 'catalogue'

/** One thing that could go into a slot, with what choosing it would change. */
export interface CandidateRow {
  readonly source: CandidateSource
  readonly line: Line
  /** Grams of the whole set; null while it has none. */
  readonly setG: number | null
  readonly spreadG: number
  /** All-up weight with it, and against now. */
  readonly auwG: number
  readonly deltaG: number | null
  readonly verdict: Verdict | null
  readonly setPriceCents: number | null
  readonly figures: readonly Figure[]
  readonly findings: readonly Finding[]
}

interface Given {
  readonly build: Build
  readonly fittedId: string
  readonly parts: readonly Part[]
  readonly choice: LoadoutChoice
  readonly cards: readonly RuleCard[]
  readonly estimates: LineEstimates
  readonly gear: GroundGear
}

/** A typical pack is what its class says, never what the fitted one is. */
function packOfClass(className: string, fitted: Line): PackFacts | null {
  const facts = fitted.slot === 'pack' ? typicalPackFacts(className) : null
  return facts && { ...facts, label: 'typical', cRating: null, plug: fitted.pack?.plug ?? '' }
}

/**
 * Everything that could go where a fitted line is: that line, the build's own candidates, the drawer, the typical
 * classes. Each is tried in the build, so that total, verdict and fit are those it would have.
 */
export function candidateRows({ build, fittedId, parts, choice, cards, estimates, gear }: Given): CandidateRow[] {
  const fitted = build.lines.find(line => line.id === fittedId)
  if (!fitted) return []
  const replaced = new Set(
    [fitted.partId, ...build.lines.filter(l => l.insteadOf === fittedId).map(l => l.partId)].filter(id => id !== null),
  )
  const own = build.lines.filter(line => line.state === 'candidate' && line.insteadOf === fittedId)
  const fromDrawer = parts
    .filter(part => part.slot === fitted.slot && !replaced.has(part.id))
    .map(part => lineOfPart(part, `part-${part.id}`, fitted.quantity))
  const fromCatalogue = typicalClasses(fitted.slot)
    .filter(c => c.per === 'piece')
    .map((c, i) =>
      makeLine({
        id: `class-${i}`,
        slot: fitted.slot,
        quantity: fitted.quantity,
        name: `${slotFacts[fitted.slot].label}, ${c.class}`,
        mass: makeMass({
          versionId: `class-${fitted.slot.replaceAll(' ', '-')}-${i}`,
          evidence: 'typical',
          valueG: (c.lowG + c.highG) / 2,
          halfRangeG: (c.highG - c.lowG) / 2,
          origin: `typical for ${c.class}`,
        }),
        pack: packOfClass(c.class, fitted),
      }),
    )
  const now = overviewOf(build, choice, cards, estimates)
  const cells = build.lines.find(line => line.id === choice.packLineId)?.pack?.cells ?? null

  function row(line: Line, source: CandidateSource): CandidateRow {
    const tried = source === 'fitted' ? build : tryIn(build, fitted!, line, source)
    const flown = choice.packLineId === fitted!.id ? { ...choice, packLineId: line.id } : choice
    const overview = source === 'fitted' ? now : overviewOf(tried, flown, cards, estimates)
    const estimate = estimates.of(tried.lines.find(l => l.id === line.id)!)
    return {
      source,
      line,
      setG: line.mass ? estimate.valueG : null,
      spreadG: line.mass ? spreadG(estimate) : 0,
      auwG: overview.massG,
      deltaG: line.mass && fitted!.mass ? overview.massG - now.massG : null,
      verdict: overview.binding?.verdict ?? null,
      setPriceCents: line.priceEachCents === null ? null : line.priceEachCents * line.quantity,
      figures: figuresOf(
        {
          slot: line.slot,
          properties: line.properties,
          pack: line.pack,
          eachG: line.mass ? estimate.valueG / line.quantity : null,
          quantity: line.quantity,
        },
        fitted!.slot === 'pack' ? (line.pack?.cells ?? null) : cells,
      ),
      findings: line.properties === null && source === 'catalogue' ? [] : findingsWith(tried, flown, line),
    }
  }
  /** Of the candidate itself, and of devices that would lose their feed by it. */
  function findingsWith(tried: Build, flown: LoadoutChoice, line: Line): Finding[] {
    const report = fitReport(
      { ...tried, setups: tried.setups.filter(s => s.id === flown.setupId), neverFlown: [] },
      flown,
      gear,
    )
    const cutOff = line.id === fitted!.id ? [] : tried.lines.filter(other => other.feed?.from === fitted!.id)
    const own = findingsOf(report, line)
    const lost = cutOff.flatMap(other =>
      findingsOf(report, other).filter(f => f.check === 'feed-known' && !own.includes(f)),
    )
    return [...own, ...lost].filter(f => f.severity !== 'advice')
  }

  return [
    row(fitted, 'fitted'),
    ...own.map(line => row(line, 'on the list')),
    ...fromDrawer.map(line => row(line, 'drawer')),
    ...fromCatalogue.map(line => row(line, 'catalogue')),
  ]
}

/** The build with a candidate in the place of the fitted line. */
function tryIn(build: Build, fitted: Line, line: Line, source: CandidateSource): Build {
  const added =
    source === 'on the list'
      ? build
      : applyCommand(build, {
          type: 'lines.add',
          lines: [
            {
              ...line,
              state: 'candidate',
              insteadOf: fitted.id,
              role: fitted.role,
              tie: fitted.tie,
              feed: fitted.feed,
            },
          ],
          beforeId: null,
        })
  return applyCommand(added, { type: 'line.fit', id: line.id })
}

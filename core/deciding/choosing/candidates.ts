import { lineOfClass, typicalClasses, typicalPackFacts } from '../../parts/catalogue'
import { applyCommand } from '../../changes/commands'
import { lineOfPart, type Part } from '../../parts/drawer'
import { spreadG } from '../../maths/estimate'
import { findingsOf, fitReport, type Finding, type GroundGear } from '../../aircraft/fit'
import { flightPlanOf, minutesAgainst, type MinutesAgainst } from '../../aircraft/flight'
import type { Lessons } from '../../aircraft/flown'
import type { Build, Line, LoadoutChoice, PackFacts } from '../../model/ledger'
import type { LineEstimates } from '../../mass/loadout'
import { overviewOf, type Overview } from '../../mass/report'
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
  /** How long it would fly with it, against now; null where minutes cannot be told. */
  readonly minutes: MinutesAgainst | null
}

interface Given {
  readonly build: Build
  readonly fittedId: string
  readonly parts: readonly Part[]
  readonly choice: LoadoutChoice
  readonly cards: readonly RuleCard[]
  readonly estimates: LineEstimates
  readonly gear: GroundGear
  /** What flights teach of the build; null where they are left out. */
  readonly lessons?: Lessons | null
}

/** A typical pack is what its class says, never what the fitted one is. */
function packOfClass(className: string, fitted: Line): PackFacts | null {
  const facts = fitted.slot === 'pack' ? typicalPackFacts(className) : null
  return facts && { ...facts, label: 'typical', cRating: null, plug: fitted.pack?.plug ?? '' }
}

/** A line for each typical class of a slot, in the place of a fitted one. */
function linesOfClasses(fitted: Line): Line[] {
  const { slot, quantity } = fitted
  return typicalClasses(slot)
    .filter(c => c.per === 'piece')
    .map((c, i) =>
      lineOfClass(slot, c, {
        id: `class-${i}`,
        versionId: `class-${slot.replaceAll(' ', '-')}-${i}`,
        quantity,
        pack: packOfClass(c.class, fitted),
      }),
    )
}

/** Parts of the drawer that could go there and are not on the list already. */
function linesOfDrawer({ build, parts }: Given, fitted: Line): Line[] {
  const listed = build.lines.filter(line => line.insteadOf === fitted.id)
  const there = new Set([fitted, ...listed].map(line => line.partId).filter(id => id !== null))
  return parts
    .filter(part => part.slot === fitted.slot && !there.has(part.id))
    .map(part => lineOfPart(part, `part-${part.id}`, fitted.quantity))
}

/** Findings of a candidate itself, and of devices that would lose their feed by it. */
function findingsWith(tried: Build, flown: LoadoutChoice, line: Line, fitted: Line, gear: GroundGear): Finding[] {
  const alone = { ...tried, setups: tried.setups.filter(s => s.id === flown.setupId), neverFlown: [] }
  const report = fitReport(alone, flown, gear)
  const cutOff = line.id === fitted.id ? [] : tried.lines.filter(other => other.feed?.from === fitted.id)
  const own = findingsOf(report, line)
  const lost = cutOff.flatMap(other =>
    findingsOf(report, other).filter(f => f.check === 'feed-known' && !own.includes(f)),
  )
  return [...own, ...lost].filter(f => f.severity !== 'advice')
}

/** A candidate tried in the build. `now`: the build as it is; `cells`: of the pack it flies on. */
function rowOf(
  line: Line,
  source: CandidateSource,
  fitted: Line,
  { build, choice, cards, estimates, gear, lessons }: Given,
  now: Overview,
  cells: number | null,
): CandidateRow {
  const tried = source === 'fitted' ? build : tryIn(build, fitted, line, source)
  const flown = choice.packLineId === fitted.id ? { ...choice, packLineId: line.id } : choice
  const overview = source === 'fitted' ? now : overviewOf(tried, flown, cards, estimates)
  const estimate = estimates.of(tried.lines.find(l => l.id === line.id)!)
  const { slot, properties, pack, quantity } = line
  const eachG = line.mass ? estimate.valueG / quantity : null
  const flownCells = fitted.slot === 'pack' ? (pack?.cells ?? null) : cells
  return {
    source,
    line,
    setG: line.mass ? estimate.valueG : null,
    spreadG: line.mass ? spreadG(estimate) : 0,
    auwG: overview.massG,
    deltaG: line.mass && fitted.mass ? overview.massG - now.massG : null,
    verdict: overview.binding?.verdict ?? null,
    setPriceCents: line.priceEachCents === null ? null : line.priceEachCents * quantity,
    figures: figuresOf({ slot, properties, pack, eachG, quantity }, flownCells),
    minutes:
      line.mass || source === 'fitted'
        ? minutesAgainst(
            { build: tried, choice: flown, massG: overview.massG },
            { build, choice, massG: now.massG },
            flightPlanOf(build, lessons ?? null),
          )
        : null,
    findings: properties === null && source === 'catalogue' ? [] : findingsWith(tried, flown, line, fitted, gear),
  }
}

/**
 * Everything that could go where a fitted line is: that line, the build's own candidates, the drawer, the typical
 * classes. Each is tried in the build, so that total, verdict and fit are those it would have.
 */
export function candidateRows(given: Given): CandidateRow[] {
  const { build, fittedId, choice, cards, estimates } = given
  const fitted = build.lines.find(line => line.id === fittedId)
  if (!fitted) return []
  const now = overviewOf(build, choice, cards, estimates)
  const cells = build.lines.find(line => line.id === choice.packLineId)?.pack?.cells ?? null
  const own = build.lines.filter(line => line.state === 'candidate' && line.insteadOf === fittedId)
  const row = (source: CandidateSource) => (line: Line) => rowOf(line, source, fitted, given, now, cells)
  return [
    row('fitted')(fitted),
    ...own.map(row('on the list')),
    ...linesOfDrawer(given, fitted).map(row('drawer')),
    ...linesOfClasses(fitted).map(row('catalogue')),
  ]
}

/** The build with a candidate in the place of the fitted line, however full it is: nothing of it is kept. */
function tryIn(build: Build, fitted: Line, line: Line, source: CandidateSource): Build {
  const added =
    source === 'on the list'
      ? build
      : {
          ...build,
          lines: [
            ...build.lines,
            {
              ...line,
              state: 'candidate' as const,
              insteadOf: fitted.id,
              role: fitted.role,
              tie: fitted.tie,
              feed: fitted.feed,
            },
          ],
        }
  return applyCommand(added, { type: 'line.fit', id: line.id })
}

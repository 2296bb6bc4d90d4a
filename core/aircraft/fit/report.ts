import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { fullThrottleOf } from '../currents'
import { allowedLoadouts, countedLines, sameLoadout } from '../../mass/loadout'
import { checks, severities, type AskedProperty, type CheckOutcome, type Severity, type WayOut } from './checks'
import { electricalTree } from '../wiring'
import type { GroundGear } from './gear'
import { blankFit } from '../../model/data'

/** One thing that does not fit, or that should be known. */
export interface Finding {
  /** Stays the same while the same things meet: what was set aside is found again by it. */
  readonly id: string
  readonly check: string
  readonly severity: Severity
  readonly lineIds: readonly string[]
  readonly title: string
  readonly sentence: string
  readonly ways: readonly WayOut[]
  /** Why the builder lives with it; null while it stands. */
  readonly setAside: string | null
  /** Set-ups it is found in, when it is not in all of them. */
  readonly onlyIn: readonly string[]
}

/** A property that nobody has said, with the rules waiting for it. */
export interface AskedFor extends AskedProperty {
  readonly forChecks: readonly string[]
}

export interface FitReport {
  /** Worst first; what was set aside comes last. */
  readonly findings: readonly Finding[]
  readonly fits: readonly { readonly check: string; readonly words: string; readonly lineIds: readonly string[] }[]
  /** Only what could reveal a clash. */
  readonly asked: readonly AskedFor[]
  /** Unknown properties that could not. */
  readonly folded: readonly AskedFor[]
  readonly clashes: number
  readonly toCheck: number
}

/** The most loadouts looked at; a build with more is judged by the first ones, the viewed one always among them. */
const mostLoadouts = 60

/** What is found of a loadout by other means than the checks of this folder. */
export type FurtherOutcomes = (
  choice: LoadoutChoice,
) => readonly { readonly check: string; readonly outcome: CheckOutcome }[]

/** Looks at every loadout that is flown, the viewed one first, and says each thing once. */
export function fitReport(
  build: Build,
  viewed: LoadoutChoice,
  gear: GroundGear,
  further: FurtherOutcomes = () => [],
): FitReport {
  const others = allowedLoadouts(build).filter(choice => !sameLoadout(choice, viewed))
  const choices = [viewed, ...others].slice(0, mostLoadouts)
  const fit = build.fit ?? blankFit
  const notes = new FitNotes(new Map(fit.setAside.map(s => [s.finding, s.why])))
  for (const choice of choices) {
    const lines = countedLines(build, choice)
    const pack = lines.find(line => line.id === choice.packLineId) ?? null
    const tree = electricalTree(lines, pack)
    const context = { lines, pack, fit, gear, tree, full: fullThrottleOf(lines, pack, build.flying ?? undefined) }
    for (const check of checks)
      for (const outcome of check.examine(context)) notes.take(check.id, outcome, choice.setupId)
    for (const { check, outcome } of further(choice)) notes.take(check, outcome, choice.setupId)
  }
  const setups = new Map(build.setups.map(setup => [setup.id, setup.name]))
  const findings = notes.findings(new Set(choices.map(choice => choice.setupId)), setups)
  const standing = findings.filter(finding => finding.setAside === null)
  const count = (severity: Finding['severity']) => standing.filter(finding => finding.severity === severity).length
  return { findings, ...notes.told(), clashes: count('clash'), toCheck: count('check') }
}

/** What the checks have said of all loadouts so far, each thing once. */
class FitNotes {
  private readonly found = new Map<string, { finding: Omit<Finding, 'onlyIn'>; setups: Set<string> }>()
  private readonly fits = new Map<string, FitReport['fits'][number]>()
  private readonly asked = new Map<string, { asked: AskedFor; couldClash: boolean }>()

  /** `aside`: why findings were set aside, by their ids. */
  constructor(private readonly aside: ReadonlyMap<string, string>) {}

  take(check: string, outcome: CheckOutcome, setupId: string): void {
    switch (outcome.kind) {
      case 'fits': {
        const { words, lineIds } = outcome
        this.fits.set(`${check}:${lineIds.join('+')}:${words}`, { check, words, lineIds })
        return
      }
      case 'unknown':
        this.ask(check, outcome)
        return
      default:
        this.find(check, outcome, setupId)
    }
  }

  private ask(check: string, { asks, couldClash }: Extract<CheckOutcome, { kind: 'unknown' }>): void {
    for (const ask of asks) {
      const key = `${ask.lineId}/${ask.key}`
      const before = this.asked.get(key)
      const forChecks = [...new Set([...(before?.asked.forChecks ?? []), check])]
      this.asked.set(key, { asked: { ...ask, forChecks }, couldClash: couldClash || before?.couldClash === true })
    }
  }

  private find(check: string, outcome: Exclude<CheckOutcome, { kind: 'fits' | 'unknown' }>, setupId: string): void {
    const { severity, lineIds, title, sentence, ways, about } = outcome
    const id = `${check}:${about ?? lineIds.join('+')}`
    const known = this.found.get(id)
    if (known) known.setups.add(setupId)
    else {
      const finding = { id, check, severity, lineIds, title, sentence, ways, setAside: this.aside.get(id) ?? null }
      this.found.set(id, { finding, setups: new Set([setupId]) })
    }
  }

  /** Findings, those set aside last, the worst first; each with the set-ups it is in, where it is not in all. */
  findings(seen: ReadonlySet<string>, names: ReadonlyMap<string, string>): Finding[] {
    return [...this.found.values()]
      .map(({ finding, setups }): Finding => ({
        ...finding,
        onlyIn: setups.size === seen.size ? [] : [...setups].map(id => names.get(id) ?? ''),
      }))
      .sort(
        (a, b) =>
          Number(a.setAside !== null) - Number(b.setAside !== null) ||
          severities.indexOf(a.severity) - severities.indexOf(b.severity),
      )
  }

  told(): Pick<FitReport, 'fits' | 'asked' | 'folded'> {
    const wanted = [...this.asked.values()]
    return {
      fits: [...this.fits.values()],
      asked: wanted.filter(w => w.couldClash).map(w => w.asked),
      folded: wanted.filter(w => !w.couldClash).map(w => w.asked),
    }
  }
}

/** The findings a line has a part in, worst first. */
export function findingsOf(report: FitReport, line: Pick<Line, 'id'>): Finding[] {
  return report.findings.filter(finding => finding.lineIds.includes(line.id))
}

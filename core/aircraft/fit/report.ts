import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { fullThrottleOf } from '../currents'
import { allowedLoadouts, countedLines, sameLoadout } from '../../mass/loadout'
import { checks, severities, type Asked, type Outcome, type Severity, type WayOut } from './checks'
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
export interface AskedFor extends Asked {
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

/** Looks at every loadout that is flown, the viewed one first, and says each thing once. */
export function fitReport(build: Build, viewed: LoadoutChoice, gear: GroundGear): FitReport {
  const choices = [viewed, ...allowedLoadouts(build).filter(choice => !sameLoadout(choice, viewed))].slice(
    0,
    mostLoadouts,
  )
  const found = new Map<string, { finding: Omit<Finding, 'onlyIn'>; setups: Set<string> }>()
  const fits = new Map<string, { check: string; words: string; lineIds: readonly string[] }>()
  const asked = new Map<string, { asked: AskedFor; couldClash: boolean }>()
  const fit = build.fit ?? blankFit
  const aside = new Map(fit.setAside.map(s => [s.finding, s.why]))
  for (const choice of choices) {
    const lines = countedLines(build, choice)
    const pack = lines.find(line => line.id === choice.packLineId) ?? null
    const context = {
      lines,
      pack,
      fit,
      gear,
      tree: electricalTree(lines, pack),
      full: fullThrottleOf(lines, pack, build.flying ?? undefined),
    }
    for (const check of checks) {
      for (const outcome of check.examine(context)) note(check.id, outcome, choice)
    }
  }

  function note(check: string, outcome: Outcome, choice: LoadoutChoice): void {
    if (outcome.kind === 'fits') {
      fits.set(`${check}:${outcome.lineIds.join('+')}:${outcome.words}`, {
        check,
        words: outcome.words,
        lineIds: outcome.lineIds,
      })
      return
    }
    if (outcome.kind === 'unknown') {
      for (const ask of outcome.asks) {
        const key = `${ask.lineId}/${ask.key}`
        const before = asked.get(key)
        asked.set(key, {
          asked: { ...ask, forChecks: [...new Set([...(before?.asked.forChecks ?? []), check])] },
          couldClash: outcome.couldClash || before?.couldClash === true,
        })
      }
      return
    }
    const { severity, lineIds, title, sentence, ways, about } = outcome
    const id = `${check}:${about ?? lineIds.join('+')}`
    const known = found.get(id)
    if (known) {
      known.setups.add(choice.setupId)
      return
    }
    found.set(id, {
      finding: { id, check, severity, lineIds, title, sentence, ways, setAside: aside.get(id) ?? null },
      setups: new Set([choice.setupId]),
    })
  }

  const setupsSeen = new Set(choices.map(choice => choice.setupId))
  const nameOf = (id: string) => build.setups.find(s => s.id === id)?.name ?? ''
  const findings = [...found.values()]
    .map(({ finding, setups }): Finding => ({
      ...finding,
      onlyIn: setups.size === setupsSeen.size ? [] : [...setups].map(nameOf),
    }))
    .sort(
      (a, b) =>
        Number(a.setAside !== null) - Number(b.setAside !== null) ||
        severities.indexOf(a.severity) - severities.indexOf(b.severity),
    )
  const standing = findings.filter(finding => finding.setAside === null)
  const wanted = [...asked.values()]
  return {
    findings,
    fits: [...fits.values()],
    asked: wanted.filter(w => w.couldClash).map(w => w.asked),
    folded: wanted.filter(w => !w.couldClash).map(w => w.asked),
    clashes: standing.filter(f => f.severity === 'clash').length,
    toCheck: standing.filter(f => f.severity === 'check').length,
  }
}

/** The findings a line has a part in, worst first. */
export function findingsOf(report: FitReport, line: Pick<Line, 'id'>): Finding[] {
  return report.findings.filter(finding => finding.lineIds.includes(line.id))
}

import { flightPlanOf, sheetFlight } from '../../../aircraft/flight'
import { countedLines } from '../../../mass/loadout'
import { makeShaving } from '../../../model/data'
import { packLabel, type Build } from '../../../model/ledger'
import { inDrawer, lineOfPart, type Part, type Placement } from '../../../parts/drawer'
import { minutesFigure, fixed } from '../../../text/display'
import { clashesOf, type Suggestion, type SuggestionSetting } from './suggestion'

/** The most packs suggested at once. */
const mostPacks = 4

/** Packs of the build and of the drawer in the place of the one looked at, with what they do to the minutes; the most minutes first. */
export function fromPacks(setting: SuggestionSetting): Suggestion[] {
  const { build, choice, estimates, parts, placements, puttingOn, newId } = setting
  const pack = build.lines.find(line => line.id === choice.packLineId)
  if (!pack?.mass) return []
  const known = build.shave?.shavings ?? []
  const [was, now] = [estimates.of(pack).valueG, clashesOf(setting, build)]
  const minutesNow = minutesWith(setting, build, pack.id)
  const here = new Set(build.lines.map(line => line.partId))
  const own = build.lines.filter(
    line => line.slot === 'pack' && line !== pack && (line.state === 'fitted' || line.insteadOf === pack.id),
  )
  const drawer = parts
    .filter(part => part.slot === 'pack' && !here.has(part.id) && part.owned - part.lost - part.scrapped > 0)
    .map(part => ({
      line: lineOfPart(part, newId(), 1, { state: 'candidate', insteadOf: pack.id }),
      lies: whereItLies(part, placements),
    }))
  const offered = [...own.map(line => ({ line, lies: null })), ...drawer].flatMap(({ line, lies }) => {
    const then = line.mass ? estimates.of(line).valueG : null
    if (
      then === null ||
      Math.abs(then - was) < 0.05 ||
      then > was !== puttingOn ||
      known.some(s => s.candidateId === line.id)
    )
      return []
    const with_ = {
      ...build,
      lines: [
        ...build.lines.filter(other => other.id !== line.id),
        { ...line, state: 'fitted' as const, insteadOf: null },
      ],
    }
    const flown = { ...setting, choice: { ...choice, packLineId: line.id } }
    return clashesOf(flown, with_) > now ? [] : [{ line, lies, then, minutes: minutesWith(setting, with_, line.id) }]
  })
  return offered
    .sort((a, b) => (b.minutes ?? 0) - (a.minutes ?? 0))
    .slice(0, mostPacks)
    .map(({ line, lies, then, minutes }): Suggestion => ({
      because:
        `${fixed(was, 2)} g now, ${fixed(then, 2)} g with it; ` +
        `${minutesWords(minutesNow, minutes)}${lies === null ? '' : `; ${lies}`}`,
      shaving: makeShaving({
        id: newId(),
        what: `fly ${packLabel(line)} in place of ${packLabel(pack)}`.slice(0, 120),
        kind: puttingOn ? 'put on' : 'swap part',
        lineId: pack.id,
        candidateId: line.id,
        gramsG: Number((was - then).toFixed(2)),
        evidence: line.mass!.evidence === 'weighed' && pack.mass!.evidence === 'weighed' ? 'weighed' : 'listed',
        ...(lies !== null || line.state === 'fitted' ? { cents: 0 } : {}),
        minutes: 1,
        slipPercent: 0,
      }),
      ...(lies === null ? {} : { candidate: line }),
    }))
}
/** Where a part that is owned is: in the drawer, or on other builds, by their names. */
function whereItLies(part: Part, placements: readonly Placement[]): string {
  if (inDrawer(part, placements) > 0) return 'it lies in the drawer'
  return (
    `it is on ` +
    `${[...new Set(placements.filter(one => one.partId === part.id && one.state !== 'candidate').map(one => one.buildName))].join(' and ')}`
  )
}
function minutesWith(setting: SuggestionSetting, build: Build, packLineId: string): number | null {
  const with_ = { ...setting.choice, packLineId }
  const { valueG } = setting.estimates.sum(countedLines(build, with_))
  return sheetFlight(build, with_, valueG, flightPlanOf(build, setting.lessons)).forecast?.minutes ?? null
}
const minutesWords = (now: number | null, then: number | null) =>
  now === null || then === null
    ? 'what it does to the minutes is not known'
    : `${minutesFigure(now)} minutes become ${minutesFigure(then)}`

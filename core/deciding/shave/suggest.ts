import { typicalClasses, type TypicalMass } from '../../parts/catalogue'
import { applyCommand } from '../../changes/commands'
import { fitReport, fixingsSchedule, planWires, type GroundGear } from '../../aircraft/fit'
import { plugPairG } from '../../aircraft/power'
import { measureOf, textOf } from '../../model/properties'
import { minutesFigure } from '../../text/display'
import { inDrawer, lineOfPart, type Part, type Placement } from '../../parts/drawer'
import { flightPlanOf, sheetFlight } from '../../aircraft/flight'
import { packLabel, type Build, type Line, type LoadoutChoice } from '../../model/ledger'
import { countedLines, isOptional, type LineEstimates } from '../../mass/loadout'
import { makeShaving, type Shaving } from '../../model/data'

/**
 * A shaving the ledger itself suggests, with the sum it comes from; with the candidate to be put on the list first,
 * where it is not there.
 */
export interface Suggestion {
  readonly shaving: Shaving
  readonly because: string
  readonly candidate?: Line
}

export interface SuggestionSetting {
  readonly build: Build
  readonly choice: LoadoutChoice
  readonly estimates: LineEstimates
  readonly gear: GroundGear
  /** What the drawer has. */
  readonly parts: readonly Part[]
  /** Where the drawer's pieces are. */
  readonly placements: readonly Placement[]
  /** Whether grams are to be put on instead of taken off. */
  readonly puttingOn: boolean
  readonly newId: () => string
}

/** The most packs suggested at once. */
const mostPacks = 4

const fixed = (value: number) => value.toFixed(2)

/**
 * What the ledger suggests for a loadout. To take grams off: lighter candidates, lighter packs with the minutes they cost,
 * fittings that could stay at home, leads longer than the plan needs, screws, straps, plugs that could be soldered. To put
 * some on: heavier candidates and packs, lines that are off. What is on the list already is not suggested again, nor a swap
 * that would clash with what stays.
 */
export function suggestShavings(setting: SuggestionSetting): Suggestion[] {
  const { build, estimates, newId, puttingOn } = setting
  const known = build.shave?.shavings ?? []
  const found = [
    ...fromCandidates(setting),
    ...fromPacks(setting),
    ...(puttingOn
      ? fromOff(setting)
      : [
          ...fromFittings(setting),
          ...fromLeads(setting),
          ...fromJoints(build, newId),
          ...fromStraps(build, estimates, newId),
          ...fromPlugs(build, newId),
        ]),
  ]
  return found.filter(({ shaving }) => !known.some(s => s.what === shaving.what))
}

const clashesOf = ({ choice, gear }: SuggestionSetting, build: Build) => fitReport(build, choice, gear).clashes

function fromCandidates(setting: SuggestionSetting): Suggestion[] {
  const { build, estimates, puttingOn, newId } = setting
  const known = build.shave?.shavings ?? []
  const now = clashesOf(setting, build)
  return build.lines.flatMap((candidate): Suggestion[] => {
    const fitted = build.lines.find(line => line.id === candidate.insteadOf && line.state === 'fitted')
    if (
      candidate.state !== 'candidate' ||
      candidate.slot === 'pack' ||
      !fitted ||
      !candidate.mass ||
      !fitted.mass ||
      known.some(s => s.candidateId === candidate.id)
    )
      return []
    const [was, then] = [estimates.of(fitted).valueG, estimates.of(candidate).valueG]
    const because = `${fixed(was)} g now, ${fixed(then)} g with it`
    if (
      Math.abs(then - was) < 0.05 ||
      then > was !== puttingOn ||
      clashesOf(setting, applyCommand(build, { type: 'line.fit', id: candidate.id })) > now
    )
      return []
    const swap = {
      id: newId(),
      what: `${candidate.name} instead of ${fitted.name}`.slice(0, 120),
      lineId: fitted.id,
      candidateId: candidate.id,
      gramsG: Number((was - then).toFixed(2)),
      evidence: 'listed' as const,
    }
    return [
      puttingOn
        ? {
            because: `${because}${broughtBy(fitted, candidate)}: worth it where there are grams to spare`,
            shaving: makeShaving({ ...swap, kind: 'put on' }),
          }
        : { because, shaving: makeShaving({ ...swap, kind: fitted.slot === 'strap' ? 'lighter strap' : 'swap part' }) },
    ]
  })
}

/** Packs of the build and of the drawer in the place of the one looked at, with what they do to the minutes; the most minutes first. */
function fromPacks(setting: SuggestionSetting): Suggestion[] {
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
      because: `${fixed(was)} g now, ${fixed(then)} g with it; ${minutesWords(minutesNow, minutes)}${lies === null ? '' : `; ${lies}`}`,
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
const minutesWith = ({ choice, estimates }: SuggestionSetting, build: Build, packLineId: string): number | null => {
  const with_ = { ...choice, packLineId }
  return (
    sheetFlight(build, with_, estimates.sum(countedLines(build, with_)).valueG, flightPlanOf(build)).forecast
      ?.minutes ?? null
  )
}
const minutesWords = (now: number | null, then: number | null) =>
  now === null || then === null
    ? 'what it does to the minutes is not known'
    : `${minutesFigure(now)} minutes become ${minutesFigure(then)}`

function fromFittings({ build, choice, estimates, newId }: SuggestionSetting): Suggestion[] {
  const known = build.shave?.shavings ?? []
  return countedLines(build, choice)
    .filter(
      line =>
        isOptional(line) &&
        line.role === 'fitting' &&
        line.mass &&
        !known.some(s => s.kind === 'leave off' && s.lineId === line.id),
    )
    .map(line => ({
      because: `a fitting of ${fixed(estimates.of(line).valueG)} g`,
      shaving: makeShaving({
        id: newId(),
        what: `leave off: ${line.name}`.slice(0, 120),
        kind: 'leave off',
        lineId: line.id,
        gramsG: Number(estimates.of(line).valueG.toFixed(2)),
        evidence: 'weighed',
      }),
    }))
}

function fromLeads({ build, newId }: SuggestionSetting): Suggestion[] {
  const suggestions: Suggestion[] = []
  for (const { wire, savedG: trimmedG } of planWires(build.fit?.wires ?? []).rows) {
    if (!(trimmedG > 0.05)) continue
    const line = build.lines.find(
      l =>
        l.state === 'fitted' &&
        l.mass &&
        (l.name === wire.from ||
          l.name === wire.to ||
          (/motor/i.test(wire.name) && l.slot === 'motor' && measureOf(l, 'leadLengthMm') !== undefined)),
    )
    const what = `trim: ${wire.name}`
    if (!line) continue
    suggestions.push({
      because: `${wire.haveMm} mm there, ${wire.routeMm + wire.slackMm} mm needed`,
      shaving: makeShaving({
        id: newId(),
        what,
        kind: 'trim leads',
        lineId: line.id,
        gramsG: Number(trimmedG.toFixed(2)),
        spreadG: Number((trimmedG * 0.1).toFixed(2)),
        evidence: 'worked out',
      }),
    })
  }
  return suggestions
}

function fromOff({ build, estimates, newId }: SuggestionSetting): Suggestion[] {
  const known = build.shave?.shavings ?? []
  return build.lines
    .filter(
      line =>
        line.state === 'off' &&
        line.mass &&
        line.slot !== 'pack' &&
        !known.some(s => s.kind === 'put on' && s.lineId === line.id),
    )
    .map(line => {
      const grams = estimates.of(line).valueG
      return {
        because: `${fixed(grams)} g, off now`,
        shaving: makeShaving({
          id: newId(),
          what: `put on: ${line.name}`.slice(0, 120),
          kind: 'put on',
          lineId: line.id,
          gramsG: -Number(grams.toFixed(2)),
          evidence: 'weighed',
        }),
      }
    })
}

/** What a heavier candidate has more of, where the parts say so. */
function broughtBy(fitted: Line, candidate: Line): string {
  const [was, comes] = [measureOf(fitted, 'powerMw'), measureOf(candidate, 'powerMw')]
  return was !== undefined && comes !== undefined && comes > was ? `, ${comes} in place of ${was} mW` : ''
}

/** Plugs on leads that could as well be soldered. The pack's own plug stays: it is unplugged after every flight. */
function fromPlugs(build: Build, newId: () => string): Suggestion[] {
  return build.lines
    .filter(line => line.state === 'fitted' && line.mass && line.slot !== 'pack' && line.slot !== 'power lead')
    .flatMap((line): Suggestion[] => {
      const pair = plugPairG(textOf(line, 'plug') ?? '')
      if (!pair) return []
      const gramsG = Number((pair.grams * line.quantity).toFixed(2))
      return [
        {
          because: `a mated pair weighs about ${fixed(pair.grams)} g, × ${line.quantity}; a dead one is then unsoldered`,
          shaving: makeShaving({
            id: newId(),
            what: `solder the leads: ${line.name}`.slice(0, 120),
            kind: 'direct solder',
            lineId: line.id,
            gramsG,
            evidence: pair.known ? 'worked out' : 'guess',
          }),
        },
      ]
    })
}

/** Screws longer than their joint needs, and steel ones that titanium would do for. Nothing softer: that is the builder's to dare. */
function fromJoints(build: Build, newId: () => string): Suggestion[] {
  return fixingsSchedule(build.fit?.joints ?? []).rows.flatMap(
    ({ joint, massG, soldMm, shortestMm, materials }): Suggestion[] => {
      const line = build.lines.find(l => l.id === joint.lineId && l.state === 'fitted' && l.mass)
      if (!line || massG === null) return []
      const out: Suggestion[] = []
      const titanium = materials.find(m => /titanium/.test(m.material) && m.savesG > 0.1)
      if (titanium)
        out.push({
          because: `${fixed(massG)} g of ${joint.material}, ${fixed(titanium.massG)} g of titanium`,
          shaving: makeShaving({
            id: newId(),
            what: `titanium screws: ${joint.name}`.slice(0, 120),
            kind: 'change material',
            lineId: line.id,
            gramsG: Number(titanium.savesG.toFixed(2)),
            spreadG: Number((0.1 * titanium.savesG).toFixed(2)),
            evidence: 'worked out',
          }),
        })
      const shorter =
        joint.lengthMm !== null && soldMm !== null && soldMm < joint.lengthMm
          ? fixingsSchedule([{ ...joint, lengthMm: soldMm }]).rows[0]!.massG
          : null
      if (shorter !== null && massG - shorter > 0.05)
        out.push({
          because: `${joint.lengthMm} mm where ${Number(shortestMm.toFixed(2))} mm would hold`,
          shaving: makeShaving({
            id: newId(),
            what: `screws of ${soldMm} mm: ${joint.name}`.slice(0, 120),
            kind: 'change material',
            lineId: line.id,
            gramsG: Number((massG - shorter).toFixed(2)),
            spreadG: Number((0.1 * (massG - shorter)).toFixed(2)),
            evidence: 'worked out',
            loss: 0,
            lossWord: 'nothing',
          }),
        })
      return out
    },
  )
}

/** Straps and pads well over the low end of the class they are most like. */
function fromStraps(build: Build, estimates: LineEstimates, newId: () => string): Suggestion[] {
  return build.lines
    .filter(line => line.state === 'fitted' && line.mass && (line.slot === 'strap' || line.slot === 'pad'))
    .flatMap((line): Suggestion[] => {
      const eachG = estimates.of(line).valueG / line.quantity
      const away = ({ lowG, highG }: TypicalMass) => Math.max(lowG - eachG, 0, eachG - highG)
      const alike = typicalClasses(line.slot).toSorted((a, b) => away(a) - away(b) || b.lowG - a.lowG)[0]
      const savesG = alike ? (eachG - alike.lowG) * line.quantity : 0
      if (!alike || savesG < 0.3) return []
      return [
        {
          because: `${fixed(eachG)} g now; ${alike.class} ones weigh ${alike.lowG} to ${alike.highG} g`,
          shaving: makeShaving({
            id: newId(),
            what: `the lightest ${line.slot} of its class`,
            kind: line.slot === 'strap' ? 'lighter strap' : 'other',
            lineId: line.id,
            gramsG: Number(savesG.toFixed(2)),
            evidence: 'guess',
          }),
        },
      ]
    })
}

import { checks, blankFit, type GroundGear } from '../fit'
import type { Build, Line, LoadoutChoice } from '../../model/ledger'
import { countedLines, packLines, type LineEstimates } from '../../mass/loadout'
import { loadoutVerdicts, type LoadoutVerdicts } from '../../mass/report'
import type { RuleCard } from '../../limits/rules'
import type { Lessons, TaughtPlan } from '../flown'
import { blankFlightPlan } from '../power'
import { craftOf, fullThrottleOf, type CraftMissing } from '../currents'
import { forecast, type Forecast } from './forecast'
import { type PackSource, type TriedPack, withTried } from './hypothetical-packs'
import { electricalTree } from '../wiring'

/** Lines with the packs of a sheet: one row a pack, with one cell a set-up. */
export interface SheetPack {
  readonly source: PackSource
  readonly line: Line
}

/** One loadout in the sheet: weight and verdict. Minutes come beside it, by the same key. */
export interface LoadoutCell extends LoadoutVerdicts {
  readonly key: string
  readonly source: PackSource
  readonly pack: Line
  readonly never: boolean
  readonly onPurpose: boolean
}

export const loadoutKey = ({ setupId, packLineId }: LoadoutChoice): string => `${setupId}.${packLineId ?? ''}`

/** How a build is flown, with what flights teach of it. */
export const flightPlanOf = (build: Build, lessons: Lessons | null = null): TaughtPlan => ({
  ...(build.flying ?? blankFlightPlan),
  lessons,
})

/** Packs of the sheet: those on the build, then those tried. */
export function sheetPacks(build: Build, tried: readonly TriedPack[]): SheetPack[] {
  return [...packLines(build).map((line): SheetPack => ({ source: 'on the build', line })), ...tried]
}

/** Weight and verdict of every pack with every set-up. A tried pack is judged as if it alone were added. */
export function sheetCells(
  build: Build,
  tried: readonly TriedPack[],
  cards: readonly RuleCard[],
  estimates: LineEstimates,
): LoadoutCell[] {
  const own = packLines(build)
  const byId = new Map([...own, ...tried.map(t => t.line)].map(line => [line.id, line]))
  const choicesWith = (line: Line) =>
    build.setups.map((setup): LoadoutChoice => ({ setupId: setup.id, packLineId: line.id }))
  const never = new Set(build.neverFlown.map(loadoutKey))
  const onPurpose = new Set(flightPlanOf(build).overOnPurpose.map(loadoutKey))
  const cell = (verdicts: LoadoutVerdicts, source: PackSource): LoadoutCell => {
    const { choice, massG, sigmaG, openLines, isCraft, judgements, binding, intoReserveG } = verdicts
    const key = loadoutKey(choice)
    return {
      choice,
      massG,
      sigmaG,
      openLines,
      isCraft,
      judgements,
      binding,
      intoReserveG,
      key,
      source,
      pack: byId.get(choice.packLineId!)!,
      never: never.has(key),
      onPurpose: onPurpose.has(key),
    }
  }
  return [
    ...loadoutVerdicts(build, own.flatMap(choicesWith), cards, estimates).map(verdicts =>
      cell(verdicts, 'on the build'),
    ),
    ...tried.flatMap(({ source, line }) =>
      loadoutVerdicts(withTried(build, line), choicesWith(line), cards, estimates).map(verdicts =>
        cell(verdicts, source),
      ),
    ),
  ]
}

/** How one loadout flies, or what is missing to tell; and why its pack does not fit, when it does not. */
export interface SheetFlight {
  readonly key: string
  readonly forecast: Forecast | null
  readonly missing: CraftMissing | null
  readonly misfits: readonly string[]
}

/** What a pack of a loadout does not fit with, electrically or physically: titles of clashes it has a part in. */
export function packMisfits(build: Build, choice: LoadoutChoice, gear: GroundGear): string[] {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  if (!pack) return []
  const fit = build.fit ?? blankFit
  const context = {
    lines,
    pack,
    fit,
    gear,
    tree: electricalTree(lines, pack),
    full: fullThrottleOf(lines, pack, flightPlanOf(build)),
  }
  return [
    ...new Set(
      checks
        .flatMap(check => check.examine(context))
        .flatMap(outcome =>
          outcome.kind === 'finding' && outcome.severity === 'clash' && outcome.lineIds.includes(pack.id)
            ? [outcome.title]
            : [],
        ),
    ),
  ]
}

/** The flight of one loadout whose weight is known. */
export function sheetFlight(
  build: Build,
  choice: LoadoutChoice,
  massG: number,
  plan: TaughtPlan,
): Pick<SheetFlight, 'forecast' | 'missing'> {
  const lines = countedLines(build, choice)
  const pack = lines.find(line => line.id === choice.packLineId)
  if (!pack?.pack)
    return {
      forecast: null,
      missing: { missing: 'Say what the pack is: cells, chemistry and mAh.', lineId: pack?.id ?? null },
    }
  if (!(massG > 0)) return { forecast: null, missing: { missing: 'Nothing weighs anything yet.', lineId: null } }
  const craft = craftOf(lines, pack, plan)
  return 'missing' in craft
    ? { forecast: null, missing: craft }
    : { forecast: forecast(craft, lines, pack, massG, plan), missing: null }
}

/** The flights of all cells; the weights are those of the cells. */
export function sheetFlights(
  build: Build,
  cells: readonly Pick<LoadoutCell, 'key' | 'choice' | 'massG' | 'pack' | 'source'>[],
  plan: TaughtPlan,
  gear: GroundGear | null,
): SheetFlight[] {
  return cells.map(({ key, choice, massG, pack, source }) => {
    const at = source === 'on the build' ? build : withTried(build, pack)
    return { key, ...sheetFlight(at, choice, massG, plan), misfits: gear ? packMisfits(at, choice, gear) : [] }
  })
}

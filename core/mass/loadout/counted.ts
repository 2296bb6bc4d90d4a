import { packLabel, type Build, type Line, type LoadoutChoice } from '../../model/ledger'

/** Whether a fitted line is chosen by set-up (fittings, payload) rather than always on board. */
export function isOptional(line: Line): boolean {
  return line.slot !== 'pack' && line.role !== 'airframe'
}

/** Words by which fitted optional lines are tied: airframe lines that carry one fly with those lines, not without them. */
export function optionalTies(lines: readonly Line[]): ReadonlySet<string> {
  const ties = new Set<string>()
  for (const line of lines) if (line.tie && line.state === 'fitted' && isOptional(line)) ties.add(line.tie)
  return ties
}

/** Whether a line is always on board of what is flown: airframe, and not tied to something that a set-up may leave at home. */
export function alwaysFlies(line: Line, ties: ReadonlySet<string>): boolean {
  return line.slot !== 'pack' && line.role === 'airframe' && !(line.tie && ties.has(line.tie))
}

/** Fitted lines that no set-up names: they are counted nowhere. */
export function inNoSetup(build: Pick<Build, 'lines' | 'setups'>): Line[] {
  const named = new Set(build.setups.flatMap(setup => setup.lineIds))
  return build.lines.filter(line => line.state === 'fitted' && isOptional(line) && !named.has(line.id))
}

/** The packs a build may be flown with: its fitted lines in the pack slot, in ledger order. */
export function packLines(build: Pick<Build, 'lines'>): Line[] {
  return build.lines.filter(line => line.slot === 'pack' && line.state === 'fitted')
}

/** Every line that leaves the ground in one loadout, in ledger order. */
export function countedLines(build: Build, choice: LoadoutChoice): Line[] {
  const setup = build.setups.find(s => s.id === choice.setupId)
  const chosen = new Set(setup?.lineIds)
  const ties = optionalTies(build.lines)
  const flown = ties.size === 0 ? ties : optionalTies(build.lines.filter(line => chosen.has(line.id)))
  return build.lines.filter(line => {
    if (line.state !== 'fitted') return false
    if (line.slot === 'pack') return line.id === choice.packLineId
    if (isOptional(line)) return chosen.has(line.id)
    return alwaysFlies(line, ties) || flown.has(line.tie!)
  })
}

/** Lines of the dry mass in a loadout: airframe and chosen fittings, without pack and payload. */
export function dryLines(build: Build, choice: LoadoutChoice): Line[] {
  return countedLines(build, choice).filter(line => line.slot !== 'pack' && line.role !== 'payload')
}

export function sameLoadout(a: LoadoutChoice, b: LoadoutChoice): boolean {
  return a.setupId === b.setupId && a.packLineId === b.packLineId
}

/** Every set-up with every pack; with no packs, every set-up by itself. */
export function allLoadouts(build: Build): LoadoutChoice[] {
  const packs: (string | null)[] = packLines(build).map(line => line.id)
  if (packs.length === 0) packs.push(null)
  return build.setups.flatMap(setup => packs.map(packLineId => ({ setupId: setup.id, packLineId })))
}

/** The loadouts the builder allows: all but those marked as never flown. */
export function allowedLoadouts(build: Build): LoadoutChoice[] {
  return allLoadouts(build).filter(choice => !build.neverFlown.some(never => sameLoadout(never, choice)))
}

/** Whether the builder flies this loadout over the limit on purpose. */
export function isOnPurpose(build: Build, choice: LoadoutChoice): boolean {
  return build.flying?.overOnPurpose.some(one => sameLoadout(one, choice)) ?? false
}

/** The loadout the build is flown in, mended when its set-up or pack is gone. */
export function defaultLoadout(build: Build): LoadoutChoice {
  const packs = packLines(build)
  const setupId = build.setups.some(s => s.id === build.flies.setupId)
    ? build.flies.setupId
    : (build.setups[0]?.id ?? '')
  const wanted = build.flies.packLineId
  const packLineId = packs.some(p => p.id === wanted) ? wanted : (packs[0]?.id ?? null)
  return { setupId, packLineId }
}

/** "guards and camera · P4": the set-up's name and the pack's label. */
export function loadoutName(build: Build, choice: LoadoutChoice): string {
  const setup = build.setups.find(s => s.id === choice.setupId)
  const pack = build.lines.find(line => line.id === choice.packLineId)
  const packName = pack ? packLabel(pack) : 'no pack'
  return `${setup?.name ?? 'no set-up'} · ${packName}`
}

/** `with guards`; a set-up called “with sounder” or “without guards” already says so. */
export const withSetup = (name: string): string => (/^with(?:out)?\b/i.test(name) ? name : `with ${name}`)

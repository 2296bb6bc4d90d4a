import { typicalClasses, typicalPackFacts } from '../../parts/catalogue'
import { lineOfPart, type Part } from '../../parts/drawer'
import { makeLine, makeMass, type Build, type Line } from '../../model/ledger'
import { packLines } from '../../mass/loadout'
import { textOf } from '../../model/properties'

/** Where a pack of the sheet comes from. */
export type PackSource = 'on the build' | 'on the list' | 'drawer' | 'typical'

/** A pack that is looked at without being on the build. */
export interface TriedPack {
  readonly source: Exclude<PackSource, 'on the build'>
  readonly line: Line
}

const asFitted = (line: Line): Line => ({ ...line, state: 'fitted', insteadOf: null, role: 'airframe' })

/** The plug a pack would need: that of the lead, or of the packs there are. */
function plugWanted(build: Build): string {
  const lead = build.lines.find(line => line.slot === 'power lead' && line.state === 'fitted')
  return (lead && textOf(lead, 'plug')) ?? packLines(build)[0]?.pack?.plug ?? ''
}

/** Packs that could be flown: those on the list, those in the drawer, typical classes of the cells this build flies. */
export function triedPacks(build: Build, parts: readonly Part[]): TriedPack[] {
  const own = build.lines
    .filter(line => line.slot === 'pack' && line.state === 'candidate')
    .map((line): TriedPack => ({ source: 'on the list', line: asFitted(line) }))
  const here = new Set(build.lines.map(line => line.partId))
  const drawer = parts
    .filter(part => part.slot === 'pack' && !here.has(part.id))
    .map((part): TriedPack => ({ source: 'drawer', line: lineOfPart(part, `part-${part.id}`, 1) }))
  const cells = new Set(packLines(build).map(line => line.pack?.cells))
  const plug = plugWanted(build)
  const typical = typicalClasses('pack').flatMap((c): TriedPack[] => {
    const facts = typicalPackFacts(c.class)
    if (!facts || (cells.size > 0 && !cells.has(facts.cells))) return []
    const id = `class-${c.class.replaceAll(/\W+/g, '-')}`
    return [
      {
        source: 'typical',
        line: makeLine({
          id,
          slot: 'pack',
          name: `Pack, ${c.class}`,
          pack: { ...facts, label: `${facts.capacityMah}`, cRating: null, plug },
          mass: makeMass({
            versionId: id,
            evidence: 'typical',
            valueG: (c.lowG + c.highG) / 2,
            halfRangeG: (c.highG - c.lowG) / 2,
            origin: `typical for ${c.class}`,
          }),
        }),
      },
    ]
  })
  return [...own, ...drawer, ...typical]
}

/** The build with such a pack on it. */
export function withTried(build: Build, tried: Line): Build {
  return { ...build, lines: [...build.lines.filter(line => line.id !== tried.id), tried] }
}

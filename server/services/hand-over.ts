import { applyCommand, CommandRefused } from '../../core/commands'
import { partOfLine, sameAsPart } from '../../core/drawer'
import { slotFacts, type Build, type Line } from '../../core/ledger'
import type { PartsRepository, HandedPart } from '../db/parts-repository'

/** Slots whose grams are nobody's part: they stay with the build they were made for. */
const notParts: readonly Line['slot'][] = ['other', 'coating']

export function requireLines(build: Build, ids: readonly string[]): Line[] {
  return ids.map((id) => {
    const line = build.lines.find(l => l.id === id)
    if (!line) throw new CommandRefused('That line is no longer in this build.', 'lineIds')
    return line
  })
}

/**
 * The target build with the lines of the source in it: grams, properties and links kept, feeds left behind (they named
 * things of the source). What flew in the source's set-up flies in the target's.
 */
export function withLinesFrom(source: Build, target: Build, lines: readonly Line[], newId: () => string): { build: Build, newIds: ReadonlyMap<string, string> } {
  const taken = new Set(target.lines.map(line => line.id))
  const newIds = new Map(lines.map(line => [line.id, taken.has(line.id) ? newId() : line.id]))
  const moved = lines.map((line): Line => ({ ...line, id: newIds.get(line.id)!, feed: null, insteadOf: null, state: line.state === 'candidate' ? 'off' : line.state }))
  const added = applyCommand(target, { type: 'lines.add', lines: moved, beforeId: null })
  const flew = new Set(source.setups.find(s => s.id === source.flies.setupId)?.lineIds)
  const setup = added.setups.find(s => s.id === added.flies.setupId)!
  const optional = lines.filter(line => line.role !== 'airframe' && flew.has(line.id)).map(line => newIds.get(line.id)!)
  const build = optional.length === 0 ? added : applyCommand(added, { type: 'setup.put', setup: { ...setup, lineIds: [...setup.lineIds, ...optional] } })
  const pack = lines.find(line => line.id === source.flies.packLineId)
  return { build: pack && build.flies.packLineId === null ? applyCommand(build, { type: 'loadout.fly', choice: { ...build.flies, packLineId: newIds.get(pack.id)! } }) : build, newIds }
}

/**
 * What the drawer becomes when lines go into it: a line that is simply its part is a piece less on builds; one that was
 * changed for itself, or that never was a part, becomes a part of its own.
 */
export function partsAfterTakingApart(lines: readonly Line[], parts: PartsRepository, newId: () => string): { before: HandedPart[], after: HandedPart[] } {
  const before: HandedPart[] = []
  const after: HandedPart[] = []
  for (const line of lines) {
    if (notParts.includes(line.slot)) throw new CommandRefused(`${slotFacts[line.slot].label} “${line.name}” is no part that can lie in a drawer. Leave it with the build.`, 'lineIds')
    const part = line.partId ? parts.one(line.partId) : null
    if (part && sameAsPart(line, part)) continue
    const id = newId()
    const owned = line.state === 'candidate' && line.mass?.evidence !== 'weighed' ? 0 : line.quantity
    before.push({ id, part: null, lineId: line.id })
    after.push({ id, part: { ...partOfLine(line, id), owned, ...(part ? { kitId: part.kitId, bag: part.bag, link: part.link, tags: part.tags } : {}) }, lineId: line.id })
    if (!part) continue
    before.push({ id: part.id, part, lineId: line.id })
    after.push({ id: part.id, part: { ...part, owned: Math.max(part.lost + part.scrapped, part.owned - line.quantity) }, lineId: line.id })
  }
  return { before, after }
}

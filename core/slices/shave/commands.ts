import { blankShaveList, motorsEnd, type ShaveList, type Shaving } from '../../model/data'
import type { Build, Mass } from '../../model/ledger'
import { effectOf, lineOfShaving, type ShavingEffect } from '../../making/shave-effect'
import { CommandRefused, type References } from '../contract'
import { addLines, changeLines, fitInstead } from '../lines'
import { mostShavings } from './schema'

export type ShaveCommand =
  | { readonly type: 'shave.set'; readonly fields: Partial<Omit<ShaveList, 'shavings'>> }
  | { readonly type: 'shaving.put'; readonly shaving: Shaving }
  | { readonly type: 'shaving.delete'; readonly id: string }
  /** Decides on these: they are planned from now on, and what was planned besides is an idea again. */
  | { readonly type: 'shavings.plan'; readonly ids: readonly string[] }
  | {
      readonly type: 'shaving.do'
      readonly id: string
      /** The grams of the line it touches afterwards, where it neither swaps nor leaves off. */
      readonly mass: Mass | null
      /** What it took off by the scale, null while only forecast. */
      readonly realG: number | null
      readonly on: string
      /** What it takes off by the ledger, kept as its forecast; the forecast there was where it is not given. */
      readonly gramsG?: number | undefined
      /** How long the leads of the line are afterwards, mm. */
      readonly leadMm?: number | undefined
    }

function requireShaving(build: Build, id: string): Shaving {
  const shaving = build.shave?.shavings.find(s => s.id === id)
  if (!shaving) throw new CommandRefused('That shaving is no longer on the list.', 'id')
  return shaving
}

export function putShaving(build: Build, shaving: Shaving): Build {
  if (shaving.what.trim() === '') throw new CommandRefused('Say what is done.', 'what')
  const list = build.shave ?? blankShaveList
  const exists = list.shavings.some(s => s.id === shaving.id)
  if (!exists && list.shavings.length >= mostShavings)
    throw new CommandRefused(`A build keeps at most ${mostShavings} shavings.`, 'shavings')
  return {
    ...build,
    shave: {
      ...list,
      shavings: exists ? list.shavings.map(s => (s.id === shaving.id ? shaving : s)) : [...list.shavings, shaving],
    },
  }
}

/** What is left out of the list is named by no other either. */
export function deleteShaving(build: Build, id: string): Build {
  requireShaving(build, id)
  const without = (ids: readonly string[]) => (ids.includes(id) ? ids.filter(other => other !== id) : ids)
  const shavings = build
    .shave!.shavings.filter(s => s.id !== id)
    .map(s => ({ ...s, excludes: without(s.excludes), needs: without(s.needs) }))
  return { ...build, shave: { ...build.shave!, shavings } }
}

export function planShavings(build: Build, ids: readonly string[]): Build {
  for (const id of ids)
    if (requireShaving(build, id).state === 'done' || requireShaving(build, id).state === 'refused')
      throw new CommandRefused(
        `“${requireShaving(build, id).what}” is ${requireShaving(build, id).state} already.`,
        'ids',
      )
  const list = build.shave ?? blankShaveList
  const stateOf = (shaving: Shaving) =>
    ids.includes(shaving.id) ? 'planned' : shaving.state === 'planned' ? 'idea' : shaving.state
  return {
    ...build,
    shave: { ...list, shavings: list.shavings.map(shaving => ({ ...shaving, state: stateOf(shaving) })) },
  }
}

/** Does to the ledger what the shaving says, and marks it done: one step, taken back as one. */
export function doShaving(
  build: Build,
  { id, mass, realG, on, gramsG, leadMm }: Extract<ShaveCommand, { type: 'shaving.do' }>,
  references: References,
): Build {
  const shaving = requireShaving(build, id)
  if (shaving.state === 'done') throw new CommandRefused(`“${shaving.what}” is done already.`, 'id')
  const effect = effectOf(build, shaving)
  if (effect.kind === 'none')
    throw new CommandRefused(`Say which fitted line “${shaving.what}” touches first.`, 'lineId')
  if (effect.kind === 'grams' && !mass) throw new CommandRefused('Say what the line weighs afterwards.', 'mass')
  if (effect.kind === 'new line' && !mass) throw new CommandRefused('Say what it weighs.', 'mass')
  const done = withEffect(build, shaving, effect, mass, references)
  const cut = leadMm !== undefined && effect.kind === 'grams' ? withLeads(done, effect.lineId, leadMm) : done
  return putShaving(cut, { ...shaving, gramsG: gramsG ?? shaving.gramsG, state: 'done', doneOn: on, realG })
}

function withEffect(
  build: Build,
  shaving: Shaving,
  effect: Exclude<ShavingEffect, { kind: 'none' }>,
  mass: Mass | null,
  references: References,
): Build {
  switch (effect.kind) {
    case 'swap':
      return mass
        ? changeLines(fitInstead(build, effect.candidateId, references), [{ id: effect.candidateId, fields: { mass } }])
        : fitInstead(build, effect.candidateId, references)
    case 'pack':
      return flyInstead(build, effect.lineId, effect.packLineId)
    case 'new line':
      return addLines(build, [lineOfShaving(shaving, mass)], null)
    // With grams of its own something of it is still on board.
    case 'off':
      return changeLines(build, [
        mass
          ? { id: effect.lineId, fields: { mass }, anotherPiece: true }
          : { id: effect.lineId, fields: { state: 'off' } },
      ])
    case 'on':
      return changeLines(build, [{ id: effect.lineId, fields: mass ? { state: 'fitted', mass } : { state: 'fitted' } }])
    case 'grams':
      return changeLines(build, [{ id: effect.lineId, fields: { mass }, anotherPiece: true }])
  }
}

/** Another pack flies in the place of one, which is kept as what could go there again. */
function flyInstead(build: Build, lineId: string, packLineId: string): Build {
  const away: Build = {
    ...build,
    lines: build.lines.map(line =>
      line.id === lineId ? { ...line, state: 'candidate', insteadOf: packLineId } : line,
    ),
  }
  return build.flies.packLineId === lineId ? { ...away, flies: { ...build.flies, packLineId } } : away
}

/** Leads that were cut are as long as they are now: at the part, and in the plan of leads where they were there already. */
function withLeads(build: Build, lineId: string, leadMm: number): Build {
  const line = build.lines.find(l => l.id === lineId)!
  const key = line.slot === 'motor' ? 'leadLengthMm' : line.slot === 'power lead' ? 'lengthMm' : null
  if (key === null) return build
  const ends = new Set([line.id, line.name, ...(line.slot === 'motor' ? [motorsEnd] : [])])
  const said = changeLines(build, [{ id: lineId, fields: { properties: { ...line.properties, [key]: leadMm } } }])
  const { fit } = said
  return fit?.wires.some(wire => wire.haveMm !== null && (ends.has(wire.from) || ends.has(wire.to)))
    ? {
        ...said,
        fit: {
          ...fit,
          wires: fit.wires.map(wire =>
            wire.haveMm !== null && (ends.has(wire.from) || ends.has(wire.to)) ? { ...wire, haveMm: leadMm } : wire,
          ),
        },
      }
    : said
}

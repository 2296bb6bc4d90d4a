import { blankFit } from '../fit/plan'
import type { Build, Line, LoadoutChoice, Mass, Observation } from '../ledger'
import { sameLoadout } from '../loadout/counted'
import { blankFlightPlan } from '../power/plan'
import { recordStep, setAssembly } from './assembly'
import { effectOf, lineOfShaving, type ShavingEffect } from '../shave/effect'
import { blankShaveList, type Shaving } from '../shave/types'
import { propertyNamed } from '../properties'
import { CommandRefused, type Command, type LineFields } from './types'

/** The most lines one build may hold. */
export const mostLines = 2000

/**
 * The build after a command. Pure: the given build is untouched, and everything that did not change is the same
 * object afterwards. Throws {@link CommandRefused} with a sentence when the command does not fit the build.
 */
export function applyCommand(build: Build, command: Command): Build {
  switch (command.type) {
    case 'build.set': {
      const { aim, ...fields } = command.fields
      if (fields.name !== undefined && fields.name.trim() === '') throw new CommandRefused('A build needs a name.', 'name')
      return { ...build, ...fields, ...(aim ? { aim: { ...build.aim, ...aim } } : {}) }
    }
    case 'lines.add': return addLines(build, command.lines, command.beforeId)
    case 'lines.change': return changeLines(build, command.changes)
    case 'lines.move': return moveLines(build, command.ids, command.beforeId)
    case 'lines.delete': return deleteLines(build, command.ids)
    case 'line.fit': return fitInstead(build, command.id)
    case 'setup.put': {
      const known = new Set(build.lines.map(line => line.id))
      if (command.setup.lineIds.some(id => !known.has(id))) throw new CommandRefused('The set-up names a line this build does not have.', 'lineIds')
      if (command.setup.name.trim() === '') throw new CommandRefused('A set-up needs a name.', 'name')
      const exists = build.setups.some(s => s.id === command.setup.id)
      return { ...build, setups: exists ? build.setups.map(s => s.id === command.setup.id ? command.setup : s) : [...build.setups, command.setup] }
    }
    case 'setup.delete': {
      if (build.setups.length <= 1) throw new CommandRefused('A build keeps at least one set-up.', 'id')
      const setups = build.setups.filter(s => s.id !== command.id)
      return {
        ...build, setups,
        flies: build.flies.setupId === command.id ? { ...build.flies, setupId: setups[0]!.id } : build.flies,
        neverFlown: build.neverFlown.filter(c => c.setupId !== command.id),
        flying: withoutLoadouts(build.flying, c => c.setupId === command.id),
      }
    }
    case 'observation.put': return putObservation(build, command.observation)
    case 'observation.delete':
      if (!build.observations.some(o => o.id === command.id)) throw new CommandRefused('That weighing is no longer in this build.', 'id')
      return { ...build, observations: build.observations.filter(o => o.id !== command.id) }
    case 'fit.set': return { ...build, fit: { ...(build.fit ?? blankFit), ...command.fields } }
    case 'flying.set':
      for (const choice of command.fields.overOnPurpose ?? []) requireLoadout(build, choice)
      return { ...build, flying: { ...(build.flying ?? blankFlightPlan), ...command.fields } }
    case 'shave.set': return { ...build, shave: { ...(build.shave ?? blankShaveList), ...command.fields } }
    case 'shaving.put': return putShaving(build, command.shaving)
    case 'shaving.delete': {
      requireShaving(build, command.id)
      const without = (ids: readonly string[]) => ids.includes(command.id) ? ids.filter(id => id !== command.id) : ids
      return { ...build, shave: { ...build.shave!, shavings: build.shave!.shavings.filter(s => s.id !== command.id).map(s => ({ ...s, excludes: without(s.excludes), needs: without(s.needs) })) } }
    }
    case 'shavings.plan': return planShavings(build, command.ids)
    case 'shaving.do': return doShaving(build, command)
    case 'assembly.set': return setAssembly(build, command.fields)
    case 'assembly.record': return recordStep(build, command.stepId, command.fields)
    case 'loadout.fly':
      requireLoadout(build, command.choice)
      return { ...build, flies: command.choice }
    case 'loadout.never': {
      requireLoadout(build, command.choice)
      const others = build.neverFlown.filter(c => !sameLoadout(c, command.choice))
      return { ...build, neverFlown: command.never ? [...others, command.choice] : others }
    }
  }
}

function requireShaving(build: Build, id: string): Shaving {
  const shaving = build.shave?.shavings.find(s => s.id === id)
  if (!shaving) throw new CommandRefused('That shaving is no longer on the list.', 'id')
  return shaving
}

/** The most shavings one build keeps. */
const mostShavings = 300

function putShaving(build: Build, shaving: Shaving): Build {
  if (shaving.what.trim() === '') throw new CommandRefused('Say what is done.', 'what')
  const list = build.shave ?? blankShaveList
  const exists = list.shavings.some(s => s.id === shaving.id)
  if (!exists && list.shavings.length >= mostShavings) throw new CommandRefused(`A build keeps at most ${mostShavings} shavings.`, 'shavings')
  return { ...build, shave: { ...list, shavings: exists ? list.shavings.map(s => s.id === shaving.id ? shaving : s) : [...list.shavings, shaving] } }
}

function planShavings(build: Build, ids: readonly string[]): Build {
  for (const id of ids) if (requireShaving(build, id).state === 'done' || requireShaving(build, id).state === 'refused') throw new CommandRefused(`“${requireShaving(build, id).what}” is ${requireShaving(build, id).state} already.`, 'ids')
  const list = build.shave ?? blankShaveList
  const stateOf = (shaving: Shaving) => ids.includes(shaving.id) ? 'planned' : shaving.state === 'planned' ? 'idea' : shaving.state
  return { ...build, shave: { ...list, shavings: list.shavings.map(shaving => ({ ...shaving, state: stateOf(shaving) })) } }
}

/** Does to the ledger what the shaving says, and marks it done: one step, taken back as one. */
function doShaving(build: Build, { id, mass, realG, on }: Extract<Command, { type: 'shaving.do' }>): Build {
  const shaving = requireShaving(build, id)
  if (shaving.state === 'done') throw new CommandRefused(`“${shaving.what}” is done already.`, 'id')
  const effect = effectOf(build, shaving)
  if (effect.kind === 'none') throw new CommandRefused(`Say which fitted line “${shaving.what}” touches first.`, 'lineId')
  if (effect.kind === 'grams' && !mass) throw new CommandRefused('Say what the line weighs afterwards.', 'mass')
  if (effect.kind === 'new line' && !mass) throw new CommandRefused('Say what it weighs.', 'mass')
  return putShaving(withEffect(build, shaving, effect, mass), { ...shaving, state: 'done', doneOn: on, realG })
}

function withEffect(build: Build, shaving: Shaving, effect: Exclude<ShavingEffect, { kind: 'none' }>, mass: Mass | null): Build {
  switch (effect.kind) {
    case 'swap': return mass ? changeLines(fitInstead(build, effect.candidateId), [{ id: effect.candidateId, fields: { mass } }]) : fitInstead(build, effect.candidateId)
    case 'new line': return addLines(build, [lineOfShaving(shaving, mass)], null)
    // With grams of its own something of it is still on board.
    case 'off': return changeLines(build, [{ id: effect.lineId, fields: mass ? { mass } : { state: 'off' } }])
    case 'on': return changeLines(build, [{ id: effect.lineId, fields: mass ? { state: 'fitted', mass } : { state: 'fitted' } }])
    case 'grams': return changeLines(build, [{ id: effect.lineId, fields: { mass } }])
  }
}

function requireLoadout(build: Build, { setupId, packLineId }: LoadoutChoice): void {
  if (!build.setups.some(s => s.id === setupId)) throw new CommandRefused('This build has no such set-up.', 'setupId')
  if (packLineId !== null && !build.lines.some(l => l.id === packLineId && l.slot === 'pack')) throw new CommandRefused('This build has no such pack.', 'packLineId')
}

function requireLine(build: Build, id: string): Line {
  const line = build.lines.find(l => l.id === id)
  if (!line) throw new CommandRefused('That line is no longer in this build.', 'id')
  return line
}

/** The most weighings of several lines one build keeps. */
const mostObservations = 200

function putObservation(build: Build, observation: Observation): Build {
  if (observation.subjects.length === 0) throw new CommandRefused('Say what is on the pan: at least one line.', 'subjects')
  const exists = build.observations.some(o => o.id === observation.id)
  if (!exists && build.observations.length >= mostObservations) throw new CommandRefused(`A build keeps at most ${mostObservations} weighings of several lines. Delete one that no longer counts.`, 'observations')
  return { ...build, observations: exists ? build.observations.map(o => o.id === observation.id ? observation : o) : [...build.observations, observation] }
}

function addLines(build: Build, lines: readonly Line[], beforeId: string | null): Build {
  const known = new Set(build.lines.map(line => line.id))
  for (const line of lines) {
    if (known.has(line.id)) throw new CommandRefused('A line with this id is there already.', 'id')
    known.add(line.id)
    if (line.name.trim() === '') throw new CommandRefused('Say what is fitted: the line needs a name.', 'name')
  }
  if (known.size > mostLines) throw new CommandRefused(`A build holds at most ${mostLines} lines.`, 'lines')
  const at = beforeId === null ? build.lines.length : build.lines.findIndex(l => l.id === beforeId)
  const index = at < 0 ? build.lines.length : at
  return { ...build, lines: [...build.lines.slice(0, index), ...lines, ...build.lines.slice(index)] }
}

function changeLines(build: Build, changes: readonly { readonly id: string, readonly fields: LineFields }[]): Build {
  const fieldsById = new Map<string, LineFields>()
  for (const { id, fields } of changes) {
    const line = requireLine(build, id)
    if (fields.name !== undefined && fields.name.trim() === '') throw new CommandRefused('Say what is fitted: the line needs a name.', 'name')
    fieldsById.set(id, { ...fieldsById.get(id), ...fields })
    if (fields.state === undefined || !line.tie) continue
    for (const tied of build.lines) {
      if (tied.tie === line.tie && tied.id !== id && tied.state !== 'candidate') fieldsById.set(tied.id, { ...fieldsById.get(tied.id), state: fields.state })
    }
  }
  return { ...build, lines: build.lines.map((line) => {
    const fields = fieldsById.get(line.id)
    if (!fields) return line
    const changed: Line = { ...line, ...fields }
    return keepListing(fields.slot !== undefined && fields.slot !== line.slot ? keepKnownProperties(changed) : changed, fields)
  }) }
}

/** A mass typed as listed is also the listing, and stays known as such when the part is weighed later. */
function keepListing(line: Line, fields: LineFields): Line {
  if (!fields.mass || fields.mass.evidence !== 'listed' || fields.mass.weighing || fields.listing !== undefined) return line
  return { ...line, listing: { valueG: fields.mass.valueG / fields.mass.valueCount, resolutionG: fields.mass.resolutionG } }
}

/** A line of another kind keeps only the properties that kind has. */
function keepKnownProperties(line: Line): Line {
  const kept = Object.entries(line.properties ?? {}).filter(([key]) => propertyNamed(line.slot, key))
  return { ...line, properties: kept.length > 0 ? Object.fromEntries(kept) : null }
}

function moveLines(build: Build, ids: readonly string[], beforeId: string | null): Build {
  const moving = new Set(ids)
  for (const id of ids) requireLine(build, id)
  if (beforeId !== null && moving.has(beforeId)) throw new CommandRefused('A line cannot be moved before itself.', 'beforeId')
  const staying = build.lines.filter(line => !moving.has(line.id))
  const at = beforeId === null ? staying.length : staying.findIndex(l => l.id === beforeId)
  const index = at < 0 ? staying.length : at
  return { ...build, lines: [...staying.slice(0, index), ...build.lines.filter(line => moving.has(line.id)), ...staying.slice(index)] }
}

function deleteLines(build: Build, ids: readonly string[]): Build {
  const gone = new Set(ids)
  for (const id of ids) requireLine(build, id)
  return {
    ...build,
    lines: build.lines.filter(line => !gone.has(line.id)).map(line => line.insteadOf && gone.has(line.insteadOf) ? { ...line, insteadOf: null } : line),
    setups: build.setups.map(s => s.lineIds.some(id => gone.has(id)) ? { ...s, lineIds: s.lineIds.filter(id => !gone.has(id)) } : s),
    neverFlown: build.neverFlown.some(c => c.packLineId && gone.has(c.packLineId)) ? build.neverFlown.filter(c => !c.packLineId || !gone.has(c.packLineId)) : build.neverFlown,
    flies: build.flies.packLineId && gone.has(build.flies.packLineId) ? { ...build.flies, packLineId: null } : build.flies,
    flying: withoutLoadouts(build.flying, c => c.packLineId !== null && gone.has(c.packLineId)),
  }
}

/** The flight plan without decisions about loadouts that are gone. */
function withoutLoadouts(flying: Build['flying'], isGone: (choice: LoadoutChoice) => boolean): Build['flying'] {
  return flying?.overOnPurpose.some(isGone) ? { ...flying, overOnPurpose: flying.overOnPurpose.filter(choice => !isGone(choice)) } : flying
}

/**
 * Fits a candidate (or a line that was off). The line it stands for becomes a candidate for it in turn, hands over its
 * place in set-ups and as the pack flown, and the other candidates follow.
 */
function fitInstead(build: Build, id: string): Build {
  const candidate = requireLine(build, id)
  const replaced = candidate.insteadOf ? build.lines.find(l => l.id === candidate.insteadOf) : undefined
  const swapped = build.lines.map((line): Line => {
    if (line.id === id) return { ...line, state: 'fitted', insteadOf: null, role: replaced?.role ?? line.role }
    if (replaced && line.id === replaced.id) return { ...line, state: 'candidate', insteadOf: id }
    if (replaced && line.insteadOf === replaced.id) return { ...line, insteadOf: id }
    return line
  })
  if (!replaced) return { ...build, lines: swapped }
  return {
    ...build,
    lines: swapped,
    setups: build.setups.map(s => s.lineIds.includes(replaced.id) ? { ...s, lineIds: s.lineIds.map(l => l === replaced.id ? id : l) } : s),
    flies: build.flies.packLineId === replaced.id ? { ...build.flies, packLineId: id } : build.flies,
  }
}

import { blankFit, blankFlightPlan, blankShaveList, type Shaving } from '../../model/data'
import type { Build, LoadoutChoice, Mass, Observation } from '../../model/ledger'
import { sameLoadout } from '../../mass/loadout'
import { recordStep, setAssembly } from './assembly'
import { effectOf, lineOfShaving, type ShavingEffect } from '../../making/shave-effect'
import {
  addLines,
  changeLines,
  correctWeighings,
  deleteLines,
  fitInstead,
  moveLines,
  sayAnother,
  saySame,
  weighLine,
  withoutLoadouts,
} from './lines'
import { mostOf } from './build-lists'
import { CommandRefused, type Command } from './types'

/**
 * The build after a command. Pure: the given build is untouched, and everything that did not change is the same
 * object afterwards. Throws {@link CommandRefused} with a sentence when the command does not fit the build.
 */
export function applyCommand(build: Build, command: Command): Build {
  switch (command.type) {
    case 'build.set': {
      const { aim, ...fields } = command.fields
      if (fields.name !== undefined && fields.name.trim() === '')
        throw new CommandRefused('A build needs a name.', 'name')
      return { ...build, ...fields, ...(aim ? { aim: { ...build.aim, ...aim } } : {}) }
    }
    case 'lines.add':
      return addLines(build, command.lines, command.beforeId, command.setupId)
    case 'lines.change':
      return changeLines(build, command.changes)
    case 'line.weigh':
      return weighLine(build, command)
    case 'weighings.correct':
      return correctWeighings(build, command)
    case 'line.another':
      return sayAnother(build, command)
    case 'line.same':
      return saySame(build, command)
    case 'lines.move':
      return moveLines(build, command.ids, command.beforeId)
    case 'lines.delete':
      return deleteLines(build, command.ids)
    case 'line.fit':
      return fitInstead(build, command.id)
    case 'setup.put': {
      const known = new Set(build.lines.map(line => line.id))
      if (command.setup.lineIds.some(id => !known.has(id)))
        throw new CommandRefused('The set-up names a line this build does not have.', 'lineIds')
      if (command.setup.name.trim() === '') throw new CommandRefused('A set-up needs a name.', 'name')
      const exists = build.setups.some(s => s.id === command.setup.id)
      return {
        ...build,
        setups: exists
          ? build.setups.map(s => (s.id === command.setup.id ? command.setup : s))
          : [...build.setups, command.setup],
      }
    }
    case 'setup.delete': {
      if (build.setups.length <= 1) throw new CommandRefused('A build keeps at least one set-up.', 'id')
      const setups = build.setups.filter(s => s.id !== command.id)
      return {
        ...build,
        setups,
        flies: build.flies.setupId === command.id ? { ...build.flies, setupId: setups[0]!.id } : build.flies,
        neverFlown: build.neverFlown.filter(c => c.setupId !== command.id),
        flying: withoutLoadouts(build.flying, c => c.setupId === command.id),
      }
    }
    case 'observation.put':
      return putObservation(build, command.observation)
    case 'observation.delete':
      if (!build.observations.some(o => o.id === command.id))
        throw new CommandRefused('That weighing is no longer in this build.', 'id')
      return { ...build, observations: build.observations.filter(o => o.id !== command.id) }
    case 'fit.set':
      return { ...build, fit: { ...(build.fit ?? blankFit), ...command.fields } }
    case 'flying.set':
      for (const choice of command.fields.overOnPurpose ?? []) requireLoadout(build, choice)
      return { ...build, flying: { ...(build.flying ?? blankFlightPlan), ...command.fields } }
    case 'shave.set':
      return { ...build, shave: { ...(build.shave ?? blankShaveList), ...command.fields } }
    case 'shaving.put':
      return putShaving(build, command.shaving)
    case 'shaving.delete': {
      requireShaving(build, command.id)
      const without = (ids: readonly string[]) => (ids.includes(command.id) ? ids.filter(id => id !== command.id) : ids)
      return {
        ...build,
        shave: {
          ...build.shave!,
          shavings: build
            .shave!.shavings.filter(s => s.id !== command.id)
            .map(s => ({ ...s, excludes: without(s.excludes), needs: without(s.needs) })),
        },
      }
    }
    case 'shavings.plan':
      return planShavings(build, command.ids)
    case 'shaving.do':
      return doShaving(build, command)
    case 'assembly.set':
      return setAssembly(build, command.fields)
    case 'assembly.record':
      return recordStep(build, command.stepId, command.fields)
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

const mostShavings = mostOf('shave.shavings')

function putShaving(build: Build, shaving: Shaving): Build {
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

function planShavings(build: Build, ids: readonly string[]): Build {
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
function doShaving(
  build: Build,
  { id, mass, realG, on, gramsG, leadMm }: Extract<Command, { type: 'shaving.do' }>,
): Build {
  const shaving = requireShaving(build, id)
  if (shaving.state === 'done') throw new CommandRefused(`“${shaving.what}” is done already.`, 'id')
  const effect = effectOf(build, shaving)
  if (effect.kind === 'none')
    throw new CommandRefused(`Say which fitted line “${shaving.what}” touches first.`, 'lineId')
  if (effect.kind === 'grams' && !mass) throw new CommandRefused('Say what the line weighs afterwards.', 'mass')
  if (effect.kind === 'new line' && !mass) throw new CommandRefused('Say what it weighs.', 'mass')
  const done = withEffect(build, shaving, effect, mass)
  const cut = leadMm !== undefined && effect.kind === 'grams' ? withLeads(done, effect.lineId, leadMm) : done
  return putShaving(cut, { ...shaving, gramsG: gramsG ?? shaving.gramsG, state: 'done', doneOn: on, realG })
}

function withEffect(
  build: Build,
  shaving: Shaving,
  effect: Exclude<ShavingEffect, { kind: 'none' }>,
  mass: Mass | null,
): Build {
  switch (effect.kind) {
    case 'swap':
      return mass
        ? changeLines(fitInstead(build, effect.candidateId), [{ id: effect.candidateId, fields: { mass } }])
        : fitInstead(build, effect.candidateId)
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
  const ends = new Set([line.id, line.name, ...(line.slot === 'motor' ? ['motors'] : [])])
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

function requireLoadout(build: Build, { setupId, packLineId }: LoadoutChoice): void {
  if (!build.setups.some(s => s.id === setupId)) throw new CommandRefused('This build has no such set-up.', 'setupId')
  if (packLineId !== null && !build.lines.some(l => l.id === packLineId && l.slot === 'pack'))
    throw new CommandRefused('This build has no such pack.', 'packLineId')
}

const mostObservations = mostOf('observations')

function putObservation(build: Build, observation: Observation): Build {
  if (observation.subjects.length === 0)
    throw new CommandRefused('Say what is on the pan: at least one line.', 'subjects')
  const exists = build.observations.some(o => o.id === observation.id)
  if (!exists && build.observations.length >= mostObservations)
    throw new CommandRefused(
      `A build keeps at most ${mostObservations} weighings of several lines. Delete one that no longer counts.`,
      'observations',
    )
  return {
    ...build,
    observations: exists
      ? build.observations.map(o => (o.id === observation.id ? observation : o))
      : [...build.observations, observation],
  }
}

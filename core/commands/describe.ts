import { assemblyOf, recordOf } from '../assembly/progress'
import { sequenceOf } from '../assembly/steps'
import type { StepRecord } from '../assembly/types'
import { fixed } from '../display'
import { slotFacts, type Build, type Line } from '../ledger'
import { lineGrams } from '../evidence'
import type { Command } from './types'
import type { Patch } from './patch'

/** What the journal says of a change: a title and, where one line's grams changed, grams before and after. */
export interface Description { readonly title: string, readonly gramsBeforeG: number | null, readonly gramsAfterG: number | null }

/** Grams of a line as booked, without listing correction; null while it has none. */
function bookedG(line: Line | null): number | null {
  return line?.mass ? lineGrams(line.mass, line.quantity) : null
}

function lineName(line: Line): string {
  return line.slot === 'pack' && line.pack?.label ? `${line.pack.label} (${line.name})` : line.name
}

/** Describes a command that has been carried out, in the builder's words. */
export function describeCommand(command: Command, before: Build, patch: Patch): Description {
  const only = patch.lines.length === 1 ? patch.lines[0]! : null
  const booked = { gramsBeforeG: bookedG(only?.before ?? null), gramsAfterG: bookedG(only?.after ?? null) }
  const grams = booked.gramsBeforeG === booked.gramsAfterG ? { gramsBeforeG: null, gramsAfterG: null } : booked
  const none = { gramsBeforeG: null, gramsAfterG: null }
  switch (command.type) {
    case 'build.set': return { title: describeFields(command.fields), ...none }
    case 'lines.add': return only
      ? { title: `Added ${lineName(only.after!)}`, ...grams }
      : { title: `Added ${command.lines.length} lines`, ...none }
    case 'lines.delete': return only
      ? { title: `Deleted ${lineName(only.before!)}`, ...grams }
      : { title: `Deleted ${command.ids.length} lines`, ...none }
    case 'lines.move': return { title: command.ids.length === 1 ? `Moved ${nameOf(before, command.ids[0]!)}` : `Moved ${command.ids.length} lines`, ...none }
    case 'line.fit': {
      const fitted = patch.lines.find(c => c.after?.id === command.id)
      const replaced = patch.lines.find(c => c.before?.state === 'fitted')
      return {
        title: `Fitted ${fitted?.after ? lineName(fitted.after) : 'a part'}${replaced?.before ? ` instead of ${lineName(replaced.before)}` : ''}`,
        gramsBeforeG: bookedG(replaced?.before ?? null), gramsAfterG: bookedG(fitted?.after ?? null),
      }
    }
    case 'lines.change': return only?.after && only.before
      ? { title: describeLineChange(only.before, only.after), ...grams }
      : { title: describeSeveral(patch), ...none }
    case 'line.weigh': return only?.after && only.before
      ? { title: command.as === 'further' && only.before.mass ? `${lineName(only.after)}: weighed again, ${fixed(lineGrams(command.mass, only.after.quantity), 2)} g` : describeLineChange(only.before, only.after), ...grams }
      : { title: `${nameOf(before, command.id)}: weighed`, ...none }
    case 'weighings.correct': return { title: `Corrected ${command.corrections.length} ${command.corrections.length === 1 ? 'weighing' : 'weighings'} by a later check`, ...none }
    case 'line.another': return { title: `${nameOf(before, command.id)}: another part than before`, ...none }
    case 'line.same': return { title: `${nameOf(before, command.id)}: the same piece as before`, ...none }
    case 'setup.put': return { title: `Set-up “${command.setup.name}” ${before.setups.some(s => s.id === command.setup.id) ? 'changed' : 'added'}`, ...none }
    case 'setup.delete': return { title: `Set-up “${before.setups.find(s => s.id === command.id)?.name ?? ''}” deleted`, ...none }
    case 'observation.put': {
      const { observation } = command
      const was = before.observations.find(o => o.id === observation.id)
      if (!was) return { title: `Weighed together: ${observation.title}, ${fixed(observation.valueG, 2)} g${observation.state === 'held' ? ', held back' : ''}`, ...none }
      return { title: `${observation.title}, ${fixed(observation.valueG, 2)} g: ${observation.state}`, ...none }
    }
    case 'observation.delete': return { title: `Deleted the weighing “${before.observations.find(o => o.id === command.id)?.title ?? ''}”`, ...none }
    case 'fit.set': return { title: `Fit: ${Object.keys(command.fields).map(key => fitWords[key] ?? key).join(', ')} changed`, ...none }
    case 'shave.set': return { title: 'Shave: what a plan spares changed', ...none }
    case 'shaving.put': return { title: `Shaving “${command.shaving.what}” ${before.shave?.shavings.some(s => s.id === command.shaving.id) ? 'changed' : 'added'}`, ...none }
    case 'shaving.delete': return { title: `Shaving “${before.shave?.shavings.find(s => s.id === command.id)?.what ?? ''}” deleted`, ...none }
    case 'shavings.plan': return { title: command.ids.length === 0 ? 'Shave: nothing planned any more' : `Shave: planned ${command.ids.map(id => `“${before.shave?.shavings.find(s => s.id === id)?.what ?? ''}”`).join(', ')}`.slice(0, 300), ...none }
    case 'shaving.do': {
      const shaving = before.shave?.shavings.find(s => s.id === command.id)
      const replaced = patch.lines.find(c => c.before?.state === 'fitted')
      const fitted = patch.lines.find(c => c.after?.state === 'fitted')
      return { title: `Shaved: ${shaving?.what ?? ''}`, gramsBeforeG: bookedG(replaced?.before ?? null), gramsAfterG: bookedG(fitted?.after ?? null) }
    }
    case 'flying.set': return { title: `Flying: ${[...new Set(Object.keys(command.fields).map(key => flyingWords[key] ?? key))].join(', ')} changed`, ...none }
    case 'assembly.set': return { title: `Assemble: ${Object.keys(command.fields).map(key => assemblyWords[key] ?? key).join(', ')} changed`, ...none }
    case 'assembly.record': return { title: `Assemble: ${recordWords(before, command.stepId, command.fields)}`, ...none }
    case 'loadout.fly': return { title: 'Changed the loadout it is flown in', ...none }
    case 'loadout.never': return { title: command.never ? 'Marked a loadout as never flown' : 'Allowed a loadout again', ...none }
  }
}

function nameOf(build: Build, id: string): string {
  const line = build.lines.find(l => l.id === id)
  return line ? lineName(line) : 'a line'
}

function describeSeveral(patch: Patch): string {
  const states = new Set(patch.lines.map(c => c.after?.state))
  if (states.size === 1 && patch.lines.some(c => c.before?.state !== c.after?.state)) {
    return `${states.has('off') ? 'Took off' : 'Brought back'} ${patch.lines.map(c => c.after ? lineName(c.after) : '').join(', ')}`
  }
  return `Changed ${patch.lines.length} lines`
}

function describeLineChange(before: Line, after: Line): string {
  const name = lineName(after)
  if (before.state !== after.state) return `${after.state === 'off' ? 'Took off' : after.state === 'fitted' ? 'Brought back' : 'Set aside'} ${name}`
  if (before.mass !== after.mass) {
    if (!after.mass) return `${name}: grams cleared`
    const known = after.mass.evidence
    return before.mass && before.mass.evidence === known ? `${name}: grams changed` : `${name}: ${known === 'typical' ? 'typical mass' : known}`
  }
  if (before.quantity !== after.quantity) return `${name}: × ${before.quantity} → × ${after.quantity}`
  if (before.name !== after.name) return `Renamed ${before.name} to ${after.name}`
  if (before.slot !== after.slot) return `${name}: now under ${slotFacts[after.slot].label.toLowerCase()}`
  if (before.priceEachCents !== after.priceEachCents) return `${name}: price changed`
  if (before.role !== after.role) return `${name}: now ${after.role}`
  if (before.removable !== after.removable) return `${name}: ${after.removable ? 'removable' : 'not removable'}`
  if (before.tie !== after.tie) return after.tie ? `${name}: tied with “${after.tie}”` : `${name}: untied`
  if (before.feed !== after.feed) return `${name}: feed changed`
  if (before.properties !== after.properties) return `${name}: properties changed`
  return `${name}: details changed`
}

function describeFields(fields: { name?: string, archived?: boolean, aim?: object, reference?: unknown, craftClass?: string }): string {
  if (fields.archived !== undefined) return fields.archived ? 'Put away' : 'Brought back to the shelf'
  if (fields.name !== undefined) return `Renamed the build to ${fields.name}`
  if (fields.aim) return `Aim changed: ${Object.keys(fields.aim).map(key => aimWords[key] ?? key).join(', ')}`
  return 'Build details changed'
}

const aimWords: Record<string, string> = {
  purpose: 'purpose', purposeKind: 'purpose', places: 'places', cardIds: 'rule cards', reserveG: 'reserve',
  confidence: 'confidence', goalDryG: 'dry goal', goalMinutes: 'minutes goal', goalPriceCents: 'money goal',
}

const flyingWords: Record<string, string> = {
  style: 'style', altitudeM: 'altitude', temperatureC: 'temperature', reservePercent: 'reserve', endCellV: 'end of the flight', warnCellV: 'warning', efficiency: 'efficiency',
  alsoCardIds: 'cards looked at', overOnPurpose: 'what is flown over on purpose',
}

const fitWords: Record<string, string> = { stack: 'stack-up', joints: 'fixings', wires: 'wire plan', mounting: 'mounting', considered: 'what was considered', setAside: 'findings set aside' }

/** `12.40 → 12.10 g`, or one side when the other is missing. */
export function gramsChangeWords(beforeG: number | null, afterG: number | null): string {
  const side = (value: number | null) => value === null ? '–' : fixed(value, 2)
  return beforeG === null && afterG === null ? '' : `${side(beforeG)} → ${side(afterG)} g`
}

const assemblyWords: Readonly<Record<string, string>> = { school: 'way of building', order: 'order', own: 'own steps' }

/** What changed in the record of a step, in words. */
function recordWords(before: Build, stepId: string, fields: Partial<Omit<StepRecord, 'stepId'>>): string {
  const was = recordOf(assemblyOf(before), stepId)
  const record: StepRecord = { ...was, ...fields }
  const sorted = sequenceOf(before, before.flies)
  const title = ('steps' in sorted ? sorted.steps.find(step => step.id === stepId)?.title : undefined) ?? stepId
  const change = record.test !== was.test && record.test !== null
    ? `test ${record.test}`
    : record.overriddenWhy !== was.overriddenWhy
      ? 'failed test gone past'
      : record.skippedWhy !== was.skippedWhy
        ? (record.skippedWhy === null ? 'no longer skipped' : 'skipped')
        : record.doneAt !== was.doneAt
          ? (record.doneAt === null ? 'not done any more' : 'done')
          : record.photoIds !== was.photoIds && record.photoIds.length !== was.photoIds.length ? 'photo' : 'noted'
  return `“${title}” ${change}`
}

import { assemblyOf, recordOf, sequenceOf } from '../../making/assembly'
import { type StepRecord, blankFit, type FitPlan, blankFlightPlan, blankShaveList } from '../../model/data'
import { centsFigure, fixed } from '../../text/display'
import { packLabel, slotFacts, type Build, type Line, type Setup } from '../../model/ledger'
import { loadoutName } from '../../mass/loadout'
import { changesOf, itemChanges, joined, propertyChanges } from './changed-words'
import { lineGrams } from '../../mass/evidence'
import type { Command } from './types'
import type { Patch, PatchedLine } from './patch'

/** What the journal says of a change: a title and, where one line's grams changed, grams before and after. */
export interface Description {
  readonly title: string
  readonly gramsBeforeG: number | null
  readonly gramsAfterG: number | null
}

/** Grams of a line as booked, without listing correction; null while it has none. */
function bookedG(line: PatchedLine | null): number | null {
  return line?.mass ? lineGrams(line.mass, line.quantity) : null
}

function lineName(line: PatchedLine): string {
  const label = line.slot === 'pack' ? packLabel(line) : line.name
  return label === line.name ? line.name : `${label} (${line.name})`
}

/** Describes a command that has been carried out, in the builder's words. */
export function describeCommand(command: Command, before: Build, patch: Patch): Description {
  const only = patch.lines.length === 1 ? patch.lines[0]! : null
  const booked = { gramsBeforeG: bookedG(only?.before ?? null), gramsAfterG: bookedG(only?.after ?? null) }
  const grams = booked.gramsBeforeG === booked.gramsAfterG ? { gramsBeforeG: null, gramsAfterG: null } : booked
  const none = { gramsBeforeG: null, gramsAfterG: null }
  switch (command.type) {
    case 'build.set':
      return { title: cut(describeFields(command.fields, before)), ...none }
    case 'lines.add':
      return only
        ? { title: `Added ${lineName(only.after!)}`, ...grams }
        : { title: `Added ${command.lines.length} lines`, ...none }
    case 'lines.delete':
      return only
        ? { title: `Deleted ${lineName(only.before!)}`, ...grams }
        : { title: `Deleted ${command.ids.length} lines`, ...none }
    case 'lines.move':
      return {
        title:
          command.ids.length === 1 ? `Moved ${nameOf(before, command.ids[0]!)}` : `Moved ${command.ids.length} lines`,
        ...none,
      }
    case 'line.fit': {
      const fitted = patch.lines.find(c => c.after?.id === command.id)
      const replaced = patch.lines.find(isReplaced)
      return {
        title: `Fitted ${fitted?.after ? lineName(fitted.after) : 'a part'}${replaced?.before ? ` instead of ${lineName(replaced.before)}` : ''}`,
        gramsBeforeG: bookedG(replaced?.before ?? null),
        gramsAfterG: bookedG(fitted?.after ?? null),
      }
    }
    case 'lines.change':
      return only?.after && only.before
        ? { title: cut(describeLineChange(only.before, only.after, before)), ...grams }
        : { title: describeSeveral(patch), ...none }
    case 'line.weigh':
      return only?.after && only.before
        ? {
            title:
              command.as === 'further' && only.before.mass
                ? `${lineName(only.after)}: weighed again, ${fixed(lineGrams(command.mass, only.after.quantity), 2)} g`
                : describeLineChange(only.before, only.after, before),
            ...grams,
          }
        : { title: `${nameOf(before, command.id)}: weighed`, ...none }
    case 'weighings.correct':
      return {
        title: `Corrected ${command.corrections.length} ${command.corrections.length === 1 ? 'weighing' : 'weighings'} by a later check`,
        ...none,
      }
    case 'line.another':
      return { title: `${nameOf(before, command.id)}: another part than before`, ...none }
    case 'line.same':
      return { title: `${nameOf(before, command.id)}: the same piece as before`, ...none }
    case 'setup.put':
      return { title: cut(setupWords(command.setup, before)), ...none }
    case 'setup.delete':
      return { title: `Set-up “${before.setups.find(s => s.id === command.id)?.name ?? ''}” deleted`, ...none }
    case 'observation.put': {
      const { observation } = command
      const was = before.observations.find(o => o.id === observation.id)
      if (!was)
        return {
          title: `Weighed together: ${observation.title}, ${fixed(observation.valueG, 2)} g${observation.state === 'held' ? ', held back' : ''}`,
          ...none,
        }
      return { title: `${observation.title}, ${fixed(observation.valueG, 2)} g: ${observation.state}`, ...none }
    }
    case 'observation.delete':
      return {
        title: `Deleted the weighing “${before.observations.find(o => o.id === command.id)?.title ?? ''}”`,
        ...none,
      }
    case 'fit.set':
      return { title: cut(`Fit: ${fitChanges(before.fit ?? blankFit, command.fields)}`), ...none }
    case 'shave.set':
      return {
        title: cut(
          `Shave: ${joined(changesOf(picked(before.shave ?? blankShaveList, command.fields), command.fields))}`,
        ),
        ...none,
      }
    case 'shaving.put': {
      const was = before.shave?.shavings.find(s => s.id === command.shaving.id)
      return {
        title: cut(
          was
            ? `Shaving “${was.what}”: ${joined(changesOf(was, command.shaving))}`
            : `Shaving “${command.shaving.what}” added`,
        ),
        ...none,
      }
    }
    case 'shaving.delete':
      return {
        title: `Shaving “${before.shave?.shavings.find(s => s.id === command.id)?.what ?? ''}” deleted`,
        ...none,
      }
    case 'shavings.plan':
      return {
        title:
          command.ids.length === 0
            ? 'Shave: nothing planned any more'
            : `Shave: planned ${command.ids.map(id => `“${before.shave?.shavings.find(s => s.id === id)?.what ?? ''}”`).join(', ')}`.slice(
                0,
                300,
              ),
        ...none,
      }
    case 'shaving.do': {
      const shaving = before.shave?.shavings.find(s => s.id === command.id)
      const replaced = patch.lines.find(isReplaced) ?? patch.lines.find(c => c.before?.state === 'fitted')
      const fitted =
        patch.lines.find(c => c.after?.state === 'fitted' && c.before?.state !== 'fitted') ??
        patch.lines.find(c => c.after?.state === 'fitted')
      return {
        title: `Shaved: ${shaving?.what ?? ''}`,
        gramsBeforeG: bookedG(replaced?.before ?? null),
        gramsAfterG: bookedG(fitted?.after ?? null),
      }
    }
    case 'flying.set':
      return {
        title: cut(
          `Flying: ${joined(changesOf(picked(before.flying ?? blankFlightPlan, command.fields), command.fields))}`,
        ),
        ...none,
      }
    case 'assembly.set':
      return {
        title: `Assemble: ${Object.keys(command.fields)
          .map(key => assemblyWords[key] ?? key)
          .join(', ')} changed`,
        ...none,
      }
    case 'assembly.record':
      return { title: `Assemble: ${recordWords(before, command.stepId, command.fields)}`, ...none }
    case 'loadout.fly':
      return {
        title: cut(`Flown as ${loadoutName(before, command.choice)}, before as ${loadoutName(before, before.flies)}`),
        ...none,
      }
    case 'loadout.never':
      return {
        title: cut(`${loadoutName(before, command.choice)}: ${command.never ? 'never flown' : 'flown again'}`),
        ...none,
      }
  }
}

/** A line that flew before and does not any more: others in the same change only hang on it. */
const isReplaced = ({ before, after }: Patch['lines'][number]) =>
  before?.state === 'fitted' && after?.state !== 'fitted'

function nameOf(build: Build, id: string): string {
  const line = build.lines.find(l => l.id === id)
  return line ? lineName(line) : 'a line'
}

function describeSeveral(patch: Patch): string {
  const states = new Set(patch.lines.map(c => c.after?.state))
  if (states.size === 1 && patch.lines.some(c => c.before?.state !== c.after?.state)) {
    return `${states.has('off') ? 'Took off' : 'Brought back'} ${patch.lines.map(c => (c.after ? lineName(c.after) : '')).join(', ')}`
  }
  return `Changed ${patch.lines.length} lines`
}

function describeLineChange(before: PatchedLine, after: PatchedLine, build: Build): string {
  const name = lineName(after)
  if (before.state !== after.state)
    return `${after.state === 'off' ? 'Took off' : after.state === 'fitted' ? 'Brought back' : 'Set aside'} ${name}`
  if (before.mass !== after.mass) {
    if (!after.mass) return `${name}: grams cleared`
    const known = after.mass.evidence
    return before.mass && before.mass.evidence === known
      ? `${name}: grams changed`
      : `${name}: ${known === 'typical' ? 'typical mass' : known}`
  }
  if (before.quantity !== after.quantity) return `${name}: × ${before.quantity} → × ${after.quantity}`
  if (before.name !== after.name) return `Renamed ${before.name} to ${after.name}`
  if (before.slot !== after.slot) return `${name}: now under ${slotFacts[after.slot].label.toLowerCase()}`
  if (before.priceEachCents !== after.priceEachCents)
    return `${name}: price ${priceWords(before.priceEachCents)} → ${priceWords(after.priceEachCents)}`
  if (before.role !== after.role) return `${name}: now ${after.role}`
  if (before.removable !== after.removable) return `${name}: ${after.removable ? 'removable' : 'not removable'}`
  if (before.tie !== after.tie) return after.tie ? `${name}: tied with “${after.tie}”` : `${name}: untied`
  if (before.feed !== after.feed)
    return `${name}: fed from ${feedWords(before.feed, build)} → ${feedWords(after.feed, build)}`
  if (before.properties !== after.properties) return `${name}: ${joined(propertyChanges(before, after))}`
  if (before.pack !== after.pack && after.pack)
    return `${name}: ${joined(changesOf(before.pack ?? before.packSoFar ?? {}, after.pack))}`
  if (before.note !== after.note)
    return `${name}: note ${after.note === '' ? 'taken away' : `“${after.note.slice(0, 80)}${after.note.length > 80 ? '…' : ''}”`}`
  if (before.listing !== after.listing)
    return `${name}: listed ${before.listing ? `${before.listing.valueG} g` : 'not said'} → ${after.listing ? `${after.listing.valueG} g` : 'not said'}`
  return `${name}: details changed`
}

function describeFields(
  fields: { name?: string; archived?: boolean; aim?: object; reference?: unknown; craftClass?: string },
  build: Build,
): string {
  if (fields.archived !== undefined) return fields.archived ? 'Put away' : 'Brought back to the shelf'
  if (fields.name !== undefined) return `Renamed the build to ${fields.name}`
  if (fields.aim) return `Aim: ${joined(changesOf(picked(build.aim, fields.aim), fields.aim))}`
  if (fields.craftClass !== undefined)
    return `Craft class ${build.craftClass || 'not said'} → ${fields.craftClass || 'not said'}`
  return 'Build details changed'
}

/** The most letters a title of the journal has. */
const mostLetters = 300
const cut = (title: string) => (title.length > mostLetters ? `${title.slice(0, mostLetters - 1)}…` : title)
const picked = (from: object, fields: object): object =>
  Object.fromEntries(Object.keys(fields).map(key => [key, (from as Record<string, unknown>)[key]]))
const priceWords = (cents: number | null) => (cents === null ? 'not said' : centsFigure(cents))

function feedWords(feed: Line['feed'], build: Build): string {
  if (!feed) return 'not said'
  if (feed.from === 'pack') return 'the pack'
  if (feed.from === 'balance') return 'the balance lead'
  return `${feed.output === '' ? '' : `“${feed.output}” of `}${nameOf(build, feed.from)}`
}

function setupWords(setup: Setup, before: Build): string {
  const was = before.setups.find(s => s.id === setup.id)
  if (!was) return `Set-up “${setup.name}” added`
  const names = (ids: readonly string[]) => ids.map(id => nameOf(before, id)).join(', ')
  const [on, off] = [
    setup.lineIds.filter(id => !was.lineIds.includes(id)),
    was.lineIds.filter(id => !setup.lineIds.includes(id)),
  ]
  return `Set-up “${was.name}”: ${joined([...(was.name === setup.name ? [] : [`now “${setup.name}”`]), ...(on.length > 0 ? [`with ${names(on)}`] : []), ...(off.length > 0 ? [`without ${names(off)}`] : [])])}`
}

/** What became of the parts of Fit, by what they are called. */
function fitChanges(was: FitPlan, fields: Partial<FitPlan>): string {
  const changes = [
    ...(fields.stack === undefined ? [] : itemChanges(was.stack?.layers ?? [], fields.stack?.layers ?? [])),
    ...(fields.joints === undefined ? [] : itemChanges(was.joints, fields.joints)),
    ...(fields.wires === undefined ? [] : itemChanges(was.wires, fields.wires)),
    ...(fields.mounting === undefined ? [] : changesOf(was.mounting, fields.mounting)),
    ...(fields.considered === undefined ? [] : itemChanges(was.considered, fields.considered)),
    ...(fields.setAside === undefined
      ? []
      : [
          fields.setAside.length > was.setAside.length
            ? `lived with: ${fields.setAside.at(-1)!.why}`
            : 'a finding stands again',
        ]),
  ]
  return changes.length > 0 ? joined(changes) : 'order changed'
}

/** `12.40 → 12.10 g`, or one side when the other is missing. */
export function gramsChangeWords(beforeG: number | null, afterG: number | null): string {
  const side = (value: number | null) => (value === null ? '–' : fixed(value, 2))
  return beforeG === null && afterG === null ? '' : `${side(beforeG)} → ${side(afterG)} g`
}

const assemblyWords: Readonly<Record<string, string>> = { school: 'way of building', order: 'order', own: 'own steps' }

/** What changed in the record of a step, in words. */
function recordWords(before: Build, stepId: string, fields: Partial<Omit<StepRecord, 'stepId'>>): string {
  const was = recordOf(assemblyOf(before), stepId)
  const record: StepRecord = { ...was, ...fields }
  const sorted = sequenceOf(before, before.flies)
  const title = ('steps' in sorted ? sorted.steps.find(step => step.id === stepId)?.title : undefined) ?? stepId
  const change =
    record.test !== was.test && record.test !== null
      ? `test ${record.test}`
      : record.overriddenWhy !== was.overriddenWhy
        ? 'failed test gone past'
        : record.skippedWhy !== was.skippedWhy
          ? record.skippedWhy === null
            ? 'no longer skipped'
            : 'skipped'
          : record.doneAt !== was.doneAt
            ? record.doneAt === null
              ? 'not done any more'
              : 'done'
            : record.photoIds !== was.photoIds && record.photoIds.length !== was.photoIds.length
              ? 'photo'
              : 'noted'
  return `“${title}” ${change}`
}

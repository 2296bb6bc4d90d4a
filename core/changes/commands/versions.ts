import { ownEntry } from '../../basics/own'
import type { Upcast } from '../../slices/contract'
import { buildFields, everySlice, type AnySlice } from './fields'

/** The version of each slice that something was written with, by the slice's name; what is not named was not kept then. */
export type Versions = Readonly<Record<string, number>>

/** What this version of the application writes. */
export const presentVersions: Versions = Object.fromEntries(everySlice.map(({ name, version }) => [name, version]))

/** What was written before versions were: every slice of that day was in its first. */
export const firstVersions: Versions = {
  head: 1,
  lines: 1,
  setups: 1,
  loadouts: 1,
  observations: 1,
  fit: 1,
  flying: 1,
  shave: 1,
  assembly: 1,
}

/** What is newer than this application can read, by what it is called; null where nothing is. */
export function newerThanKnown(versions: Versions): string | null {
  for (const [name, version] of Object.entries(versions)) {
    const slice = everySlice.find(one => one.name === name)
    if (!slice) return `“${name.slice(0, 40)}”, which this application does not know`
    if (version > slice.version)
      return `${slice.title} in version ${version}, of which this application reads up to version ${slice.version}`
  }
  return null
}

type Raw = Readonly<Record<string, unknown>>
type Step = { readonly slice: AnySlice; readonly upcast: Upcast }

/** The steps from what was written to the present, in order. */
const stepsFrom = (versions: Versions): readonly Step[] =>
  everySlice.flatMap(slice => slice.upcasts.slice((versions[slice.name] ?? 1) - 1).map(upcast => ({ slice, upcast })))

const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value)

/** Every item of a list through a step; what is no list stays as it is, for the schema to refuse. */
const eachOf = (items: unknown, become: ((item: Raw) => unknown) | undefined): unknown =>
  become && Array.isArray(items) ? items.map(item => (isRaw(item) ? become(item) : item)) : items

/** What a step does to something of this name. Names come from files: what every object inherits is none. */
const named = <T>(rules: Readonly<Record<string, T>> | undefined, name: string): T | undefined =>
  rules && ownEntry(rules, name)

function fieldAfter({ upcast }: Step, name: string, value: unknown): unknown {
  const field = ownEntry(buildFields, name)
  if (field?.kind === 'list') return eachOf(value, named(upcast.items, name))
  if (field?.kind !== 'part' || !isRaw(value)) return named(upcast.values, name)?.(value) ?? value
  return partAfter({ upcast }, name, value)
}

/** Some fields of a part, its lists among them. */
function partAfter({ upcast }: Pick<Step, 'upcast'>, name: string, fields: Raw): Raw {
  const part = named(upcast.parts, name)?.(fields) ?? fields
  return Object.fromEntries(
    Object.entries(part).map(([field, value]) => [field, eachOf(value, named(upcast.items, `${name}.${field}`))]),
  )
}

const fieldsAfter = (step: Step, fields: Raw): Raw =>
  Object.fromEntries(Object.entries(fields).map(([name, value]) => [name, fieldAfter(step, name, value)]))

const sidesAfter = (change: unknown, become: (side: unknown) => unknown): unknown =>
  isRaw(change) ? { ...change, before: become(change.before), after: become(change.after) } : change

function patchAfter(step: Step, patch: Raw): Raw {
  const { items } = step.upcast
  const ofRaw = (become: ((item: Raw) => unknown) | undefined) => (side: unknown) =>
    become && isRaw(side) ? become(side) : side
  const changesOf = (changes: unknown, become: ((item: Raw) => unknown) | undefined) =>
    Array.isArray(changes) ? changes.map(change => sidesAfter(change, ofRaw(become))) : changes
  return {
    ...patch,
    head: sidesAfter(
      patch.head,
      ofRaw(fields => fieldsAfter(step, fields)),
    ),
    lines: changesOf(patch.lines, items?.lines),
    setups: sidesAfter(patch.setups, side => eachOf(side, items?.setups)),
    ...(Array.isArray(patch.parts)
      ? {
          parts: patch.parts.map(change =>
            sidesAfter(
              change,
              ofRaw(fields => partAfter(step, String((change as Raw).part), fields)),
            ),
          ),
        }
      : {}),
    ...(Array.isArray(patch.lists)
      ? {
          lists: patch.lists.map(change =>
            isRaw(change)
              ? { ...change, changes: changesOf(change.changes, named(items, String(change.list))) }
              : change,
          ),
        }
      : {}),
  }
}

/** A whole build as it was written, as it is written now; a field that was not kept then is as blank as it is. */
function upcastBuild(build: Raw, versions: Versions): Raw {
  const known = stepsFrom(versions).reduce((fields, step) => fieldsAfter(step, fields), build)
  const blanks = Object.entries(buildFields).flatMap(([name, field]) =>
    Object.hasOwn(known, name) || !wasMissing(name, versions) ? [] : [[name, field.blank(known as never)]],
  )
  return { ...known, ...Object.fromEntries(blanks) }
}

/** Before versions were, a field that nobody had said anything of could be left out; so it is where its slice was not there. */
function wasMissing(field: string, versions: Versions): boolean {
  return versions[sliceOf(field).name] === undefined || (versions === firstVersions && mayBeLeftOut.has(field))
}
const mayBeLeftOut: ReadonlySet<string> = new Set(['observations', 'fit', 'flying', 'shave', 'assembly'])

/** A patch as it was written, as it is written now. */
export const upcastPatch = (patch: Raw, versions: Versions): Raw =>
  stepsFrom(versions).reduce((fields, step) => patchAfter(step, fields), patch)

/** A version of a line's grams as it was written, as it is written now. */
const upcastMassVersion = (version: Raw, versions: Versions): Raw =>
  stepsFrom(versions).reduce((fields, { upcast }) => upcast.items?.massVersions?.(fields) ?? fields, version)

/** A build file as it was written, as it is written now; what is no file stays as it is, for the schema to refuse. */
export function upcastFile(file: Raw, versions: Versions): Raw {
  const ofPatch = (entry: Raw) => (isRaw(entry.patch) ? { ...entry, patch: upcastPatch(entry.patch, versions) } : entry)
  const ofGrams = (version: Raw) => (isRaw(version.mass) ? upcastMassVersion(version, versions) : version)
  return {
    ...file,
    build: isRaw(file.build) ? upcastBuild(file.build, versions) : file.build,
    massVersions: eachOf(file.massVersions, ofGrams),
    journal: eachOf(file.journal, ofPatch),
  }
}

/** Whether something says the version of every part there was when versions began: later parts may have come since. */
export const saysEveryPart = (versions: Versions): boolean =>
  Object.keys(firstVersions).every(name => Object.hasOwn(versions, name))

/** The slice that keeps a field of a build. */
const sliceOf = (field: string): AnySlice => everySlice.find(one => Object.hasOwn(one.fields, field))!

/** In which version a field of a build is written. */
export const versionOf = (field: string): number => sliceOf(field).version

/** One field of a build as version `version` of its slice wrote it, as it is written now. */
export function upcastField(field: string, value: unknown, version: number): unknown {
  const slice = sliceOf(field)
  return slice.upcasts.slice(version - 1).reduce((now, upcast) => fieldAfter({ slice, upcast }, field, now), value)
}

/** What makes a field unreadable that version `version` of its slice wrote, by what it is called; null where nothing does. */
export function newerField(field: string, version: number): string | null {
  return Object.hasOwn(buildFields, field)
    ? newerThanKnown({ [sliceOf(field).name]: version })
    : newerThanKnown({ [field]: version })
}

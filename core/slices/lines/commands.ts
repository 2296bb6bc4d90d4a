import {
  asAnotherPiece,
  isTyped,
  withEditionsKnown,
  withPieceLeftBehind,
  type Build,
  type Line,
} from '../../model/ledger'
import { isOptional } from '../../mass/loadout'
import { propertyNamed } from '../../model/properties'
import { CommandRefused, type References } from '../contract'
import { mostFurther, mostLines } from './schema'
import type { LineFields, LinesCommand } from './types'

function requireLine(build: Build, id: string): Line {
  const line = build.lines.find(l => l.id === id)
  if (!line) throw new CommandRefused('That line is no longer in this build.', 'id')
  return line
}

export function addLines(build: Build, lines: readonly Line[], beforeId: string | null, setupId?: string): Build {
  const known = new Set(build.lines.map(line => line.id))
  for (const line of lines) {
    if (known.has(line.id)) throw new CommandRefused('A line with this id is there already.', 'id')
    known.add(line.id)
    if (line.name.trim() === '') throw new CommandRefused('Say what is fitted: the line needs a name.', 'name')
  }
  if (known.size > mostLines) throw new CommandRefused(`A build holds at most ${mostLines} lines.`, 'lines')
  const at = beforeId === null ? build.lines.length : build.lines.findIndex(l => l.id === beforeId)
  const index = at < 0 ? build.lines.length : at
  const joining =
    setupId === undefined ? [] : lines.filter(line => line.state === 'fitted' && isOptional(line)).map(line => line.id)
  const setups =
    joining.length === 0
      ? build.setups
      : build.setups.map(setup =>
          setup.id === setupId ? { ...setup, lineIds: [...setup.lineIds, ...joining] } : setup,
        )
  return { ...build, lines: [...build.lines.slice(0, index), ...lines, ...build.lines.slice(index)], setups }
}

type LineChange = Extract<LinesCommand, { type: 'lines.change' }>['changes'][number]

export function changeLines(build: Build, changes: readonly LineChange[]): Build {
  const changesById = new Map<string, { fields: LineFields; anotherPiece: boolean }>()
  for (const { id, fields, anotherPiece } of changes) {
    const line = requireLine(build, id)
    if (fields.name !== undefined && fields.name.trim() === '')
      throw new CommandRefused('Say what is fitted: the line needs a name.', 'name')
    const others = changesById.get(id)
    changesById.set(id, {
      fields: { ...others?.fields, ...fields },
      anotherPiece: (anotherPiece ?? false) || (others?.anotherPiece ?? false),
    })
    if (fields.state === undefined || !line.tie) continue
    for (const tied of build.lines) {
      if (tied.tie !== line.tie || tied.id === id || tied.state === 'candidate') continue
      const own = changesById.get(tied.id)
      changesById.set(tied.id, {
        fields: { ...own?.fields, state: fields.state },
        anotherPiece: own?.anotherPiece ?? false,
      })
    }
  }
  let next = build
  const lines = build.lines.map(line => {
    const change = changesById.get(line.id)
    if (!change) return line
    const { fields } = change
    const merged: Line = { ...line, ...fields, ...(fields.pack ? { packSoFar: null } : {}) }
    const changed = keepListing(
      fields.slot !== undefined && fields.slot !== line.slot ? keepKnownProperties(merged) : merged,
      fields,
    )
    if (change.anotherPiece || changed.quantity !== line.quantity) {
      next = withPieceLeftBehind(next, line)
      return asAnotherPiece(changed, line)
    }
    if (changed.mass !== line.mass) next = withEditionsKnown(next, line)
    return changed
  })
  return { ...next, lines }
}

/** A weighing of one line. */
export function weighLine(build: Build, { id, mass, as }: Extract<LinesCommand, { type: 'line.weigh' }>): Build {
  const line = requireLine(build, id)
  if (as !== 'further' || !line.mass)
    return changeLines(build, [{ id, fields: { mass }, anotherPiece: as === 'another piece' }])
  if (mass.evidence !== 'weighed')
    throw new CommandRefused('Only what was on a scale lies beside a line’s estimate.', 'mass')
  if (line.further.length >= mostFurther)
    throw new CommandRefused(
      `A line keeps at most ${mostFurther} weighings beside its estimate. Type the grams it has to begin anew.`,
      'mass',
    )
  const weighed: Line = { ...line, further: [...line.further, { mass, of: null }] }
  return { ...withEditionsKnown(build, line), lines: build.lines.map(other => (other === line ? weighed : other)) }
}

/** The same weighings under another check of their scale: each takes the place of its version. */
export function correctWeighings(
  build: Build,
  { corrections }: Extract<LinesCommand, { type: 'weighings.correct' }>,
): Build {
  return corrections.reduce((next, { id, versionId, mass }) => {
    const line = requireLine(next, id)
    if (line.mass?.versionId === versionId) return changeLines(next, [{ id, fields: { mass } }])
    if (!line.further.some(one => one.mass.versionId === versionId))
      throw new CommandRefused('That line has other grams by now.', 'versionId')
    const corrected: Line = {
      ...line,
      further: line.further.map(one => (one.mass.versionId === versionId ? { ...one, mass } : one)),
    }
    return { ...next, lines: next.lines.map(other => (other === line ? corrected : other)) }
  }, build)
}

/** What was taken for the same piece better known was another one. */
export function sayAnother(
  build: Build,
  { id, versionId, was }: Extract<LinesCommand, { type: 'line.another' }>,
): Build {
  const line = requireLine(build, id)
  const beside = line.further.find(one => one.mass.versionId === versionId && !one.of)
  const mass = beside?.mass ?? line.mass
  if (mass?.versionId !== versionId) throw new CommandRefused('That line has other grams by now.', 'versionId')
  const before: Line = { ...line, mass: was, further: line.further.filter(one => one !== beside) }
  return {
    ...withPieceLeftBehind(build, before),
    lines: build.lines.map(other => (other === line ? asAnotherPiece({ ...line, mass }, before) : other)),
  }
}

/** A mass typed as listed is also the listing, and stays known as such when the part is weighed later. */
function keepListing(line: Line, fields: LineFields): Line {
  if (!fields.mass || fields.mass.evidence !== 'listed' || fields.mass.weighing || fields.listing !== undefined)
    return line
  return {
    ...line,
    listing: { valueG: fields.mass.valueG / fields.mass.valueCount, resolutionG: fields.mass.resolutionG },
  }
}

/** A line of another kind keeps only the properties that kind has. */
function keepKnownProperties(line: Line): Line {
  const kept = Object.entries(line.properties ?? {}).filter(([key]) => propertyNamed(line.slot, key))
  return { ...line, properties: kept.length > 0 ? Object.fromEntries(kept) : null }
}

/**
 * What was taken for another piece is the one before, better known: the weighings of that one hold for it again, and
 * where it had been weighed itself the new one lies beside.
 */
export function saySame(build: Build, { id, was }: Extract<LinesCommand, { type: 'line.same' }>): Build {
  const line = requireLine(build, id)
  if (line.edition === 0 || !line.mass) throw new CommandRefused('That line is the piece it always was.', 'id')
  const further = line.further.map(one => (one.of?.mass.versionId === was.versionId ? { ...one, of: null } : one))
  const beside = was.evidence === 'weighed' && !isTyped(line.mass)
  const same: Line = {
    ...line,
    edition: line.edition - 1,
    ...(beside ? { mass: was, further: [...further, { mass: line.mass, of: null }] } : { further }),
  }
  return { ...build, lines: build.lines.map(other => (other === line ? same : other)) }
}

export function moveLines(build: Build, ids: readonly string[], beforeId: string | null): Build {
  const moving = new Set(ids)
  for (const id of ids) requireLine(build, id)
  if (beforeId !== null && moving.has(beforeId))
    throw new CommandRefused('A line cannot be moved before itself.', 'beforeId')
  const staying = build.lines.filter(line => !moving.has(line.id))
  const at = beforeId === null ? staying.length : staying.findIndex(l => l.id === beforeId)
  const index = at < 0 ? staying.length : at
  return {
    ...build,
    lines: [...staying.slice(0, index), ...build.lines.filter(line => moving.has(line.id)), ...staying.slice(index)],
  }
}

export function deleteLines(build: Build, ids: readonly string[], references: References): Build {
  const gone = new Map(ids.map(id => [id, requireLine(build, id)]))
  const left = [...gone.values()].reduce(withPieceLeftBehind<Build>, build)
  return references.clear({ ...left, lines: build.lines.filter(line => !gone.has(line.id)) }, 'lines', gone)
}

/**
 * Fits a candidate (or a line that was off). The line it stands for becomes a candidate for it in turn and hands over what
 * names it ({@link References.follow}); where its own power comes from, what it travels with and whether it comes off go to
 * the new one, unless that has its own.
 */
export function fitInstead(build: Build, id: string, references: References): Build {
  const candidate = requireLine(build, id)
  const replaced = candidate.insteadOf ? build.lines.find(l => l.id === candidate.insteadOf) : undefined
  if (!replaced) return withLine(build, { ...candidate, state: 'fitted', insteadOf: null })
  const fitted: Line = {
    ...candidate,
    state: 'fitted',
    insteadOf: null,
    role: replaced.role,
    feed: candidate.feed ?? replaced.feed,
    tie: candidate.tie ?? replaced.tie,
    removable: candidate.removable || replaced.removable,
  }
  const followed = references.follow(withLine(build, fitted), replaced, fitted)
  return withLine(followed, { ...replaced, state: 'candidate', insteadOf: id })
}

const withLine = (build: Build, line: Line): Build => ({
  ...build,
  lines: build.lines.map(other => (other.id === line.id ? line : other)),
})

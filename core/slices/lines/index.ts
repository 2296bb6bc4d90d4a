import { z } from 'zod'
import { withPackAsked, type Line } from '../../model/ledger'
import { outputsOf } from '../../model/properties'
import { idSchema } from '../../text/schemas'
import { nameOf, picked, told, type BuildSlice, type PatchedLine } from '../contract'
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
} from './commands'
import { takeOut } from './take-out'
import { askedMassSchema, lineSchema, lineShape, mostLines } from './schema'
import { weighedAs, type LinesCommand } from './types'
import { addedWords, changedWords, deletedWords, fittedWords, takenOutWords, weighedGrams, weighedWords } from './words'

export * from './schema'
export * from './types'
export { addLines, changeLines, fitInstead } from './commands'
export { takenApart } from './take-out'

declare module '../../model/data/build' {
  interface Build {
    readonly lines: readonly Line[]
  }
}

const { id: _id, insteadOf: _insteadOf, edition: _edition, further: _further, ...changeable } = lineShape
const changeSchema = z.strictObject({
  id: idSchema,
  fields: z.strictObject({ ...changeable, mass: askedMassSchema.nullable() }).partial(),
  anotherPiece: z.boolean().optional(),
})
/** A line as it is asked for: an edit may have waited in a browser since an earlier version wrote it. */
const askedLineSchema = z.preprocess(
  line => (typeof line === 'object' && line !== null ? lineFromSecondVersion(lineFromFirstVersion(line as Raw)) : line),
  lineSchema,
)
const idsSchema = z.array(idSchema).min(1).max(mostLines)

/** The ledger. */
export const linesSlice: BuildSlice<'lines', LinesCommand> = {
  name: 'lines',
  title: 'Parts',
  version: 4,
  upcasts: [
    { items: { lines: lineFromFirstVersion, massVersions: versionFromFirstVersion } },
    { items: { lines: lineFromSecondVersion } },
    // A journal once kept lines whole that had changed in part: so they are still read.
    {},
  ],
  fields: {
    lines: {
      kind: 'list',
      schema: z.array(lineSchema).max(mostLines, `A build holds at most ${mostLines} lines.`),
      blank: () => [],
      list: {
        item: lineSchema,
        keyOf: ({ id }: Line) => id,
        most: mostLines,
        twice: 'Two lines have the same id.',
      },
    },
  },
  commands: {
    'lines.add': {
      shape: {
        lines: z.array(askedLineSchema).min(1).max(mostLines, `At most ${mostLines} lines at once.`),
        beforeId: idSchema.nullable(),
        setupId: idSchema.optional(),
      },
      apply: (build, { lines, beforeId, setupId }) => addLines(build, lines, beforeId, setupId),
      describe: ({ lines }, _before, patch) => addedWords(lines.length, patch),
    },
    'lines.change': {
      shape: { changes: z.array(changeSchema).min(1).max(mostLines) },
      apply: (build, { changes }) => changeLines(build, changes),
      describe: (_command, before, patch) => changedWords(patch, before),
      asIn: (command, build) => ({
        ...command,
        changes: command.changes.map(change => {
          const line = build.lines.find(l => l.id === change.id)
          return line ? { ...change, fields: picked(line, change.fields) } : change
        }),
      }),
    },
    'line.weigh': {
      shape: { id: idSchema, mass: askedMassSchema, as: z.enum(weighedAs) },
      apply: weighLine,
      describe({ id, mass, as }, before, patch) {
        const quantity = before.lines.find(line => line.id === id)?.quantity ?? 1
        return weighedWords(as === 'further' ? weighedGrams(mass, quantity) : null, id, patch, before)
      },
    },
    'weighings.correct': {
      shape: {
        corrections: z
          .array(z.strictObject({ id: idSchema, versionId: idSchema, mass: askedMassSchema }))
          .min(1)
          .max(mostLines),
      },
      apply: correctWeighings,
      describe: ({ corrections: { length } }) =>
        told(`Corrected ${length} ${length === 1 ? 'weighing' : 'weighings'} by a later check`),
    },
    'line.another': {
      shape: { id: idSchema, versionId: idSchema, was: askedMassSchema },
      apply: sayAnother,
      describe: ({ id }, before) => told(`${nameOf(before, id)}: another part than before`),
    },
    'line.same': {
      shape: { id: idSchema, was: askedMassSchema },
      apply: saySame,
      describe: ({ id }, before) => told(`${nameOf(before, id)}: the same piece as before`),
    },
    'line.takeOut': {
      shape: { id: idSchema, line: askedLineSchema, versionId: idSchema },
      apply: takeOut,
      describe: ({ id, line }, before) => told(takenOutWords(line, nameOf(before, id))),
    },
    'lines.move': {
      shape: { ids: idsSchema, beforeId: idSchema.nullable() },
      apply: (build, { ids, beforeId }) => moveLines(build, ids, beforeId),
      describe: ({ ids }, before) =>
        told(ids.length === 1 ? `Moved ${nameOf(before, ids[0]!)}` : `Moved ${ids.length} lines`),
    },
    'lines.delete': {
      shape: { ids: idsSchema },
      apply: (build, { ids }, references) => deleteLines(build, ids, references),
      describe: ({ ids }, _before, patch) => deletedWords(ids.length, patch),
    },
    'line.fit': {
      shape: { id: idSchema },
      apply: (build, { id }, references) => fitInstead(build, id, references),
      describe: ({ id }, _before, patch) => fittedWords(id, patch),
    },
  },
  references: [
    // A feed whose output the new part has not stays as said, to be done, and is right again when the old part comes back.
    {
      to: 'lines',
      at: ['lines'],
      ids: ({ feed }: Line) => [feed?.from],
      follows: (line: Line, _replaced, by): Line =>
        line.id !== by.id &&
        line.feed &&
        (line.feed.output === '' || outputsOf(by).some(output => output.name === line.feed!.output))
          ? { ...line, feed: { ...line.feed, from: by.id } }
          : line,
      loses: (line: Line): Line => ({ ...line, feed: null }),
    },
    {
      to: 'lines',
      at: ['lines'],
      ids: ({ insteadOf }: Line) => [insteadOf],
      follows: (line: Line, _replaced, by): Line => ({ ...line, insteadOf: by.id }),
      loses: (line: Line): Line => ({ ...line, insteadOf: null }),
      missing: { sentence: 'A candidate stands for a line that is not there.', field: 'insteadOf' },
    },
  ],
  merging: {
    whole: ['mass', 'listing', 'feed', 'contributions', 'displaysG', 'patterns', 'outputs', 'bench', 'provides'],
    sets: ['pictureIds'],
  },
}

type Raw = Readonly<Record<string, unknown>>

/** Lines were once without properties, feeds, editions and weighings of their own; a pack that was made up then is asked about. */
function lineFromFirstVersion(line: Raw): Raw {
  const known = {
    ...(Object.hasOwn(line, 'edition') ? {} : { edition: 0, further: [] }),
    properties: null,
    partId: null,
    feed: null,
    ...line,
    mass: line.mass && massFromFirstVersion(line.mass as Raw),
  }
  return Object.hasOwn(line, 'packSoFar') ? known : (withPackAsked(known as unknown as PatchedLine) as unknown as Raw)
}

/** Lines were once without pictures. */
function lineFromSecondVersion(line: Raw): Raw {
  return { pictureIds: [], ...line }
}

function massFromFirstVersion(mass: Raw): Raw {
  return { weighing: null, ...mass }
}

function versionFromFirstVersion(version: Raw): Raw {
  return { ...version, mass: massFromFirstVersion(version.mass as Raw) }
}

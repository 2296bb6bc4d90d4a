import { z } from 'zod'
import { blankAim, type Aim, type Build, type ReferenceCraft } from '../../model/ledger'
import { changesOf, CommandRefused, joined, picked, told, type BuildSlice } from '../contract'
import { aimSchema, aimShape, headShape, referenceFromFirstVersion, referenceSchema } from './schema'

export * from './schema'

declare module '../../model/data/build' {
  interface Build {
    readonly name: string
    readonly craftClass: string
    readonly archived: boolean
    readonly reference: ReferenceCraft | null
    readonly aim: Aim
  }
}

/** The fields of a build that lie in no other slice. */
export type BuildFields = Partial<Pick<Build, 'name' | 'craftClass' | 'archived' | 'reference'>> & {
  aim?: Partial<Aim>
}
interface SetBuild {
  readonly type: 'build.set'
  readonly fields: BuildFields
}

/** A reference craft as it is asked for: an edit may have waited in a browser since an earlier version wrote it. */
const askedReferenceSchema = z.preprocess(referenceFromFirstVersion, referenceSchema.nullable())

/** What a build is called, what it is and what it is for. */
export const headSlice: BuildSlice<'name' | 'craftClass' | 'archived' | 'reference' | 'aim', SetBuild> = {
  name: 'head',
  title: 'Aim',
  version: 2,
  upcasts: [{ values: { reference: referenceFromFirstVersion } }],
  fields: {
    name: { kind: 'value', schema: headShape.name, blank: () => 'unnamed' },
    craftClass: { kind: 'value', schema: headShape.craftClass, blank: () => '' },
    archived: { kind: 'value', schema: headShape.archived, blank: () => false },
    reference: { kind: 'value', schema: headShape.reference, blank: () => null },
    aim: { kind: 'value', schema: aimSchema, blank: () => blankAim() },
  },
  commands: {
    'build.set': {
      shape: {
        fields: z
          .strictObject({ ...headShape, reference: askedReferenceSchema, aim: z.strictObject(aimShape).partial() })
          .partial(),
      },
      apply(build, { fields: { aim, ...fields } }) {
        if (fields.name !== undefined && fields.name.trim() === '')
          throw new CommandRefused('A build needs a name.', 'name')
        return { ...build, ...fields, ...(aim ? { aim: { ...build.aim, ...aim } } : {}) }
      },
      describe: ({ fields }, before) => told(fieldWords(fields, before)),
      asIn(command, build) {
        const { aim, ...fields } = command.fields
        return { ...command, fields: { ...picked(build, fields), ...(aim ? { aim: picked(build.aim, aim) } : {}) } }
      },
    },
  },
  references: [],
  merging: { sets: ['cardIds', 'places'] },
}

/** Where it is flown has a name of its own: the places of pieces are told under the same one. */
const aimTold = ({ places, ...others }: Partial<Aim>) => ({ ...others, ...(places ? { flownIn: places } : {}) })

function referenceWords(was: ReferenceCraft, is: ReferenceCraft): string {
  const pictures = is.pictureIds.length - was.pictureIds.length
  const figures = changesOf(omitted(was), omitted(is))
  return joined([
    ...figures,
    ...(is.note === was.note ? [] : [is.note === '' ? 'its note taken out' : 'its note']),
    ...(pictures === 0 ? [] : [pictures > 0 ? 'a picture added' : 'a picture taken out']),
  ])
}
const omitted = ({ note: _note, pictureIds: _pictureIds, ...figures }: ReferenceCraft) => figures

function fieldWords(fields: BuildFields, build: Build): string {
  if (fields.archived !== undefined) return fields.archived ? 'Put away' : 'Brought back to the shelf'
  if (fields.name !== undefined) return `Renamed the build to ${fields.name}`
  if (fields.aim) return `Aim: ${joined(changesOf(aimTold(picked(build.aim, fields.aim)), aimTold(fields.aim)))}`
  if (fields.craftClass !== undefined)
    return `Craft class ${build.craftClass || 'not said'} → ${fields.craftClass || 'not said'}`
  if (fields.reference && build.reference)
    return `Reference craft: ${referenceWords(build.reference, fields.reference)}`
  return fields.reference ? 'Is a reference craft' : 'Is no reference craft any more'
}

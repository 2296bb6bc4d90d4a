import { z } from 'zod'
import { blankAim, type Aim, type Build, type ReferenceCraft } from '../../model/ledger'
import { changesOf, CommandRefused, joined, picked, told, type BuildSlice } from '../contract'
import { aimSchema, aimShape, headShape } from './schema'

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

/** What a build is called, what it is and what it is for. */
export const headSlice: BuildSlice<'name' | 'craftClass' | 'archived' | 'reference' | 'aim', SetBuild> = {
  name: 'head',
  title: 'Aim',
  version: 1,
  upcasts: [],
  fields: {
    name: { kind: 'value', schema: headShape.name, blank: () => 'unnamed' },
    craftClass: { kind: 'value', schema: headShape.craftClass, blank: () => '' },
    archived: { kind: 'value', schema: headShape.archived, blank: () => false },
    reference: { kind: 'value', schema: headShape.reference, blank: () => null },
    aim: { kind: 'value', schema: aimSchema, blank: () => blankAim() },
  },
  commands: {
    'build.set': {
      shape: { fields: z.strictObject({ ...headShape, aim: z.strictObject(aimShape).partial() }).partial() },
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

function fieldWords(fields: BuildFields, build: Build): string {
  if (fields.archived !== undefined) return fields.archived ? 'Put away' : 'Brought back to the shelf'
  if (fields.name !== undefined) return `Renamed the build to ${fields.name}`
  if (fields.aim) return `Aim: ${joined(changesOf(picked(build.aim, fields.aim), fields.aim))}`
  if (fields.craftClass !== undefined)
    return `Craft class ${build.craftClass || 'not said'} → ${fields.craftClass || 'not said'}`
  return 'Build details changed'
}

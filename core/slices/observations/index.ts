import { z } from 'zod'
import { observationStates, slots, type Build, type Observation } from '../../model/ledger'
import { fixed } from '../../text/display'
import { idSchema, massGSchema, nameSchema, quantitySchema } from '../../text/schemas'
import { CommandRefused, joined, told, type BuildSlice, type Description } from '../contract'
import {
  contributionsSchema,
  displayedSchema,
  displaysSchema,
  lineShape,
  massSchema,
  momentSchema,
  mostLines,
  pictureIdsSchema,
} from '../lines'

declare module '../../model/data/build' {
  interface Build {
    /** Weighings of several lines together, in the order taken. */
    readonly observations: readonly Observation[]
  }
}

export const mostObservations = 200

export const observationSchema = z.strictObject({
  id: idSchema,
  title: nameSchema('The name of the weighing'),
  takenAt: momentSchema,
  scaleId: idSchema,
  scaleName: nameSchema('The scale’s name'),
  checkId: idSchema.nullable(),
  displaysG: displaysSchema,
  tareDisplayG: displayedSchema.nullable(),
  valueG: massGSchema,
  contributions: contributionsSchema,
  subjects: z
    .array(
      z.strictObject({
        id: idSchema,
        slot: z.enum(slots),
        quantity: quantitySchema,
        mass: massSchema.nullable(),
        edition: lineShape.edition.optional(),
      }),
    )
    .min(1, 'Say what is on the pan: at least one line.')
    .max(mostLines),
  state: z.enum(observationStates),
  pictureIds: pictureIdsSchema,
}) satisfies z.ZodType<Observation>

type Raw = Readonly<Record<string, unknown>>
/** Weighings were once without pictures. */
const fromFirstVersion = (observation: Raw): Raw => ({ pictureIds: [], ...observation })
/** A weighing as it is asked for: an edit may have waited in a browser since an earlier version wrote it. */
const askedObservationSchema = z.preprocess(
  asked => (typeof asked === 'object' && asked !== null ? fromFirstVersion(asked as Raw) : asked),
  observationSchema,
)

type ObservationCommand =
  | { readonly type: 'observation.put'; readonly observation: Observation }
  | { readonly type: 'observation.delete'; readonly id: string }

/** Weighings of several lines together. Their subjects say what was on the pan, whatever becomes of the lines. */
export const observationsSlice: BuildSlice<'observations', ObservationCommand> = {
  name: 'observations',
  title: 'Weighings together',
  version: 2,
  upcasts: [{ items: { observations: fromFirstVersion } }],
  fields: {
    observations: {
      kind: 'list',
      schema: z.array(observationSchema).max(mostObservations),
      blank: () => [],
      list: { item: observationSchema, keyOf: ({ id }: Observation) => id, most: mostObservations },
    },
  },
  commands: {
    'observation.put': {
      shape: { observation: askedObservationSchema },
      apply: (build, { observation }) => putObservation(build, observation),
      describe: ({ observation }, before) => observationWords(observation, before),
      asIn: (command, build) => ({
        ...command,
        observation: build.observations.find(o => o.id === command.observation.id) ?? command.observation,
      }),
    },
    'observation.delete': {
      shape: { id: idSchema },
      apply(build, { id }) {
        if (!build.observations.some(o => o.id === id))
          throw new CommandRefused('That weighing is no longer in this build.', 'id')
        return { ...build, observations: build.observations.filter(o => o.id !== id) }
      },
      describe: ({ id }, before) =>
        told(`Deleted the weighing “${before.observations.find(o => o.id === id)?.title ?? ''}”`),
    },
  },
  references: [],
  merging: { whole: ['contributions', 'subjects', 'displaysG'], sets: ['pictureIds'] },
}

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

function observationWords(observation: Observation, before: Build): Description {
  const { title, state } = observation
  const grams = `${fixed(observation.valueG, 2)} g`
  const was = before.observations.find(o => o.id === observation.id)
  if (!was) return told(`Weighed together: ${title}, ${grams}${state === 'held' ? ', held back' : ''}`)
  const pictures = observation.pictureIds.length - was.pictureIds.length
  const changes = [
    ...(state === was.state ? [] : [state]),
    ...(pictures === 0 ? [] : [pictures > 0 ? 'a picture added' : 'a picture taken out']),
  ]
  return told(`${title}, ${grams}: ${joined(changes.length > 0 ? changes : [state])}`)
}

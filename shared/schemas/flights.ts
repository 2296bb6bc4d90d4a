import { counted } from '../../core/text/display'
import { z } from 'zod'
import {
  findingKinds,
  landingCellV,
  lifeSlots,
  mostMinutes,
  type FlightFinding,
  type Flight,
  type FlightSnapshot,
  type Renewal,
  type SettingsRecord,
} from '../../core/aircraft/flown'
import { chemistries, styles } from '../../core/model/data'
import { pictureIdsSchema } from '../../core/slices/lines'
import { idSchema, nameSchema, noteSchema, shortTextSchema } from '../../core/text/schemas'

const number = (sentence: string, least: number, most: number) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence)

/** A local day and time, to the minute or second. */
export const localTimeSchema = z
  .string()
  .regex(
    /^\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])T(?:[01]\d|2[0-3]):[0-5]\d(?::[0-5]\d)?$/,
    'A day and time is written as in 2026-11-22T15:42.',
  )

export const snapshotSchema = z.strictObject({
  revision: z.int().nonnegative(),
  setupId: z.string().max(64),
  setup: shortTextSchema('The set-up'),
  packLineId: idSchema.nullable(),
  auwG: number('The weight is from 0 to 10,000 g.', 0, 10_000),
  sigmaG: number('Its doubt is from 0 to 10,000 g.', 0, 10_000),
  altitudeM: number('The altitude is from −500 to 9000 m.', -500, 9000),
  temperatureC: number('The temperature is from −40 to 60 °C.', -40, 60),
  parts: z
    .array(z.strictObject({ key: z.string().min(1).max(160), slot: z.enum(lifeSlots), name: z.string().max(200) }))
    .max(60),
  pack: z
    .strictObject({
      key: z.string().min(1).max(140),
      label: shortTextSchema('The pack'),
      cells: z.int().min(1).max(14),
      chemistry: z.enum(chemistries),
      capacityMah: number('The capacity is from 1 to 100,000 mAh.', 1, 100_000),
      cellMohm: number('The resistance is from 0 to 10,000 mΩ.', 0, 10_000),
      resistanceFrom: z.enum(['measured', 'assumed']),
      startCharge: number('The charge is from 0 to 1.', 0, 1),
    })
    .nullable(),
  craft: z
    .strictObject({
      idealW: number('The power is above 0 W.', 1e-6, 100_000),
      avionicsW: number('The devices draw from 0 to 10,000 W.', 0, 10_000),
      efficiency: number('The efficiency is from 0.05 to 1.', 0.05, 1),
      drive: z.string().max(2000),
      reservePercent: number('The reserve is from 0 to 100 %.', 0, 100),
      endCellV: number('The end of a flight is from 0 to 5 V a cell.', 0, 5),
    })
    .nullable(),
}) satisfies z.ZodType<FlightSnapshot>

/** The most flights of one build, and the most findings. Our choice: ten a day for years. */
export const mostFlights = 20_000

const minutesWords = `A flight lasts from one second to ${mostMinutes} minutes.`
const landingShape = z.strictObject({
  volts: number('Landing volts are from 0 to 70 V.', 0, 70),
  of: z.enum(['pack', 'cell']),
  loadA: number('Amps under load are from 0 to 500 A.', 0, 500).nullable(),
  isFresh: z.boolean(),
})

/** What is wrong with landing volts: said of one cell, whatever was typed. Null where nothing is. */
export function landingProblem(landing: Flight['landing'], cells: number | undefined): string | null {
  if (!landing) return null
  const { volts, of } = landing
  const cellV = of === 'cell' ? volts : cells === undefined ? null : volts / cells
  if (cellV === null || (cellV >= landingCellV.least && cellV <= landingCellV.most)) return null
  const what = of === 'cell' ? `${volts} V a cell` : `${volts} V on ${cells} ${cells === 1 ? 'cell' : 'cells'}`
  return `${what} cannot be: a cell lands between ${landingCellV.least} and ${landingCellV.most} V.`
}

export const flightSchema = z
  .strictObject({
    id: idSchema,
    buildId: idSchema,
    flownAt: localTimeSchema,
    style: z.enum(styles),
    durationS: number(minutesWords, 1, mostMinutes * 60),
    stepS: number('The step of the time is from 0 to 600 s.', 0, 600),
    firstWarningS: number('The first warning comes within the flight.', 0, mostMinutes * 60).nullable(),
    landing: landingShape.nullable(),
    putBackMah: number('mAh put back are from 1 to 100,000.', 1, 100_000).nullable(),
    loggedMah: number('mAh used are from 1 to 100,000.', 1, 100_000).nullable(),
    resistance: z
      .strictObject({
        mohm: number('The resistance is from 0.1 to 10,000 mΩ.', 0.1, 10_000),
        uMohm: number('Its doubt is from 0 to 10,000 mΩ.', 0, 10_000),
      })
      .nullable(),
    logId: idSchema.nullable(),
    windMps: number('The wind is from 0 to 60 m/s.', 0, 60).nullable(),
    airC: number('The air is from −40 to 60 °C.', -40, 60).nullable(),
    place: shortTextSchema('The place'),
    note: noteSchema,
    isTakenIn: z.boolean(),
    snapshot: snapshotSchema,
  })
  .superRefine((flight, context) => {
    const cells = flight.snapshot.pack?.cells
    const problem = landingProblem(flight.landing, cells)
    if (problem) context.addIssue({ code: 'custom', path: ['landing'], message: problem })
    if (flight.firstWarningS !== null && flight.firstWarningS > flight.durationS)
      context.addIssue({
        code: 'custom',
        path: ['firstWarningS'],
        message: 'The first warning comes within the flight.',
      })
    const capacity = flight.snapshot.pack?.capacityMah
    for (const field of ['putBackMah', 'loggedMah'] as const) {
      const mah = flight[field]
      if (capacity !== undefined && mah !== null && mah > 1.5 * capacity)
        context.addIssue({
          code: 'custom',
          path: [field],
          message: `${mah} mAh is far more than the ${capacity} mAh this pack holds.`,
        })
    }
  }) satisfies z.ZodType<Flight>

const triedSchema = z.strictObject({
  id: idSchema,
  at: localTimeSchema,
  what: nameSchema('What was changed'),
  /** Entry of the build's journal it stands for. */
  revision: z.int().nonnegative().nullable(),
})

export const findingSchema = z.strictObject({
  id: idSchema,
  buildId: idSchema,
  flightId: idSchema.nullable(),
  foundAt: localTimeSchema,
  kind: z.enum(findingKinds),
  severity: z.int('How bad is from 0 to 3.').min(0, 'How bad is from 0 to 3.').max(3, 'How bad is from 0 to 3.'),
  distanceM: number('The distance is from 0 to 50,000 m.', 0, 50_000).nullable(),
  atS: number('The time into the flight is from 0 to 180 minutes.', 0, mostMinutes * 60).nullable(),
  suspectLineId: idSchema.nullable(),
  suspect: shortTextSchema('The suspected part'),
  damagedLineIds: z.array(idSchema).max(200),
  note: noteSchema,
  lesson: noteSchema,
  tried: z.array(triedSchema).max(50, 'At most 50 things tried.'),
  goneAt: localTimeSchema.nullable(),
  pictureIds: pictureIdsSchema,
}) satisfies z.ZodType<FlightFinding>

/** A new part in the place of an old one. */
export const renewalSchema = z.strictObject({
  id: idSchema,
  buildId: idSchema,
  key: z.string().min(1).max(160),
  at: localTimeSchema,
}) satisfies z.ZodType<Renewal>

/** The longest configuration text, characters. Our choice: many times what a flight controller writes out. */
export const mostSettingsText = 400_000
/** The most records of settings of one build. Our choice. */
export const mostSettings = 200
export const settingsRecordSchema = z.strictObject({
  id: idSchema,
  buildId: idSchema,
  name: nameSchema('The name'),
  at: localTimeSchema,
  revision: z.int().nonnegative(),
  firmware: z
    .array(z.strictObject({ device: nameSchema('The device'), version: shortTextSchema('The version') }))
    .max(20, 'At most 20 devices.'),
  text: z.string().max(mostSettingsText, `A configuration has at most ${counted(mostSettingsText)} characters.`),
}) satisfies z.ZodType<SettingsRecord>

const learntSchema = z.strictObject({ value: z.number(), u: z.number(), flights: z.int() })
const packLearntSchema = z.strictObject({
  usable: learntSchema.nullable(),
  resistance: learntSchema.nullable(),
  resistanceAtFirst: learntSchema.nullable(),
})
const datumSchema = z.strictObject({
  source: z.enum(['put back', 'logged', 'landing volts', 'assumed']),
  mah: z.number(),
  uMah: z.number(),
})
const bandSchema = z.strictObject({
  low: z.number(),
  sureLow: z.number(),
  middle: z.number(),
  sureHigh: z.number(),
  high: z.number(),
})

/** Flights and findings of a build, with what all flights say of them. */
export const flightsReplySchema = z.strictObject({
  flights: z.array(flightSchema),
  /** Flights that lie there and cannot be read. */
  unreadable: z.int(),
  findings: z.array(findingSchema),
  renewals: z.array(renewalSchema),
  /** Without their texts: each is asked for when it is looked at. */
  settings: z.array(settingsRecordSchema),
  /** What the parts of the build have flown, on whichever craft. */
  lives: z.array(
    z.strictObject({
      key: z.string(),
      slot: z.enum(lifeSlots),
      name: z.string(),
      flights: z.int(),
      minutes: z.number(),
      firstAt: z.string(),
      lastAt: z.string(),
      buildIds: z.array(idSchema),
      retiredAt: z.string().nullable(),
    }),
  ),
  worked: z.array(
    z.strictObject({
      id: idSchema,
      used: z
        .strictObject({ mah: z.number(), uMah: z.number(), from: z.array(datumSchema), against: z.array(datumSchema) })
        .nullable(),
      left: z.number().nullable(),
      powerW: z.number().nullable(),
      toReserve: z.number().nullable(),
      expected: bandSchema.nullable(),
      z: z.number().nullable(),
      held: z.enum(['no power fits', 'less than the devices', 'does not agree']).nullable(),
    }),
  ),
  /** Held flights that agree among themselves. */
  offered: z.array(z.array(idSchema)),
  /** Mean power of the flights of every build that has flown, W: the middle one, and how many there are. */
  powers: z.array(
    z.strictObject({
      buildId: idSchema,
      name: z.string(),
      medianW: z.number(),
      lowW: z.number(),
      highW: z.number(),
      flights: z.int(),
    }),
  ),
  lessons: z.strictObject({
    buildId: idSchema,
    said: z.array(
      z.strictObject({
        buildId: idSchema,
        drive: z.string(),
        style: z.enum(styles),
        efficiency: z.number(),
        lnKappa: z.number(),
        u: z.number(),
        flights: z.int(),
      }),
    ),
    packs: z.record(z.string(), packLearntSchema),
  }),
})
export type FlightsReply = z.infer<typeof flightsReplySchema>

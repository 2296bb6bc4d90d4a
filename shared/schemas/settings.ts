import { z } from 'zod'
import { lifeSlots } from '../../core/aircraft/flown'
import { polarisations } from '../../core/model/properties'
import { hands } from '../../core/model/data'
import { dayOrders } from '../../core/text/display'
import { scaleAddressSchema } from './bench-scale'
import type { Settings } from '../settings'

export const settingsSchema = z.strictObject({
  currency: z
    .string()
    .trim()
    .min(1, 'Say which currency, such as € or kr.')
    .max(6, 'A currency sign has at most 6 characters.'),
  theme: z.enum(['system', 'light', 'dark']),
  ounces: z.boolean(),
  decimal: z.enum(['point', 'comma']),
  days: z.enum(dayOrders),
  firstWeekday: z.enum(['monday', 'sunday', 'saturday']),
  confidence: z.number().min(0.5, 'Confidence is at least 50 %.').max(0.9999, 'Confidence is at most 99.99 %.'),
  singleKeys: z.boolean(),
  benchScale: scaleAddressSchema,
  networkNames: z
    .string()
    .trim()
    .max(200)
    .regex(
      /^(?:[a-z0-9][a-z0-9.-]{0,62}(?: |$)){0,8}$/i,
      'Names have letters, digits, dots and dashes, with a blank between two.',
    ),
  hand: z.enum(hands),
  gear: z.strictObject({
    radioFamily: z.string().max(80),
    videoFamily: z.string().max(80),
    polarisation: z.enum(['', ...polarisations]),
    chargerCells: z
      .int('Cells are a whole number.')
      .min(1, 'A charger does at least one cell.')
      .max(14, 'At most 14 cells.')
      .nullable(),
    chargerPlugs: z.string().max(200, 'The charger’s plugs are at most 200 characters.'),
  }),
  lifeLimits: z
    .partialRecord(
      z.enum(lifeSlots),
      z.int('Flights are a whole number.').min(1, 'At least one flight.').max(100_000, 'At most 100,000 flights.'),
    )
    .default({}),
  automaticCopies: z.boolean().default(true),
}) satisfies z.ZodType<Settings>

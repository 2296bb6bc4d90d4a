import { z } from 'zod'
import { scaleAddressSchema } from './bench-scale'
import type { Settings } from '../settings'

export const settingsSchema = z.strictObject({
  currency: z.string().trim().min(1, 'Say which currency, such as € or kr.').max(6, 'A currency sign has at most 6 characters.'),
  theme: z.enum(['system', 'light', 'dark']),
  ounces: z.boolean(),
  confidence: z.number().min(0.5, 'Confidence is at least 50 %.').max(0.9999, 'Confidence is at most 99.99 %.'),
  singleKeys: z.boolean(),
  benchScale: scaleAddressSchema,
}) satisfies z.ZodType<Settings>

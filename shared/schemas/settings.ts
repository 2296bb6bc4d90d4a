import { z } from 'zod'

export const settingsSchema = z.strictObject({
  currency: z.string().trim().min(1, 'Say which currency, such as € or kr.').max(6, 'A currency sign has at most 6 characters.'),
  theme: z.enum(['system', 'light', 'dark']),
  ounces: z.boolean(),
  confidence: z.number().min(0.5, 'Confidence is at least 50 %.').max(0.9999, 'Confidence is at most 99.99 %.'),
  singleKeys: z.boolean(),
})
export type Settings = z.infer<typeof settingsSchema>

export const defaultSettings: Settings = { currency: '€', theme: 'system', ounces: false, confidence: 0.95, singleKeys: true }

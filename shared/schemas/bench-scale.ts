import { z } from 'zod'

/** How the line to the bench scale stands. */
export const benchStates = ['off', 'connecting', 'connected', 'silent', 'gone', 'not understood'] as const
export const benchStateSchema = z.strictObject({
  state: z.enum(benchStates),
  address: z.string(),
  sentence: z.string(),
})
export type BenchState = z.infer<typeof benchStateSchema>

/** Readings that came together, oldest first; `ageMs` is how long before the message each came. */
export const benchReadingsSchema = z.strictObject({
  readings: z.array(
    z.strictObject({
      massG: z.number().nullable(),
      stepG: z.number(),
      marked: z.enum(['stable', 'unstable']).nullable(),
      overload: z.boolean(),
      ageMs: z.number(),
    }),
  ),
  /** Lines so far that were no readings. */
  garbage: z.int(),
})
export type BenchReadings = z.infer<typeof benchReadingsSchema>

/** `host:port` of a scale on the network; empty for none. */
export const scaleAddressSchema = z
  .string()
  .trim()
  .max(260)
  .regex(
    /^$|^([A-Za-z0-9.-]+|\[[0-9A-Fa-f:]+\]):([1-9]\d{0,4})$/,
    'A scale’s address is written host:port, such as 127.0.0.1:4305.',
  )
  .refine(text => text === '' || Number(text.slice(text.lastIndexOf(':') + 1)) <= 65_535, 'A port is at most 65535.')

/** What lies on the pan of the practice scale, and which dialect it speaks. */
export const practicePanSchema = z.strictObject({
  masses: z.array(z.strictObject({ name: z.string().max(120), massG: z.number().min(0).max(20_000) })).max(60),
  dialect: z.enum(['letters', 'commas', 'plain']).optional(),
})

import { z } from 'zod'

/** Says that the server is up and that its data can be read. */
export default jsonRoute(z.strictObject({ up: z.literal(true) }), (_event, app) => {
  app.look()
  return { up: true as const }
})

import { z } from 'zod'

/** Ends this device’s session, on the server too, and every stream that is open under it. */
export default jsonRoute(z.strictObject({ signedOut: z.literal(true) }), async event => {
  if (event.context.sessionId) await clearUserSession(event)
  return { signedOut: true as const }
})

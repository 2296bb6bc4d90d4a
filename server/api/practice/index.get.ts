import { z } from 'zod'

/** Whether a stand-in scale runs beside the application (the demo starts one). */
export default jsonRoute(z.strictObject({ available: z.boolean() }), () => ({ available: practiceAddress() !== null }))

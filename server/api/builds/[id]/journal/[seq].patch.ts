import { z } from 'zod'
import { noteSchema } from '../../../../../core/text/schemas'

export default jsonRoute(z.strictObject({ ok: z.literal(true) }), async (event, app) => {
  const { note } = await bodyOf(event, z.strictObject({ note: noteSchema }))
  await app.builds.annotate(idParameter(event), Number(getRouterParam(event, 'seq')), note)
  return { ok: true as const }
})

import { z } from 'zod'
import { noteSchema } from '../../../../../core/text/schemas'
import { markSchema } from '../../../../../shared/schemas/journal'

/** Says why an entry was made, or gives its moment a name. */
export default jsonRoute(z.strictObject({ ok: z.literal(true) }), async (event, app) => {
  const said = await bodyOf(
    event,
    z.union([z.strictObject({ note: noteSchema }), z.strictObject({ mark: markSchema })]),
  )
  const [id, seq] = [idParameter(event), seqParameter(event)]
  if ('note' in said) await app.builds.annotate(id, seq, said.note)
  else await app.builds.mark(id, seq, said.mark)
  return { ok: true as const }
})

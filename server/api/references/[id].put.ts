import { idReplySchema } from '../../../shared/schemas/api'
import { referenceFieldsSchema } from '../../../shared/schemas/scales'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  await keepOne(app, 'scales', { kind: 'reference', id, set: await bodyOf(event, referenceFieldsSchema) })
  return { id }
})

import { idReplySchema } from '../../../shared/schemas/api'
import { scaleFieldsSchema } from '../../../shared/schemas/scales'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  await keepOne(app, 'scales', { kind: 'scale', id, set: await bodyOf(event, scaleFieldsSchema) })
  return { id }
})

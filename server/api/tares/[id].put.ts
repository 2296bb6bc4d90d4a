import { idReplySchema } from '../../../shared/schemas/api'
import { tareFieldsSchema } from '../../../shared/schemas/scales'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  await keepOne(app, 'scales', { kind: 'tare', id, set: await bodyOf(event, tareFieldsSchema) })
  return { id }
})

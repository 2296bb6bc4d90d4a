import { newBuildReplySchema } from '../../../shared/schemas/api'
import { referenceFieldsSchema } from '../../../shared/schemas/scales'

export default jsonRoute(newBuildReplySchema, async (event, app) => {
  const id = idParameter(event)
  app.scales.putReference(id, await bodyOf(event, referenceFieldsSchema))
  return { id }
})

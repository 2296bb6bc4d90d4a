import { newBuildReplySchema } from '../../../shared/schemas/api'
import { tareFieldsSchema } from '../../../shared/schemas/scales'

export default jsonRoute(newBuildReplySchema, async (event, app) => {
  const id = idParameter(event)
  app.scales.addTare({ id, ...await bodyOf(event, tareFieldsSchema) })
  return { id }
})

import { newBuildReplySchema } from '../../../shared/schemas/api'
import { scaleFieldsSchema } from '../../../shared/schemas/scales'

export default jsonRoute(newBuildReplySchema, async (event, app) => {
  const id = idParameter(event)
  app.scales.putScale(id, await bodyOf(event, scaleFieldsSchema))
  return { id }
})

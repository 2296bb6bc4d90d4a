import { newBuildReplySchema } from '../../../shared/schemas/api'
import { ownCardSchema } from '../../../shared/schemas/rule-card'

export default jsonRoute(newBuildReplySchema, async (event, app) => {
  const id = idParameter(event)
  app.rules.change(id, await bodyOf(event, ownCardSchema))
  return { id }
})

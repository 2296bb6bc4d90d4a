import { newBuildReplySchema } from '../../../../shared/schemas/api'
import { verifiedSchema } from '../../../../shared/schemas/rule-card'

export default jsonRoute(newBuildReplySchema, async (event, app) => {
  const id = idParameter(event)
  app.rules.verify(id, (await bodyOf(event, verifiedSchema)).verifiedOn)
  return { id }
})

import { newBuildReplySchema } from '../../../shared/schemas/api'

export default jsonRoute(newBuildReplySchema, (event, app) => {
  const id = idParameter(event)
  app.scales.removeTare(id)
  return { id }
})

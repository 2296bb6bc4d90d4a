import { newBuildReplySchema, newBuildSchema } from '../../../shared/schemas/api'

export default jsonRoute(newBuildReplySchema, async (event, app) => ({
  id: await app.newBuilds.start(await bodyOf(event, newBuildSchema)),
}))

import { idReplySchema, newBuildSchema } from '../../../shared/schemas/api'

export default jsonRoute(idReplySchema, async (event, app) => ({
  id: await app.newBuilds.start(await bodyOf(event, newBuildSchema)),
}))

import { newBuildReplySchema } from '../../../shared/schemas/api'

export default jsonRoute(newBuildReplySchema, async (event, app) => ({ id: await app.files.importBuild(await bodyText(event)) }))

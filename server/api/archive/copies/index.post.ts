import { copyReplySchema } from '../../../../shared/schemas/archive'

/** Makes a copy now. */
export default jsonRoute(copyReplySchema, async (_event, app) => ({ copy: await app.archive.makeCopy() }))

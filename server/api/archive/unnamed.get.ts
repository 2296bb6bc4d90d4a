import { unnamedReplySchema } from '../../../shared/schemas/archive'

/** What no row names any more, told before anything is cleared away. */
export default jsonRoute(unnamedReplySchema, async (_event, app) => filesTold(await app.archive.unnamed()))

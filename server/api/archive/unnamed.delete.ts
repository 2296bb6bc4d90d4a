import { unnamedReplySchema } from '../../../shared/schemas/archive'

/** Clears away what no row names any more. */
export default jsonRoute(unnamedReplySchema, async (_event, app) => filesTold(await app.archive.clearUnnamed()))

import { idReplySchema } from '../../../shared/schemas/api'

/** Brings a build file in; with `?without=journal` without its history. */
export default jsonRoute(idReplySchema, async (event, app) => ({
  id: await app.files.importBuild(await fileText(event), { withoutJournal: getQuery(event).without === 'journal' }),
}))

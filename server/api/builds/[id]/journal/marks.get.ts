import { journalReplySchema } from '../../../../../shared/schemas/api'

/** The moments of the journal that the builder has given a name. */
export default jsonRoute(journalReplySchema, (event, app) => app.builds.marks(idParameter(event)))

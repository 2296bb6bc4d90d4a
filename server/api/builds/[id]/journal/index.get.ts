import { journalReplySchema } from '../../../../../shared/schemas/api'

export default jsonRoute(journalReplySchema, (event, app) => app.builds.journal(idParameter(event)))

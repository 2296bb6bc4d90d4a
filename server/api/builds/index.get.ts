import { shelfReplySchema } from '../../../shared/schemas/api'

export default jsonRoute(shelfReplySchema, (_event, app) => app.builds.shelfInTurns())

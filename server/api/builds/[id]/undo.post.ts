import { commandReplySchema } from '../../../../shared/schemas/api'

export default jsonRoute(commandReplySchema, (event, app) =>
  app.builds.undo(idParameter(event), revisionSeen(event), keyOf(event)),
)

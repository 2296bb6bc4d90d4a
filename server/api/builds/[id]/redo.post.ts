import { commandReplySchema } from '../../../../shared/schemas/api'

export default jsonRoute(commandReplySchema, (event, app) =>
  app.builds.redo(idParameter(event), revisionSeen(event), keyOf(event)),
)

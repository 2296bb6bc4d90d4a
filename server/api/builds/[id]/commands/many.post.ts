import { commandsReplySchema } from '../../../../../shared/schemas/api'
import { commandsRequestSchema } from '../../../../../shared/schemas/command'

/** Several commands that waited together: one after another, in one commit, all of them or none. */
export default jsonRoute(commandsReplySchema, async (event, app) => {
  const seen = revisionSeen(event)
  const { commands } = await bodyOf(event, commandsRequestSchema)
  return app.builds.commands(idParameter(event), seen, commands)
})

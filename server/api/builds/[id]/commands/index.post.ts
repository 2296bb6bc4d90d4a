import { commandReplySchema } from '../../../../../shared/schemas/api'
import { commandRequestSchema } from '../../../../../shared/schemas/command'

export default jsonRoute(commandReplySchema, async (event, app) => {
  const seen = revisionSeen(event)
  const { command, note, key } = await bodyOf(event, commandRequestSchema)
  return app.builds.command(idParameter(event), seen, command, note, key)
})

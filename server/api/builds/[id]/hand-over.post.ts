import { commandReplySchema } from '../../../../shared/schemas/api'
import { handOverRequestSchema } from '../../../../shared/schemas/drawer'

/** Moves lines to another build or into the drawer. */
export default jsonRoute(commandReplySchema, async (event, app) => {
  const seen = revisionSeen(event)
  return app.builds.handOver(idParameter(event), seen, await bodyOf(event, handOverRequestSchema))
})

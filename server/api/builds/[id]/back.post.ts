import { commandReplySchema, goBackSchema } from '../../../../shared/schemas/api'

/** Makes the build, or some of its lines, what it was after an entry of its journal. */
export default jsonRoute(commandReplySchema, async (event, app) => {
  const { seq, lineIds } = await bodyOf(event, goBackSchema)
  return app.builds.goBack(idParameter(event), revisionSeen(event), seq, lineIds, keyOf(event))
})

import { idReplySchema, rescueSchema } from '../../../../shared/schemas/api'

/** For a build that cannot be read: puts it away, brings it back, or takes its last entry back. */
export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  await app.builds.rescue(id, (await bodyOf(event, rescueSchema)).what)
  return { id }
})

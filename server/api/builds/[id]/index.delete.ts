import { idReplySchema } from '../../../../shared/schemas/api'

/** Deletes a build that was put away, for good, with its photos. */
export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  await app.builds.remove(id)
  await app.photos.removeAll(id)
  return { id }
})

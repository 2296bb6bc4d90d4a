import { idReplySchema } from '../../../../shared/schemas/api'
import type { Application } from '../../../services/application'

/** A build that cannot be read is deleted all the same; its pictures stay. */
function picturesOf(id: string, app: Application): readonly string[] {
  try {
    const { findings } = app.flights.keptOf(id)
    const { lines, observations, reference } = app.builds.read(id).build
    return [...lines, ...observations, ...findings, ...(reference ? [reference] : [])].flatMap(
      ({ pictureIds }) => pictureIds,
    )
  } catch {
    return []
  }
}

/** Deletes a build that was put away, for good, with its photos and logs, and the pictures of its parts that nothing else names. */
export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  const pictures = picturesOf(id, app)
  const logs = app.flights.logsOf(id)
  await app.builds.remove(id)
  await app.photos.removeAll(id)
  await app.pictures.removeUnnamed(pictures)
  await app.logs.remove(logs)
  return { id }
})

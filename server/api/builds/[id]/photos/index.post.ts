import { mostBodyBytes } from '../../../../network/origin'
import { photoTakenSchema } from '../../../../../core/slices/assembly'

export default jsonRoute(photoTakenSchema, async (event, app) => {
  const buildId = idParameter(event)
  app.builds.read(buildId)
  return { id: await app.photos.keep(buildId, await bodyBytes(event, mostBodyBytes, tooLarge.photo)) }
})

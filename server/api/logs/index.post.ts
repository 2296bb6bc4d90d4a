import { photoTakenSchema } from '../../../core/slices/assembly'
import { mostLogBytes } from '../../../shared/files/largest'

/** Keeps the compressed log of a flight; which flight it is of is said by the flight. */
export default jsonRoute(photoTakenSchema, async (event, app) => ({
  id: await app.logs.keep(await bodyBytes(event, mostLogBytes, tooLarge.log)),
}))

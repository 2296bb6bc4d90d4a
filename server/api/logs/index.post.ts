import { photoTakenSchema } from '../../../core/slices/assembly'
import { mostBodyBytes } from '../../network/origin'

/** Keeps the compressed log of a flight; which flight it is of is said by the flight. */
export default jsonRoute(photoTakenSchema, async (event, app) => ({
  id: await app.logs.keep(await bodyBytes(event, mostBodyBytes, tooLarge.log)),
}))

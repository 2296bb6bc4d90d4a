import { mostBodyBytes } from '../../network/origin'
import { photoTakenSchema } from '../../../core/slices/assembly'

/** Takes a picture of a part in; which part it shows is said by the part. */
export default jsonRoute(photoTakenSchema, async (event, app) => ({
  id: await app.pictures.keep(await bodyBytes(event, mostBodyBytes, tooLarge.photo)),
}))

import { countSchema, partsRequestSchema } from '../../../shared/schemas/drawer'

/** Puts parts into the drawer or changes them. */
export default jsonRoute(countSchema, async (event, app) => ({ count: await app.parts.put((await bodyOf(event, partsRequestSchema)).parts) }))

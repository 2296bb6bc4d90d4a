import { countSchema, partRowsRequestSchema } from '../../../shared/schemas/drawer'

/** Puts the rows of a list into the drawer, each as a part of its own. */
export default jsonRoute(countSchema, async (event, app) => ({ count: await app.parts.bringIn((await bodyOf(event, partRowsRequestSchema)).rows) }))

import { countSchema, partIdsSchema } from '../../../shared/schemas/drawer'

export default jsonRoute(countSchema, async (event, app) => ({ count: await app.parts.remove((await bodyOf(event, partIdsSchema)).ids) }))

import { countSchema, kitRequestSchema } from '../../../shared/schemas/drawer'

export default jsonRoute(countSchema, async (event, app) => {
  const { kit, parts } = await bodyOf(event, kitRequestSchema)
  return { count: await app.parts.putKit({ ...kit, id: idParameter(event) }, parts) }
})

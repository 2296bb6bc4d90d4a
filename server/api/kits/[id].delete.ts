import { countSchema } from '../../../shared/schemas/drawer'

export default jsonRoute(countSchema, async (event, app) => {
  await app.parts.removeKit(idParameter(event))
  return { count: 1 }
})

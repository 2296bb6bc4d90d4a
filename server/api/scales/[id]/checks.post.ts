import { newBuildReplySchema } from '../../../../shared/schemas/api'
import { checkFieldsSchema } from '../../../../shared/schemas/scales'

export default jsonRoute(newBuildReplySchema, async (event, app) => {
  const { takenAt, placings } = await bodyOf(event, checkFieldsSchema)
  const id = app.newId()
  app.scales.addCheck(id, idParameter(event), takenAt, placings)
  return { id }
})

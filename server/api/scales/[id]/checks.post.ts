import { idReplySchema } from '../../../../shared/schemas/api'
import { checkFieldsSchema } from '../../../../shared/schemas/scales'

export default jsonRoute(idReplySchema, async (event, app) => {
  const fields = await bodyOf(event, checkFieldsSchema)
  const id = app.newId()
  await keepOne(app, 'scales', { kind: 'check', id, seen: null, set: { ...fields, scaleId: idParameter(event) } })
  return { id }
})

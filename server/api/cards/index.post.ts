import { idReplySchema } from '../../../shared/schemas/api'
import { ownCardSchema } from '../../../shared/schemas/rule-card'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = app.newId()
  await keepOne(app, 'rules', { kind: 'card', id, seen: null, set: await bodyOf(event, ownCardSchema) })
  return { id }
})

import { idReplySchema } from '../../../../shared/schemas/api'
import { verifiedSchema } from '../../../../shared/schemas/rule-card'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  await keepOne(app, 'rules', { kind: 'verified', id, set: await bodyOf(event, verifiedSchema) })
  return { id }
})

import { idReplySchema } from '../../../shared/schemas/api'
import { ownCardSchema } from '../../../shared/schemas/rule-card'
import { DomainProblem } from '../../problems'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  const set = await bodyOf(event, ownCardSchema)
  const card = app.rules.cards().find(c => c.id === id)
  if (!card) throw new DomainProblem('not-found', 'There is no such rule card.')
  if (!card.own) throw new DomainProblem('refused', 'The starting cards stay as they are. Make a copy and edit that.')
  await keepOne(app, 'rules', { kind: 'card', id, set })
  return { id }
})

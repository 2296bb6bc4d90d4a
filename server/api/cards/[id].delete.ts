import { idReplySchema } from '../../../shared/schemas/api'
import { DomainProblem } from '../../problems'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  const card = app.rules.cards().find(c => c.id === id)
  if (!card) throw new DomainProblem('not-found', 'There is no such rule card.')
  if (!card.own) throw new DomainProblem('refused', 'The starting cards stay. Only your own cards can be deleted.')
  await keepOne(app, 'rules', { kind: 'card', id, set: null })
  return { id }
})

import { idReplySchema } from '../../../shared/schemas/api'
import { DomainProblem } from '../../problems'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  if (!app.scales.all().tares.some(kept => kept.id === id))
    throw new DomainProblem('not-found', 'There is no such tray.')
  await keepOne(app, 'scales', { kind: 'tare', id, set: null })
  return { id }
})

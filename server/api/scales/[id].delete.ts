import { idReplySchema } from '../../../shared/schemas/api'
import { DomainProblem } from '../../problems'

export default jsonRoute(idReplySchema, async (event, app) => {
  const id = idParameter(event)
  if (!app.scales.all().scales.some(kept => kept.id === id))
    throw new DomainProblem('not-found', 'There is no such scale here.')
  await keepOne(app, 'scales', { kind: 'scale', id, set: null })
  return { id }
})

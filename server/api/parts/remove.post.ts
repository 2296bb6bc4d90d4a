import { countSchema, partIdsSchema } from '../../../shared/schemas/drawer'
import { DomainProblem } from '../../problems'

export default jsonRoute(countSchema, async (event, app) => {
  const { ids } = await bodyOf(event, partIdsSchema)
  if (ids.some(id => !app.parts.one(id))) throw new DomainProblem('not-found', 'There is no such part in the drawer.')
  await keepOne(app, 'drawer', ...ids.map(id => ({ kind: 'part' as const, id, set: null })))
  return { count: ids.length }
})

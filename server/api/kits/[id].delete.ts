import { countSchema } from '../../../shared/schemas/drawer'
import { DomainProblem } from '../../problems'

/** The pieces stay; they only no longer say where they came from. */
export default jsonRoute(countSchema, async (event, app) => {
  const id = idParameter(event)
  if (!app.parts.kit(id)) throw new DomainProblem('not-found', 'There is no such kit.')
  await keepOne(app, 'drawer', { kind: 'kit', id, set: null })
  return { count: 1 }
})

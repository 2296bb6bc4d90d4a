import { templatesSchema } from '../../../core/slices/assembly'
import { DomainProblem } from '../../problems'

export default jsonRoute(templatesSchema, async (event, app) => {
  const id = idParameter(event)
  if (!app.templates.all().some(template => template.id === id))
    throw new DomainProblem('not-found', 'There is no such template.')
  await keepOne(app, 'templates', { kind: 'template', id, set: null })
  return app.templates.all()
})

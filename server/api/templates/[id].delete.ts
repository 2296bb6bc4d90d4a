import { templatesSchema } from '../../../shared/schemas/assembly'

export default jsonRoute(templatesSchema, (event, app) => {
  app.templates.remove(idParameter(event))
  return app.templates.all()
})

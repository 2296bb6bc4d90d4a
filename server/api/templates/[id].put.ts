import { assemblyTemplateSchema, templatesSchema } from '../../../shared/schemas/assembly'

export default jsonRoute(templatesSchema, async (event, app) => {
  app.templates.put({ ...await bodyOf(event, assemblyTemplateSchema), id: idParameter(event) })
  return app.templates.all()
})

import { assemblyTemplateSchema, templatesSchema } from '../../../core/slices/assembly'

export default jsonRoute(templatesSchema, async (event, app) => {
  const { id: _id, ...set } = await bodyOf(event, assemblyTemplateSchema)
  await keepOne(app, 'templates', { kind: 'template', id: idParameter(event), set })
  return app.templates.all()
})

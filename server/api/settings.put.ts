import { settingsSchema } from '../../shared/schemas/settings'

export default jsonRoute(settingsSchema, async (event, app) => {
  app.settings.save(await bodyOf(event, settingsSchema))
  return app.settings.load()
})

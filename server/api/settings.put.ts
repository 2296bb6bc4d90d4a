import { settingsSchema } from '../../shared/schemas/settings'

/** Changes the settings named; the others stay. */
export default jsonRoute(settingsSchema, async (event, app) => {
  const set = await bodyOf(event, settingsSchema.partial())
  requireMachine(event, [{ kind: 'settings', set }], app)
  await keepOne(app, 'settings', { kind: 'settings', id: 'settings', set })
  return app.settings.load()
})

import { settingsSchema } from '../../shared/schemas/settings'

export default jsonRoute(settingsSchema, (_event, app) => app.settings.load())

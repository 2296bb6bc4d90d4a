import { drawerReplySchema } from '../../../shared/schemas/drawer'

export default jsonRoute(drawerReplySchema, (_event, app) => app.parts.all())

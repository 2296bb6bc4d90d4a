import { scalesReplySchema } from '../../../shared/schemas/scales'

export default jsonRoute(scalesReplySchema, (_event, app) => app.scales.all())

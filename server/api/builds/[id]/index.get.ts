import { buildReplySchema } from '../../../../shared/schemas/api'

export default jsonRoute(buildReplySchema, (event, app) => app.builds.read(idParameter(event)))

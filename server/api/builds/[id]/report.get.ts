import { reportReplySchema } from '../../../../shared/schemas/api'

export default jsonRoute(reportReplySchema, (event, app) => app.builds.report(idParameter(event)))

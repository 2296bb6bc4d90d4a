import { lineHistorySchema } from '../../../../../../shared/schemas/api'

export default jsonRoute(lineHistorySchema, (event, app) => ({
  versions: app.builds.lineHistory(idParameter(event), idParameter(event, 'line')),
}))

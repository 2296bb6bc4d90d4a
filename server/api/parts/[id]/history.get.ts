import { partHistorySchema } from '../../../../shared/schemas/drawer'

export default jsonRoute(partHistorySchema, (event, app) => ({ versions: app.parts.history(idParameter(event)) }))

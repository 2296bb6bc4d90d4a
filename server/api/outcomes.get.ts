import { outcomesReplySchema } from '../../shared/schemas/outcomes'

/** How the plans of all builds came out. */
export default jsonRoute(outcomesReplySchema, (_event, app) => app.outcomes.all())

import { keptReplySchema } from '../../../../shared/schemas/kept'

/** What undo and redo would do next in what is kept outside the builds. */
export default jsonRoute(keptReplySchema, (event, app) => app.keeping.steps(documentParameter(event), scopeOf(event)))

import { keptReplySchema } from '../../../../shared/schemas/kept'

export default jsonRoute(keptReplySchema, (event, app) => app.keeping.undo(documentParameter(event), scopeOf(event)))

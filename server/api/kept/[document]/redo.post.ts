import { keptReplySchema } from '../../../../shared/schemas/kept'

export default jsonRoute(keptReplySchema, (event, app) => app.keeping.redo(documentParameter(event), scopeOf(event)))

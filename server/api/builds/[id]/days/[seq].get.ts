import { dayReplySchema } from '../../../../../shared/schemas/api'

/** The build as it was after an entry of its journal; 0 is before the first. */
export default jsonRoute(dayReplySchema, (event, app) => app.builds.stateAt(idParameter(event), seqParameter(event)))

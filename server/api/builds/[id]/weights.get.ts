import { weightsReplySchema } from '../../../../shared/schemas/api'

/** All-up and dry weight over the journal. */
export default jsonRoute(weightsReplySchema, async (event, app) => ({
  moments: await app.builds.weights(idParameter(event)),
}))

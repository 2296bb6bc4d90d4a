import { copiesReplySchema } from '../../../../shared/schemas/archive'

/** The copies that lie beside the data. */
export default jsonRoute(copiesReplySchema, async (event, app) => ({
  copies: await app.archive.copies(),
  freeBytes: await app.archive.freeBytes(),
  folder: app.archive.copiesFolder,
  failure: app.archive.lastFailure(),
  atTheMachine: isAtTheMachine(event),
}))

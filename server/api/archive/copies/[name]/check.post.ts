import { checkedReplySchema } from '../../../../../shared/schemas/archive'

/** Checks a copy whole and lays it ready. */
export default jsonRoute(checkedReplySchema, (event, app) => {
  requireAtTheMachine(event, 'Restoring')
  return app.archive.check(app.archive.copyFile(getRouterParam(event, 'name') ?? ''))
})

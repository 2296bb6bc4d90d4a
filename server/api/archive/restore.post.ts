import { restoredReplySchema, restoreSchema } from '../../../shared/schemas/archive'

/** What was checked and lies ready takes the place of what is here, which is kept as a copy. */
export default jsonRoute(restoredReplySchema, async event => {
  requireAtTheMachine(event, 'Restoring')
  const { id } = await bodyOf(event, restoreSchema)
  return replaceData(id)
})

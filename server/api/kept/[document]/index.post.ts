import { keptReplySchema, keptRequestSchema } from '../../../../shared/schemas/kept'

/** Changes, one after another and all or none, of what is kept outside the builds. */
export default jsonRoute(keptReplySchema, async (event, app) => {
  const { edits } = await bodyOf(event, keptRequestSchema)
  requireMachine(
    event,
    edits.flatMap(edit => edit.changes),
    app,
  )
  return app.keeping.change(documentParameter(event), edits)
})

import { journalReplySchema } from '../../../../../shared/schemas/api'
import { DomainProblem } from '../../../../problems'

/** The latest page of the journal, or with `?before=SEQ` the one before that entry. */
export default jsonRoute(journalReplySchema, (event, app) => {
  const before = Number(getQuery(event).before ?? Number.MAX_SAFE_INTEGER)
  if (!Number.isSafeInteger(before) || before < 1)
    throw new DomainProblem('invalid', '“before” is the number of a journal entry.', 'before')
  return app.builds.journal(idParameter(event), before)
})

import { topics } from '../../../../../core/changes/commands'
import { journalReplySchema } from '../../../../../shared/schemas/api'
import { DomainProblem } from '../../../../problems'

/**
 * The latest page of the journal, or with `?before=SEQ` the one before that entry; with `topic` only what is about that,
 * with `words` only what has them in its title, its reason or its mark.
 */
export default jsonRoute(journalReplySchema, (event, app) => {
  const { before: given, topic: kind, words } = getQuery(event)
  const before = Number(given ?? Number.MAX_SAFE_INTEGER)
  if (!Number.isSafeInteger(before) || before < 1)
    throw new DomainProblem('invalid', '“before” is the number of a journal entry.', 'before')
  const topic = kind === undefined ? null : topics.find(one => one === kind)
  if (topic === undefined) throw new DomainProblem('invalid', `“topic” is one of ${topics.join(', ')}.`, 'topic')
  return app.builds.journal(idParameter(event), { before, topic, words: String(words ?? '').slice(0, 200) })
})

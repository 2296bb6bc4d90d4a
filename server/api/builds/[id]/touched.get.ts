import { seqSchema, touchedReplySchema } from '../../../../shared/schemas/api'
import { DomainProblem } from '../../../problems'

/** `?from=SEQ&to=SEQ`: which lines changed between two entries, and by which entry last. */
export default jsonRoute(touchedReplySchema, async (event, app) => {
  const { from, to } = getQuery(event)
  const [after, upTo] = [seqSchema.safeParse(Number(from)), seqSchema.safeParse(Number(to))]
  if (!after.success || !upTo.success || after.data > upTo.data)
    throw new DomainProblem('invalid', '“from” and “to” are numbers of journal entries, the earlier one first.', 'from')
  return { lines: await app.builds.touched(idParameter(event), after.data, upTo.data) }
})

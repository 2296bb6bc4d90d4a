import { practicePanSchema } from '../../../shared/schemas/bench-scale'
import { DomainProblem } from '../../problems'

/** Puts masses on the pan of the practice scale. */
export default jsonRoute(practicePanSchema, async event => {
  const address = practiceAddress()
  if (!address) throw new DomainProblem('not-found', 'There is no practice scale here; the demo has one.')
  const pan = await bodyOf(event, practicePanSchema)
  const answer = await fetch(`${address}/pan`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(pan),
    redirect: 'error',
    signal: AbortSignal.timeout(5000),
  }).catch(() => null)
  if (!answer?.ok) throw new DomainProblem('refused', 'The practice scale does not answer.')
  return pan
})

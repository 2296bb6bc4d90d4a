import { DomainProblem } from '../problems'

/** Whatever else is asked under /api is said to be not there, in the same form as every problem. */
export default defineEventHandler(event =>
  sendProblem(event, new DomainProblem('not-found', 'There is nothing at this address.')),
)

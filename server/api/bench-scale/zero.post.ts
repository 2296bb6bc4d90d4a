import { z } from 'zod'
import { DomainProblem } from '../../problems'

export default jsonRoute(z.strictObject({ done: z.literal(true) }), (_event, app) => {
  if (!app.benchScale.zero())
    throw new DomainProblem('refused', 'No scale is connected that could be zeroed. Press its own key.')
  return { done: true as const }
})

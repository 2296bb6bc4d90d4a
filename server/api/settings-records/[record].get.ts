import { settingsRecordSchema } from '../../../shared/schemas/flights'
import { DomainProblem } from '../../problems'

/** One configuration with its text. */
export default jsonRoute(settingsRecordSchema, (event, app) => {
  const record = app.flights.settings.one(idParameter(event, 'record'))
  if (!record) throw new DomainProblem('not-found', 'These settings are no longer there.')
  return record
})

import { flightsReplySchema } from '../../../../shared/schemas/flights'

/** Flights and findings of a build, with what all flights say of them. */
export default jsonRoute(flightsReplySchema, (event, app) => app.flights.ofBuild(idParameter(event)))

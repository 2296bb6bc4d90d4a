import { listingsReplySchema } from '../../shared/schemas/api'

/** What all builds teach about listings: one entry a part that was listed and weighed as supplied. */
export default jsonRoute(listingsReplySchema, (_event, app) => ({ observations: app.builds.listings() }))

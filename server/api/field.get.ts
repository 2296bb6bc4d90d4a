import { fieldReplySchema } from '../../shared/schemas/field'

/** Everything that flights in the field need: the page asks once, at home. */
export default jsonRoute(fieldReplySchema, (_event, app) => ({
  at: new Date().toISOString(),
  builds: app.builds.field(),
}))

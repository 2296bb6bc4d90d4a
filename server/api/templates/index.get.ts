import { templatesSchema } from '../../../shared/schemas/assembly'

export default jsonRoute(templatesSchema, (_event, app) => app.templates.all())

import { templatesSchema } from '../../../core/slices/assembly'

export default jsonRoute(templatesSchema, (_event, app) => app.templates.all())

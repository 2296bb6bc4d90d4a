import { cardsReplySchema } from '../../../shared/schemas/api'

export default jsonRoute(cardsReplySchema, (_event, app) => ({ cards: app.rules.cards() }))

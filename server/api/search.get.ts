import { searchReplySchema } from '../../shared/schemas/api'

export default jsonRoute(searchReplySchema, (event, app) => {
  const text = String(getQuery(event).q ?? '')
    .trim()
    .slice(0, 100)
  return { lines: text === '' ? [] : app.builds.searchLines(text) }
})

import { countSchema, partRowsRequestSchema } from '../../../shared/schemas/drawer'

/** Puts the rows of a list into the drawer, each as a part of its own. Sent again with its key, they are not put in twice. */
export default jsonRoute(countSchema, async (event, app) => {
  const key = keyOf(event)
  const { rows } = await bodyOf(event, partRowsRequestSchema)
  await app.keeping.bringIn(
    rows.map(row => row.id),
    key,
    () => app.parts.insertRows(rows),
  )
  return { count: rows.length }
})

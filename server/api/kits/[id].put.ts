import { countSchema, kitRequestSchema } from '../../../shared/schemas/drawer'

/** One purchase with the pieces it became. */
export default jsonRoute(countSchema, async (event, app) => {
  const {
    kit: { id: _id, ...kit },
    parts,
  } = await bodyOf(event, kitRequestSchema)
  const kitId = idParameter(event)
  await keepOne(
    app,
    'drawer',
    { kind: 'kit', id: kitId, set: kit },
    ...parts.map(({ id, ...part }) => ({ kind: 'part' as const, id, set: { ...part, kitId } })),
  )
  return { count: parts.length }
})

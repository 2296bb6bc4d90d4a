import { countSchema, partsRequestSchema } from '../../../shared/schemas/drawer'

/** Puts parts into the drawer or changes them: all or none. */
export default jsonRoute(countSchema, async (event, app) => {
  const { parts } = await bodyOf(event, partsRequestSchema)
  await keepOne(app, 'drawer', ...parts.map(({ id, ...set }) => ({ kind: 'part' as const, id, set })))
  return { count: parts.length }
})

import { mappingReplySchema, mappingSchema } from '../../../shared/schemas/drawer'

/** Keeps how the columns of a file with these heads are understood; with an empty mapping it tells what is known. */
export default jsonRoute(mappingReplySchema, async (event, app) => {
  const { heads, mapping } = await bodyOf(event, mappingSchema)
  if (Object.keys(mapping).length > 0) await app.parts.putMapping(heads, mapping)
  return { mapping: app.parts.mapping(heads) }
})

/** Writes the published JSON Schema of the build file from the schema the application itself uses. */
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { buildFileJsonSchema } from './build-file-json-schema'

writeFileSync(
  join(import.meta.dirname, '../docs/formats/build-file.schema.json'),
  `${JSON.stringify(buildFileJsonSchema(), null, 2)}\n`,
)

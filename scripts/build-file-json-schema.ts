import { z } from 'zod'
import { buildFileSchema, buildFileVersion } from '../shared/schemas/build-file'

/** The build file as JSON Schema. References between ids (a set-up's lines, the pack flown) are checked by the application beyond it. */
export function buildFileJsonSchema() {
  return {
    $id: `urn:jolly-gram:build-file:${buildFileVersion}`,
    title: `Build file, version ${buildFileVersion}`,
    ...z.toJSONSchema(buildFileSchema, { io: 'input', reused: 'ref' }),
  }
}

/** What browser and server both speak of builds: as the slices of the core have it. */
export { buildSchema, buildShape, commandSchema, crossProblems, patchSchema } from '../../core/changes/commands'
export { aimShape, referenceFromFirstVersion, referenceSchema } from '../../core/slices/head'
export {
  lineSchema,
  lineShape,
  massSchema,
  packFactsSchema,
  packSoFarSchema,
  weighingSchema,
} from '../../core/slices/lines'
export { loadoutChoiceSchema } from '../../core/slices/loadouts'
export { observationSchema } from '../../core/slices/observations'
export { setupSchema } from '../../core/slices/setups'

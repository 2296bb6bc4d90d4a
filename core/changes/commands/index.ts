export { CommandRefused } from '../../slices/contract'
export type {
  Description,
  ItemChange,
  KeptLine,
  KeptLineChange,
  KeptPatch,
  LineChange,
  ListChange,
  Patch,
  PatchedLine,
} from '../../slices/contract'
export { mostFurther, mostLines, type LineFields, type LinesCommand, type WeighedAs } from '../../slices/lines'
export { mostObservations } from '../../slices/observations'
export { mostShavings } from '../../slices/shave'
export type { Command } from './slices'
export { applyCommand, applyUnlessRefused, describeCommand } from './apply'
export { buildFields, buildLists, makeBuild, type Forgotten } from './fields'
export * from './grams-words'
export * from './meeting-words'
export * from './next-state'
export * from './patch'
export * from './rebase'
export * from './replay'
export * from './schemas'
export * from './topics'
export * from './versions'

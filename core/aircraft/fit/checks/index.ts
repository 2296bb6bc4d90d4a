import { assemblyChecks } from './assembly'
import { holeAndPropChecks } from './holes-and-props'
import { powerChecks } from './power'
import { videoAndRadioChecks } from './video-and-radio'
import type { Check } from './types'

export * from './types'

/** Every rule of how parts go together, in the order they are read. */
export const checks: readonly Check[] = [
  ...powerChecks,
  ...holeAndPropChecks,
  ...videoAndRadioChecks,
  ...assemblyChecks,
]

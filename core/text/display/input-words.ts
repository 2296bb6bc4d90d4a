import { expectedWords, type CoreInputError } from '../../basics/errors'

/** Whether an expectation is told in the unit of what was asked. */
const hasUnit = ({ is }: CoreInputError['expected']) => is === 'in range' || is === 'finite'

/** Why an input cannot be computed with, for whoever typed it: `label` is what they were asked, in `unit`. */
export function inputSentence({ expected }: Pick<CoreInputError, 'expected'>, label: string, unit = ''): string {
  return `${label} must be ${expectedWords(expected)}${unit !== '' && hasUnit(expected) ? ` ${unit}` : ''}.`
}

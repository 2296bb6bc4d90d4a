import { expectedWords, type CoreInputError } from '../../basics/errors'

/** Whether an expectation names a figure, which has the unit of what was asked. */
function namesFigure(expected: CoreInputError['expected']): boolean {
  if (expected.is !== 'in range') return false
  const { least = 0, above = 0, most = 0, under = 0 } = expected
  return [least, above, most, under].some(bound => bound !== 0)
}

/** Why an input cannot be computed with, for whoever typed it: `label` is what they were asked, in `unit`. */
export function inputSentence({ expected }: Pick<CoreInputError, 'expected'>, label: string, unit = ''): string {
  return `${label} must be ${expectedWords(expected)}${unit !== '' && namesFigure(expected) ? ` ${unit}` : ''}.`
}

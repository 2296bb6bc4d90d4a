import type { Group, Line } from '../../model/ledger'
import type { LineEstimates } from '../loadout'
import type { Overview } from './overview'

/** A line on the mass strip. */
export interface StripSegment {
  readonly line: Line
  readonly group: Group
  /** Grams before it, and its own. */
  readonly fromG: number
  readonly valueG: number
}

/** The lines of the strip in the order of their groups; one without grams has no segment. */
export function stripSegments({ groups }: Pick<Overview, 'groups'>, estimates: LineEstimates): StripSegment[] {
  let fromG = 0
  return groups.flatMap(({ group, lines }) =>
    lines.flatMap((line): StripSegment[] => {
      const { valueG } = estimates.of(line)
      const segment = { line, group, fromG, valueG }
      fromG += valueG
      return line.mass !== null && valueG > 0 ? [segment] : []
    }),
  )
}

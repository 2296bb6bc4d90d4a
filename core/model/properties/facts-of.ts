import type { Line, Slot } from '../ledger'
import type { BenchRow, PowerOutput, Properties, PropertyValue } from '../data'

/** What a line is, pack facts included, by property key. */
export function propertiesOfLine(line: Pick<Line, 'properties' | 'pack'>): Properties {
  if (!line.pack) return line.properties ?? {}
  const { cells, chemistry, capacityMah, cRating, plug } = line.pack
  return {
    ...line.properties,
    cells,
    chemistry,
    capacityMah,
    ...(cRating === null ? {} : { cRating }),
    ...(plug === '' ? {} : { plug }),
  }
}

const of = (line: Pick<Line, 'properties' | 'pack'>, key: string): PropertyValue | undefined =>
  propertiesOfLine(line)[key]

/** A property that is a number, or undefined while it is not known. */
export function measureOf(line: Pick<Line, 'properties' | 'pack'>, key: string): number | undefined {
  const value = of(line, key)
  return typeof value === 'number' ? value : undefined
}
export function textOf(line: Pick<Line, 'properties' | 'pack'>, key: string): string | undefined {
  const value = of(line, key)
  return typeof value === 'string' && value !== '' ? value : undefined
}
export function listOf(line: Pick<Line, 'properties' | 'pack'>, key: string): readonly string[] | undefined {
  const value = of(line, key)
  return Array.isArray(value) && value.length > 0 && typeof value[0] === 'string'
    ? (value as readonly string[])
    : undefined
}
export function outputsOf(line: Pick<Line, 'properties' | 'pack'>): readonly PowerOutput[] {
  return (of(line, 'outputs') ?? []) as readonly PowerOutput[]
}
export function benchOf(line: Pick<Line, 'properties' | 'pack'>): readonly BenchRow[] {
  return (of(line, 'bench') ?? []) as readonly BenchRow[]
}

/** Whether any of the lines does the work of a slot, as its own or besides. */
export function providersOf(lines: readonly Line[], slot: Slot): Line[] {
  return lines.filter(
    line => line.slot === slot || (of(line, 'provides') as readonly string[] | undefined)?.includes(slot),
  )
}

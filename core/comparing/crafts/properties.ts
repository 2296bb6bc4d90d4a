import type { Line } from '../../model/ledger'
import { propertyNamed, propertyText } from '../../model/properties'

/**
 * A property in which lines of one row differ; a column's text is empty where nobody has said it or there is no line.
 * Without texts where they are too long to stand beside each other.
 */
export interface DifferingProperty {
  readonly label: string
  readonly unit: string
  readonly texts: readonly string[]
}

/** A text longer than this is not told beside another; that it differs is. Our choice. */
const mostLetters = 40

/** What differs between the lines of a row apart from their grams: properties that not all have alike, where two have said them. */
export function differingProperties(lines: readonly (Line | null)[]): DifferingProperty[] {
  const keys = new Set(lines.flatMap(line => Object.keys(line?.properties ?? {})))
  return [...keys].flatMap((key): DifferingProperty[] => {
    const texts = lines.map(line => {
      const value = line?.properties?.[key]
      return value === undefined ? '' : propertyText(value).replaceAll('\n', '; ')
    })
    const said = texts.filter(text => text !== '')
    if (said.length < 2 || new Set(said).size < 2) return []
    const { slot } = lines.find(line => line?.properties?.[key] !== undefined)!
    const property = propertyNamed(slot, key)
    const label = property?.label ?? key
    return said.some(text => text.length > mostLetters)
      ? [{ label, unit: '', texts: [] }]
      : [{ label, unit: property?.unit ?? '', texts }]
  })
}

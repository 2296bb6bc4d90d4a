import { centsFigure, wordsOfField } from '../../text/display'
import type { Line } from '../../model/ledger'
import { propertyNamed, propertyText } from '../../model/properties'

/** The most changes one entry spells out. */
const mostSpelt = 3

const isPlain = (value: unknown) =>
  value === null || value === undefined || ['string', 'number', 'boolean'].includes(typeof value)

function valueWords(key: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'not said'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number' && /cents$/i.test(key)) return centsFigure(value)
  const text = String(value)
  return text.length > 40 ? `“${text.slice(0, 38).trimEnd()}…”` : text
}

/** “cells 3 → 4”, “order changed” for every field that differs. */
export function changesOf(before: object, after: object): string[] {
  const was = before as Record<string, unknown>
  const now = after as Record<string, unknown>
  return [...new Set([...Object.keys(was), ...Object.keys(now)])]
    .filter(key => key !== 'id' && !sameValue(was[key], now[key]))
    .map(key =>
      isPlain(was[key]) && isPlain(now[key])
        ? `${wordsOfField(key)} ${valueWords(key, was[key])} → ${valueWords(key, now[key])}`
        : listWords(key, was[key], now[key]),
    )
}
/** A list of a builder's own words says which came and went; one of names by which others are found says how many. */
function listWords(key: string, was: unknown, now: unknown): string {
  if (!isOfWords(was) || !isOfWords(now)) return `${wordsOfField(key)} changed`
  const [fresh, gone] = [now.filter(word => !was.includes(word)), was.filter(word => !now.includes(word))]
  if (fresh.length + gone.length === 0) return `${wordsOfField(key)} in another order`
  if (key.endsWith('Ids'))
    return [
      ...(fresh.length > 0 ? [`${wordsOfField(key)}: ${fresh.length} more`] : []),
      ...(gone.length > 0 ? [`${wordsOfField(key)}: ${gone.length} fewer`] : []),
    ].join(', ')
  return [
    ...fresh.map(word => `${wordsOfField(key)}: “${word}” added`),
    ...gone.map(word => `${wordsOfField(key)}: “${word}” taken out`),
  ].join(', ')
}
const isOfWords = (value: unknown): value is readonly string[] =>
  Array.isArray(value) && value.every(item => typeof item === 'string')
const sameValue = (a: unknown, b: unknown) =>
  a === b || (!isPlain(a) && !isPlain(b) && JSON.stringify(a) === JSON.stringify(b))

/** What differs between two lists whose items have ids and names: added, gone, or changed in what. */
export function itemChanges(
  before: readonly { readonly id: string; readonly name: string }[],
  after: readonly { readonly id: string; readonly name: string }[],
): string[] {
  const was = new Map(before.map(item => [item.id, item]))
  const now = new Set(after.map(item => item.id))
  return [
    ...after.flatMap(item => {
      const old = was.get(item.id)
      const changes = old ? changesOf(old, item) : []
      return !old ? [`“${item.name}” added`] : changes.length > 0 ? [`“${old.name}”: ${changes.join(', ')}`] : []
    }),
    ...before.filter(item => !now.has(item.id)).map(item => `“${item.name}” taken out`),
  ]
}

/** What the properties of a line became, by their labels. */
export function propertyChanges(
  before: Pick<Line, 'slot' | 'properties'>,
  after: Pick<Line, 'slot' | 'properties'>,
): string[] {
  const [was, now] = [before.properties ?? {}, after.properties ?? {}]
  return [...new Set([...Object.keys(was), ...Object.keys(now)])]
    .filter(key => !sameValue(was[key], now[key]))
    .map(key => {
      const property = propertyNamed(after.slot, key)
      // “Cells, fewest” in a list of others reads as two: “fewest cells”.
      const label = (property?.label ?? wordsOfField(key))
        .replace(/^[A-Z](?![A-Z])/, letter => letter.toLowerCase())
        .split(', ')
        .reverse()
        .join(' ')
      const unit = property && property.unit !== '' ? ` ${property.unit}` : ''
      const words = (value: (typeof now)[string] | undefined) =>
        value === undefined ? 'not said' : `${shortened(propertyText(value))}${unit}`
      return `${label} ${words(was[key])} → ${words(now[key])}`
    })
}
const shortened = (text: string) => {
  const line = text.replaceAll('\n', '; ')
  return line.length > 40 ? `${line.slice(0, 38).trimEnd()}…` : line
}

/** A few changes in one sentence; more than those are counted. */
export function joined(changes: readonly string[]): string {
  if (changes.length === 0) return 'nothing changed'
  return changes.length <= mostSpelt
    ? changes.join(', ')
    : `${changes.slice(0, mostSpelt).join(', ')} and ${changes.length - mostSpelt} more`
}

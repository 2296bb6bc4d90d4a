import connectorFacts from '../facts/connectors.json'

/** A plug by a neutral name, with what it bears and what a mated pair weighs. */
export interface Connector { readonly connector: string, readonly continuousA: number, readonly burstA: number, readonly pairG: number, readonly note: string }
export const connectors: readonly Connector[] = connectorFacts

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9.]+/g, ' ').trim()

/** The connector a builder means by a name: `two bullets 2 mm, 30 A class` and `two bullets 2 mm` are the same. Undefined for a name of their own. */
export function connectorNamed(name: string): Connector | undefined {
  const wanted = plain(name)
  if (wanted === '') return undefined
  return connectors.find((c) => {
    const whole = plain(c.connector)
    return whole === wanted || plain(c.connector.split('(')[0]!) === wanted
  })
}

/** What a mated pair of small plugs nobody knows by name weighs, g: the lightest there is. */
const smallPairG = Math.min(...connectors.map(c => c.pairG))

/** Grams soldering saves where a plug of this name joins, and whether they are more than a guess; null without a plug. */
export function plugPairG(name: string): { readonly grams: number, readonly known: boolean } | null {
  if (name.trim() === '') return null
  const named = connectorNamed(name)
  return { grams: named?.pairG ?? smallPairG, known: named !== undefined }
}

/** Whether two plug names mean plugs that mate, as far as names can tell. */
export function samePlug(a: string, b: string): boolean {
  const [one, other] = [connectorNamed(a), connectorNamed(b)]
  return one && other ? one === other : plain(a) === plain(b)
}

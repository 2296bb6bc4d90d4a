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
    return whole === wanted || plain(c.connector.replace(/\(.*\)/, '')) === wanted
  })
}

/** Whether two plug names mean plugs that mate, as far as names can tell. */
export function samePlug(a: string, b: string): boolean {
  const [one, other] = [connectorNamed(a), connectorNamed(b)]
  return one && other ? one === other : plain(a) === plain(b)
}

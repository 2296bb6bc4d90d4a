import connectorFacts from './connectors.json'

/** A plug by a neutral name, with what it bears and what a mated pair weighs. */
export interface Connector {
  readonly connector: string
  readonly continuousA: number
  readonly burstA: number
  readonly pairG: number
  readonly note: string
}
export const connectors: readonly Connector[] = connectorFacts

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9.]+/g, ' ')
    .trim()

/** The class in amps that words name (`30 A class`, `gold ones of the 60 A class`); null where they name none. */
const classOf = (text: string): string | null => /\b(\d{1,3}) a class\b/.exec(plain(text))?.[1] ?? null
const onlyClass = /^\d{1,3} a class(?: plugs?| connectors?)?$/

/**
 * The connector a builder means by a name: `two bullets 2 mm, 30 A class`, `two bullets 2 mm` and `30 A class` are the same.
 * Undefined for a name of their own.
 */
export function connectorNamed(name: string): Connector | undefined {
  const wanted = plain(name)
  if (wanted === '') return undefined
  return connectors.find(c => {
    const whole = plain(c.connector)
    return (
      whole === wanted ||
      plain(c.connector.split('(')[0]!) === wanted ||
      (onlyClass.test(wanted) && classOf(wanted) === classOf(c.connector))
    )
  })
}

/** What plugs of this name bear: a connector of the facts, or, for a name of the builder's own, the one of the class it names. */
export function plugBearing(name: string): Connector | undefined {
  const named = connectorNamed(name)
  const own = named ? null : classOf(name)
  return named ?? (own === null ? undefined : connectors.find(c => classOf(c.connector) === own))
}

/** What a mated pair of small plugs nobody knows by name weighs, g: the lightest there is. */
const smallPairG = Math.min(...connectors.map(c => c.pairG))

/** Grams soldering saves where a plug of this name joins, and whether they are more than a guess; null without a plug. */
export function plugPairG(name: string): { readonly grams: number; readonly known: boolean } | null {
  if (name.trim() === '') return null
  const named = connectorNamed(name)
  return { grams: named?.pairG ?? smallPairG, known: named !== undefined }
}

/**
 * Whether two plug names mean plugs that mate; null where that cannot be told: a name that is not among the facts, and
 * not the same words.
 */
export function plugsMate(a: string, b: string): boolean | null {
  const [one, other] = [connectorNamed(a), connectorNamed(b)]
  if (one && other) return one === other
  return plain(a) === plain(b) ? true : null
}

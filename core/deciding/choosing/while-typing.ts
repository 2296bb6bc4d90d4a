import { lineOfClass, typicalMasses, typicalPackFacts } from '../../parts/catalogue'
import { inDrawer, lineOfPart, statorCode, type Part, type Placement } from '../../parts/drawer'
import { slotFacts, type Line, type Slot } from '../../model/ledger'
import { gramsWithSpread, figure } from '../../text/display'

/** A line of another build, as far as a search tells. */
export interface FoundLine {
  readonly buildId: string
  readonly buildName: string
  readonly lineId: string
  readonly name: string
  readonly slot: Slot
}

/** What is offered while a name is typed: a part of the drawer, a line of another build, or a typical class. */
export type Offer = { readonly name: string; readonly slot: Slot; readonly detail: string } & (
  | { readonly from: 'drawer'; readonly part: Part; readonly left: number }
  | { readonly from: 'another build'; readonly found: FoundLine }
  | { readonly from: 'typical'; readonly className: string }
)

interface Owned {
  readonly parts: readonly Part[]
  readonly placements: readonly Placement[]
  readonly found: readonly FoundLine[]
}

const mostOf: Readonly<Record<Offer['from'], number>> = { drawer: 6, 'another build': 4, typical: 4 }

/** How well a text fits what was typed: 0 begins with it, 1 has a word that does, 2 holds every word; null not. */
function fitness(text: string, typed: string): number | null {
  const lower = text.toLowerCase()
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.every(word => lower.includes(word))) return null
  if (lower.startsWith(words.join(' '))) return 0
  return words.every(word => ` ${lower}`.includes(` ${word}`)) ? 1 : 2
}

/** The best of each source, those of the slot asked for first. Stable: equals stay in the order they came. */
function best<T extends Offer>(offers: readonly { offer: T; text: string }[], typed: string, slot: Slot): T[] {
  return offers
    .flatMap(({ offer, text }) => {
      const fit = fitness(text, typed)
      return fit === null ? [] : [{ offer, rank: (offer.slot === slot ? 0 : 10) + fit }]
    })
    .sort((a, b) => a.rank - b.rank)
    .map(({ offer }) => offer)
    .slice(0, mostOf[offers[0]?.offer.from ?? 'typical'])
}

const isThere = (left: number) => (left > 0 ? `${left} in the drawer` : 'none left in the drawer')
function detailOfPart(part: Part, left: number): string {
  const { mass } = part
  const grams = mass ? `${gramsWithSpread(mass.valueG / mass.valueCount, 0)} ${mass.evidence}` : 'no grams yet'
  return `${grams} · ${part.owned === 0 ? 'not owned' : isThere(left)}`
}

/**
 * What a builder may mean who types `typed` into the name of a line of a slot: parts of the drawer, those that are there
 * first; lines of other builds that are no such part; typical classes. With nothing typed only what is owned for the slot.
 */
export function offersFor(typed: string, slot: Slot, { parts, placements, found }: Owned): Offer[] {
  const nothing = typed.trim() === ''
  const drawer = parts
    .map(part => ({ part, left: inDrawer(part, placements) }))
    .filter(({ part, left }) => !nothing || (part.slot === slot && left > 0))
    .sort((a, b) => Number(b.left > 0) - Number(a.left > 0))
    .map(({ part, left }) => ({
      text: [part.name, slotFacts[part.slot].label, statorCode(part.properties) ?? '', ...part.tags].join(' '),
      offer: {
        from: 'drawer' as const,
        name: part.name,
        slot: part.slot,
        detail: detailOfPart(part, left),
        part,
        left,
      },
    }))
  const ofDrawer = best(drawer, typed, slot)
  if (nothing) return ofDrawer
  const known = new Set(parts.map(part => `${part.slot}/${part.name.toLowerCase()}`))
  const others = found.flatMap(one => {
    const key = `${one.slot}/${one.name.toLowerCase()}`
    if (known.has(key)) return []
    known.add(key)
    const offer = {
      from: 'another build' as const,
      name: one.name,
      slot: one.slot,
      detail: `in ${one.buildName}`,
      found: one,
    }
    return [{ offer, text: `${one.name} ${slotFacts[one.slot].label}` }]
  })
  const typical = typicalMasses
    .filter(one => one.per === 'piece')
    .map(one => {
      const name = `${slotFacts[one.slot].label}, ${one.class}`
      const detail = `typically ${figure(one.lowG, 2)} to ${figure(one.highG, 2)} g`
      return { offer: { from: 'typical' as const, name, slot: one.slot, detail, className: one.class }, text: name }
    })
  return [...ofDrawer, ...best(others, typed, slot), ...best(typical, typed, slot)]
}

/**
 * The line an offer of the drawer or of the catalogue stands for, with `quantity` pieces of it; null for one of another
 * build, whose line is there.
 */
export function lineOfOffer(
  offer: Offer,
  given: { readonly id: string; readonly versionId: string; readonly quantity: number },
): Line | null {
  const { id, versionId, quantity } = given
  if (offer.from === 'drawer') return lineOfPart(offer.part, id, quantity)
  if (offer.from === 'another build') return null
  const typical = typicalMasses.find(one => one.slot === offer.slot && one.class === offer.className)
  if (!typical) return null
  const packSoFar = offer.slot === 'pack' ? typicalPackFacts(offer.className) : null
  return lineOfClass(offer.slot, typical, { id, versionId, quantity, packSoFar })
}

import { guess, workedOutFraction } from '#core/mass/evidence'
import { slotFacts, type Line, type Mass } from '#core/model/ledger'
import { fixed, percentFigure } from '#core/text/display'
import { uncheckedWords, weighingWords } from './words'

/** What the builder's own parts of a kind say of listings: how many there are, and the mean logarithm of their ratio. */
export interface OwnListings {
  readonly products: number
  readonly mu: number
}

function listedWords(slot: Line['slot'], { products, mu }: OwnListings): string {
  if (products === 0)
    return 'As the seller lists it. None of your own parts of this kind have been held against their listing yet.'
  const parts = `${products} ${slotFacts[slot].label.toLowerCase()} ${products === 1 ? 'part' : 'parts'}`
  const off = `${fixed(Math.abs(100 * (Math.exp(mu) - 1)), 1)} % ${mu >= 0 ? 'heavier' : 'lighter'}`
  return `${parts} of yours came out ${off} than listed, so the ledger plans for that until this one is weighed.`
}

function typedAsWeighedWords({ pieceReadingsG, valueCount, basis }: Mass, quantity: number): string {
  const of = pieceReadingsG
    ? `${pieceReadingsG.length} of ${quantity} pieces weighed one by one`
    : valueCount > 1
      ? `${valueCount} pieces on the pan together`
      : quantity > 1
        ? `One of ${quantity} pieces weighed; the others may differ`
        : 'Weighed'
  return `${of}, ${basis}. The scale has not been checked: ${uncheckedWords()}.`
}

/** How a line's grams are known, and what its spread rests on. */
export function evidenceWords(
  { mass, quantity, slot }: Pick<Line, 'mass' | 'quantity' | 'slot'>,
  own: OwnListings,
): string {
  if (!mass) return 'Nobody has said what it weighs. Type the grams in the sheet.'
  if (mass.ownSpreadG !== null) return 'The spread is your own.'
  if (mass.weighing && mass.evidence !== 'twin') return weighingWords(mass, quantity)
  switch (mass.evidence) {
    case 'guess':
      return `A guess counts with ${percentFigure(guess.fraction)} % either way, at least ${guess.leastG} g.`
    case 'twin':
      return 'As the piece it was copied from was weighed; this one never was, and pieces differ.'
    case 'typical':
      return `Middle of the class range (${mass.origin}); the true part may lie anywhere in it.`
    case 'worked out':
      return `Worked out from its dimensions: ${percentFigure(workedOutFraction(slot))} % either way.`
    case 'weighed':
      return typedAsWeighedWords(mass, quantity)
    case 'listed':
      return listedWords(slot, own)
  }
}

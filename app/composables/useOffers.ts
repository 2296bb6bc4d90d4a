import { lineOfOffer, offersFor, type Offer } from '#core/deciding/choosing'
import { twinOfLine, type Line, type Slot } from '#core/model/ledger'
import type { BuildReply } from '#shared/schemas/api'

/** What is offered while the name of a line is typed, and the line that stands behind an offer. */
export function useOffers() {
  const drawer = useDrawerStore()
  const shelf = useShelfStore()
  const store = useBuildStore()

  /** Without the drawer or the other builds at hand there is less to offer; typing goes on all the same. */
  const orNothing = async <T>(work: Promise<T>, none: T): Promise<T> => work.catch(() => none)

  async function offers(typed: string, slot: Slot): Promise<Offer[]> {
    const text = typed.trim()
    const [found] = await Promise.all([
      text.length < 2 ? [] : orNothing(shelf.searchLines(text), []),
      drawer.loaded ? null : orNothing(drawer.load(), undefined),
    ])
    const others = found.filter(one => one.buildId !== store.build?.id)
    return offersFor(typed, slot, { parts: drawer.parts, placements: drawer.placements, found: others })
  }

  /** A line of another build is a piece like that one, not that one. */
  async function lineOf(offer: Offer, quantity: number): Promise<Line | null> {
    const given = { id: newId(), versionId: newId(), quantity }
    if (offer.from !== 'another build') return lineOfOffer(offer, given)
    const { buildId, lineId } = offer.found
    const { build } = await askServer<BuildReply>(`/api/builds/${buildId}`)
    const line = build.lines.find(one => one.id === lineId)
    if (!line) return null
    const alone = { state: 'fitted', tie: null, insteadOf: null, feed: null, note: '' } as const
    return { ...twinOfLine(line, newId), ...alone, id: given.id, quantity }
  }
  return { offers, lineOf }
}

import type { Part, Placement } from '../../parts/drawer'
import type { Build } from '../../model/ledger'
import { BuyList } from './buy-list'
import type { BuyOptions, BuyRow, BuySurroundings } from './buy-row'

export * from './buy-row'

/**
 * What still has to be bought for a build: fitted lines that are not owned, what flies and has no line, what the kits it is
 * made of leave out, and by choice tools and crash spares; each minus what the drawer holds. A piece of the drawer is given
 * out once; pieces of a kit nobody owns yet are bought as that kit, at its price.
 */
export function toBuy(
  build: Build,
  parts: readonly Part[],
  kept: readonly Placement[],
  options: BuyOptions,
  surroundings: BuySurroundings = { kits: [], radioFamily: '' },
): BuyRow[] {
  const list = new BuyList(build, parts, kept, surroundings)
  list.addLines()
  list.addWhatFlies()
  list.addOfClass()
  list.addLeftOut()
  list.addFixings()
  if (options.spares) list.addSpares()
  if (options.tools) list.addTools()
  return list.rows.filter(row => row.toBuy > 0)
}

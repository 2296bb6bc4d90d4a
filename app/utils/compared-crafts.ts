import type { LoadoutChoice } from '#core/model/ledger'

/** A craft as an address names it: `nougat`, `nougat@9` on a day, `nougat~setup.pack` in another loadout. */
export interface CraftAsked {
  readonly buildId: string
  /** The entry of the journal after which it is looked at; null today. */
  readonly seq: number | null
  /** The loadout; null for the one it is flown in. */
  readonly choice: LoadoutChoice | null
}

/** How many crafts stand beside each other. */
export const mostCompared = 4

export function craftAsked(key: string): CraftAsked {
  const [named = '', loadout] = key.split('~')
  const [buildId = '', seq] = named.split('@')
  const [setupId = '', packLineId = ''] = (loadout ?? '').split('.')
  const number = Number(seq)
  return {
    buildId,
    seq: seq !== undefined && Number.isSafeInteger(number) && number >= 0 ? number : null,
    choice: loadout ? { setupId, packLineId: packLineId || null } : null,
  }
}

export function craftKey({ buildId, seq, choice }: CraftAsked): string {
  return `${buildId}${seq === null ? '' : `@${seq}`}${choice ? `~${choice.setupId}.${choice.packLineId ?? ''}` : ''}`
}

/** The address of a comparison. */
export const comparePath = (keys: readonly string[]) => ({ path: '/compare', query: { of: [...keys] } })

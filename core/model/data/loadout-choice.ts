/** One way to fly: a set-up and a pack (null: flown without a pack line). */
export interface LoadoutChoice {
  readonly setupId: string
  readonly packLineId: string | null
}

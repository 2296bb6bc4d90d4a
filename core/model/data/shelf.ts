/** How a build stands on the shelf. */
export interface ShelfMark {
  /** Before the others, however they are sorted. */
  readonly pinned: boolean
  /** The builder's own words for it (“race”, “for sale”), in the order they were given. */
  readonly tags: readonly string[]
}

/** The most tags a build has. */
export const mostTags = 12
export const blankMark: ShelfMark = { pinned: false, tags: [] }

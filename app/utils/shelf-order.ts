import type { ShelvedBuild } from '#shared/schemas/api'

/** How the shelf is sorted; as they were made where nothing is chosen. */
export const shelfOrders = [
  { value: 'name', label: 'by name' },
  { value: 'mass', label: 'by weight' },
  { value: 'headroom', label: 'by headroom' },
  { value: 'changed', label: 'changed last' },
  { value: 'class', label: 'by class' },
] as const
export type ShelfOrder = (typeof shelfOrders)[number]['value']

const massOf = ({ reference, massG }: ShelvedBuild) => reference?.massG ?? massG
/** What cannot be told comes last. */
const last = Number.POSITIVE_INFINITY
const compare: Readonly<Record<ShelfOrder, (a: ShelvedBuild, b: ShelvedBuild) => number>> = {
  name: (a, b) => a.name.localeCompare(b.name),
  mass: (a, b) => massOf(a) - massOf(b),
  headroom: (a, b) => (a.headroomG ?? last) - (b.headroomG ?? last) || a.name.localeCompare(b.name),
  changed: (a, b) => (b.changedAt ?? '').localeCompare(a.changedAt ?? ''),
  class: (a, b) => a.craftClass.localeCompare(b.craftClass) || a.name.localeCompare(b.name),
}

/** Every word stands in the name, the class, a tag or the verdict. */
function matches(build: ShelvedBuild, words: readonly string[]): boolean {
  const text = [build.name, build.craftClass, ...build.tags, build.word ?? '', build.reference ? 'reference craft' : '']
    .join(' ')
    .toLowerCase()
  return words.every(word => text.includes(word))
}

/** The builds that are looked for, pinned ones first, each group in the order that was chosen. */
export function shelfShown(
  builds: readonly ShelvedBuild[],
  { words, tag, order }: { readonly words: string; readonly tag: string; readonly order: ShelfOrder | '' },
): ShelvedBuild[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  const found = builds.filter(build => (tag === '' || build.tags.includes(tag)) && matches(build, wanted))
  const sorted = order === '' ? found : [...found].sort(compare[order])
  return [...sorted.filter(({ pinned }) => pinned), ...sorted.filter(({ pinned }) => !pinned)]
}

/** Every tag in use, the most used first. */
export function tagsInUse(builds: readonly Pick<ShelvedBuild, 'tags'>[]): string[] {
  const counts = new Map<string, number>()
  for (const { tags } of builds) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1)
  return [...counts].sort(([a, n], [b, m]) => m - n || a.localeCompare(b)).map(([tag]) => tag)
}

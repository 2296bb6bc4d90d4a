import { slotFacts } from '#core/model/ledger'
import { cardName, limitInWords, type RuleCard } from '#core/limits/rules'
import type { Part } from '#core/parts/drawer'
import { glossary, termId, type Term } from '#core/text/glossary'
import type { Found } from '#shared/schemas/api'

/** One thing Find found: where it leads, or what it does. */
export interface Hit {
  readonly key: string
  readonly title: string
  readonly detail: string
  readonly to?: string
  readonly act?: () => void
}
interface Place {
  readonly title: string
  readonly to: string
  readonly words?: string
}
/** What can be found, as it is at hand. */
export interface Findable {
  readonly builds: readonly { readonly id: string; readonly name: string; readonly craftClass: string }[]
  readonly stations: readonly { readonly title: string; readonly question: string; readonly to: string }[]
  readonly buildName: string
  /** Lines the server found for these words. */
  readonly lines: readonly Found[]
  readonly parts: readonly Part[]
  readonly cards: readonly RuleCard[]
  /** What was flown with the open build, in words to be found by. */
  readonly flights: readonly {
    readonly id: string
    readonly title: string
    readonly words: string
    readonly to: string
  }[]
  readonly actions: readonly { readonly title: string; readonly act: () => void }[]
}

export const findPlaces: readonly Place[] = [
  { title: 'Shelf', to: '/' },
  { title: 'Drawer', to: '/drawer' },
  { title: 'Scales', to: '/scales' },
  { title: 'Rules', to: '/rules' },
  { title: 'Settings', to: '/settings' },
  { title: 'Glossary', to: '/glossary' },
  { title: 'In the field', to: '/field' },
  { title: 'Compare crafts', to: '/compare', words: 'against twins difference side by side' },
]
export const findSettings: readonly Place[] = [
  { title: 'Looks', to: '/settings#looks', words: 'dark light day night bench theme' },
  { title: 'Figures', to: '/settings#figures', words: 'currency confidence ounces decimal comma date' },
  { title: 'Bench scale', to: '/settings#bench-scale', words: 'address port serial' },
  { title: 'Your hand', to: '/settings#hand', words: 'slip practised learning' },
  { title: 'On the ground', to: '/settings#ground', words: 'goggles charger hand controller plugs gear' },
  { title: 'Home network', to: '/settings#network', words: 'phone passphrase address' },
  { title: 'Archive', to: '/settings#archive', words: 'backup copy restore export everything one file' },
  { title: 'Keys', to: '/settings#keys', words: 'shortcuts single' },
]

const mostHits = 30
const mostAtFirst = 12

/** What was found for `typed`, the nearest first. With nothing typed: builds, stations and places. */
export function findHits(typed: string, given: Findable): Hit[] {
  const wanted = typed.trim().toLowerCase()
  const words = wanted.split(/\s+/).filter(Boolean)
  const matches = (...texts: readonly string[]) => {
    const all = texts.join(' ').toLowerCase()
    return words.every(word => all.includes(word))
  }
  const builds = given.builds
    .filter(one => matches(one.name, one.craftClass))
    .map(one => ({ key: one.id, title: one.name, detail: one.craftClass || 'build', to: `/builds/${one.id}/parts` }))
  const stations = given.stations
    .filter(one => matches(one.title, one.question))
    .map(({ title, to }) => ({ key: to, title, detail: `station of ${given.buildName}`, to }))
  const places = findPlaces
    .filter(one => matches(one.title))
    .map(({ title, to }) => ({ key: to, title, detail: 'place', to }))
  if (wanted === '') return [...builds, ...stations, ...places].slice(0, mostAtFirst)
  const lines = given.lines.map(one => ({
    key: `${one.buildId}/${one.lineId}`,
    title: one.name,
    detail: `${slotFacts[one.slot].label.toLowerCase()} in ${one.buildName}${one.state === 'fitted' ? '' : `, ${one.state}`}`,
    to: `/builds/${one.buildId}/parts?line=${one.lineId}`,
  }))
  const parts = given.parts
    .filter(one => matches(one.name, slotFacts[one.slot].label, one.bag, ...one.tags))
    .map(one => ({
      key: `part-${one.id}`,
      title: one.name,
      detail: [slotFacts[one.slot].label.toLowerCase(), 'in the drawer', one.bag].filter(Boolean).join(' · '),
      to: `/drawer?part=${one.id}`,
    }))
  const cards = given.cards
    .filter(one => matches(one.place, one.purpose))
    .map(one => ({ key: `card-${one.id}`, title: cardName(one), detail: limitInWords(one), to: `/rules#${one.id}` }))
  const flights = given.flights
    .filter(one => matches(one.title, one.words))
    .map(({ id, title, to }) => ({ key: `flight-${id}`, title, detail: `flown with ${given.buildName}`, to }))
  const actions = given.actions
    .filter(one => matches(one.title))
    .map(one => ({ key: `act-${one.title}`, title: one.title, detail: 'do it', act: one.act }))
  return [
    ...builds,
    ...stations,
    ...lines.slice(0, 12),
    ...parts.slice(0, 12),
    ...heapHits(given.parts, matches),
    ...flights.slice(0, 8),
    ...cards,
    ...places,
    ...wordHits(matches),
    ...actions,
  ].slice(0, mostHits)
}

/** The bags or tags there are, with how many kinds of parts each has. */
function heapsOf(parts: readonly Part[], kind: 'bag' | 'tag', of: (part: Part) => readonly string[]) {
  const counts = new Map<string, number>()
  for (const part of parts) for (const name of of(part)) if (name !== '') counts.set(name, (counts.get(name) ?? 0) + 1)
  return [...counts].map(([name, count]) => ({ name, kind, count }))
}

type Matches = (...texts: readonly string[]) => boolean

/** Settings by what they are about, and words of the glossary. */
function wordHits(matches: Matches): Hit[] {
  const settings = findSettings
    .filter(one => matches(one.title, one.words ?? ''))
    .map(({ title, to }) => ({ key: to, title, detail: 'settings', to }))
  const terms = glossary
    .flatMap(({ terms: these }): readonly Term[] => these)
    .filter(one => matches(one.word, ...(one.also ?? [])))
    .map(one => ({ key: `term-${one.word}`, title: one.word, detail: one.says, to: `/glossary#${termId(one.word)}` }))
  return [...settings, ...terms.slice(0, 6)]
}

/** Bags and tags with what is in them. */
function heapHits(parts: readonly Part[], matches: Matches): Hit[] {
  return [...heapsOf(parts, 'bag', one => [one.bag]), ...heapsOf(parts, 'tag', one => one.tags)]
    .filter(one => matches(one.name))
    .map(({ name, kind, count }) => ({
      key: `${kind}-${name}`,
      title: name,
      detail: `${kind} · ${count} ${count === 1 ? 'kind' : 'kinds'} of parts`,
      to: `/drawer?filter=${encodeURIComponent(name)}`,
    }))
    .slice(0, 6)
}

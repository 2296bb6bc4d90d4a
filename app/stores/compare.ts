import { defineStore } from 'pinia'
import { craftFigures, referenceFigures, type CraftFigures } from '#core/comparing/crafts'
import type { Compared } from '#core/comparing/lines'
import { ListingBiasTable, listingObservations, type ListingObservation } from '#core/mass/listings'
import { defaultLoadout, estimatesOf, loadoutName } from '#core/mass/loadout'
import { overviewOf, type Overview } from '#core/mass/report'
import type { Lessons } from '#core/aircraft/flown'
import type { Build, LoadoutChoice } from '#core/model/ledger'
import { wholeBuild } from '#shared/schemas/lean-build'
import type { BuildReply, DayReply } from '#shared/schemas/api'
import type { FlightsReply } from '#shared/schemas/flights'
import { craftAsked, type CraftAsked } from '~/utils/compared-crafts'

/** One craft of a comparison. */
export interface ComparedCraft {
  /** As it stands in the address. */
  readonly key: string
  readonly asked: CraftAsked
  readonly name: string
  readonly detail: string
  readonly build: Build
  /** Null for a craft that is known only as a whole. */
  readonly compared: Compared | null
  readonly overview: Overview | null
  readonly figures: CraftFigures
}

/** Crafts side by side: builds, days of them, loadouts, reference crafts. */
export const useCompareStore = defineStore('compare', () => {
  const rules = useRulesStore()
  const crafts = shallowRef<readonly ComparedCraft[]>([])
  const problem = ref('')
  const loading = ref(false)

  async function fetchCraft(key: string): Promise<ComparedCraft> {
    const asked = craftAsked(key)
    const path = `/api/builds/${encodeURIComponent(asked.buildId)}`
    const [reply, { lessons }] = await Promise.all([
      asked.seq === null
        ? askServer<BuildReply & { at?: string }>(path)
        : askServer<DayReply>(`${path}/days/${asked.seq}`),
      askServer<FlightsReply>(`${path}/flights`),
    ])
    const at = asked.seq === null ? null : (reply as DayReply).at
    return craftOf(key, asked, wholeBuild(reply.build), reply.honestyElsewhere, lessons, at)
  }
  function craftOf(
    key: string,
    asked: CraftAsked,
    build: Build,
    elsewhere: readonly ListingObservation[],
    lessons: Lessons | null,
    at: string | null,
  ): ComparedCraft {
    const day = at === null ? '' : `, ${dayOf(at, 'short')}`
    if (build.reference)
      return {
        key,
        asked,
        name: `${build.name}${day}`,
        detail: 'reference craft',
        build,
        compared: null,
        overview: null,
        figures: referenceFigures(build.reference),
      }
    const estimates = estimatesOf(build, new ListingBiasTable([...elsewhere, ...listingObservations(build.lines)]))
    const choice: LoadoutChoice = defaultLoadout(asked.choice ? { ...build, flies: asked.choice } : build)
    const compared = { build, choice, estimates }
    const overview = overviewOf(build, choice, rules.cards, estimates)
    return {
      key,
      asked,
      name: `${build.name}${day}`,
      detail: loadoutName(build, choice),
      build,
      compared,
      overview,
      figures: craftFigures(compared, rules.cards, lessons, overview),
    }
  }

  let asked = 0
  async function load(keys: readonly string[]) {
    const mine = ++asked
    problem.value = ''
    loading.value = true
    try {
      await rules.load()
      const found = await Promise.allSettled(keys.map(fetchCraft))
      if (mine !== asked) return
      crafts.value = found.flatMap(one => (one.status === 'fulfilled' ? [one.value] : []))
      problem.value = found
        .flatMap((one, i) => (one.status === 'rejected' ? [`${keys[i]}: ${sentenceOf(one.reason)}`] : []))
        .join(' ')
    } catch (error) {
      if (mine === asked) problem.value = sentenceOf(error)
    } finally {
      if (mine === asked) loading.value = false
    }
  }
  return { crafts, problem, loading, load }
})

import { defineStore } from 'pinia'
import { ListingBiasTable, listingObservations } from '#core/mass/listings'
import { defaultLoadout, estimatesOf } from '#core/mass/loadout'
import { overviewOf } from '#core/mass/report'
import { wholeBuild } from '#shared/schemas/lean-build'
import type { DayReply, JournalReply, TouchedReply, WeightsReply } from '#shared/schemas/api'
import type { ToldEntry } from '#shared/schemas/journal'

/** A state of the build that is looked at. */
export interface LookedAt extends DayReply {
  readonly seq: number
}

/** A build as it was on another day: looking changes nothing. */
export const useLookingBackStore = defineStore('looking back', () => {
  const rules = useRulesStore()
  const store = useBuildStore()
  const moments = shallowRef<WeightsReply['moments']>([])
  const marks = shallowRef<readonly ToldEntry[]>([])
  /** Of which build, and of which revision, the weights are. */
  const weightsOf = ref('')
  const problem = ref('')
  const state = shallowRef<LookedAt | null>(null)
  /** A second day, held to compare with. */
  const held = shallowRef<LookedAt | null>(null)
  /** The entry asked for; what is shown may still be that of the one before. */
  const wanted = ref<number | null>(null)

  const honestyOf = ({ honestyElsewhere, build }: DayReply) =>
    new ListingBiasTable([...honestyElsewhere, ...listingObservations(build.lines)])
  /** What is needed to compare a state with another. */
  const comparedOf = (looked: DayReply) => ({
    build: looked.build,
    choice: defaultLoadout(looked.build),
    estimates: estimatesOf(looked.build, honestyOf(looked)),
  })
  const honesty = computed(() => (state.value ? honestyOf(state.value) : null))
  const compared = computed(() => (state.value ? comparedOf(state.value) : null))
  const heldCompared = computed(() => (held.value ? comparedOf(held.value) : null))
  /** The build as it is, in what it is flown as: a day is held against that, whatever loadout is on view elsewhere. */
  const today = computed(() =>
    store.build ? { build: store.build, choice: defaultLoadout(store.build), estimates: store.estimates } : null,
  )
  const overviewIn = (one: ReturnType<typeof comparedOf> | null) =>
    one ? overviewOf(one.build, one.choice, rules.cards, one.estimates) : null
  const todayOverview = computed(() => overviewIn(today.value))
  const overview = computed(() => overviewIn(compared.value))

  const path = (rest: string) => `/api/builds/${encodeURIComponent(store.build!.id)}/${rest}`
  async function loadWeights() {
    await store.settled()
    if (!store.build) return
    const of = `${store.build.id} ${store.revision}`
    if (weightsOf.value === of) return
    const [weights, marked] = await Promise.all([
      askServer<WeightsReply>(path('weights')),
      askServer<JournalReply>(path('journal/marks')),
    ])
    if (!store.build || !of.startsWith(`${store.build.id} `)) return
    moments.value = weights.moments
    marks.value = marked.entries
    weightsOf.value = of
  }

  let asking: Promise<void> | null = null
  async function fetchWanted() {
    while (wanted.value !== null && wanted.value !== state.value?.seq) {
      const [seq, id] = [wanted.value, store.build!.id]
      const reply = await askServer<DayReply>(path(`days/${seq}`))
      if (store.build?.id !== id || wanted.value === null) return
      state.value = { ...reply, build: wholeBuild(reply.build), seq }
    }
  }
  /** Looks at the build after an entry. While an answer is on its way only the last wish is kept. */
  function look(seq: number): Promise<void> {
    wanted.value = seq
    problem.value = ''
    asking ??= fetchWanted()
      .catch(error => {
        problem.value = sentenceOf(error)
        wanted.value = state.value?.seq ?? null
      })
      .finally(() => {
        asking = null
      })
    return asking
  }
  function leave() {
    wanted.value = null
    state.value = null
    held.value = null
    problem.value = ''
  }
  /** Which lines changed between two entries, and by what. */
  const touched = async (from: number, to: number) =>
    (await askServer<TouchedReply>(path(`touched?from=${from}&to=${to}`))).lines

  /** What was written on the day of a state, up to it, newest first. */
  async function dayEntries({ seq, at }: Pick<LookedAt, 'seq' | 'at'>): Promise<readonly ToldEntry[]> {
    const { entries } = await askServer<JournalReply>(path(`journal?before=${seq + 1}`))
    return entries.filter(entry => localDay(entry.at) === localDay(at))
  }

  async function mark(seq: number, words: string): Promise<void> {
    await askServer(path(`journal/${seq}`), { method: 'PATCH', body: { mark: words } })
    weightsOf.value = ''
    store.marked(seq, words)
  }
  watch(
    () => store.build?.id,
    () => {
      leave()
      moments.value = []
      marks.value = []
      weightsOf.value = ''
    },
  )

  return {
    moments,
    marks,
    weightsOf,
    problem,
    state,
    held,
    wanted,
    honesty,
    compared,
    heldCompared,
    overview,
    today,
    todayOverview,
    loadWeights,
    look,
    leave,
    touched,
    dayEntries,
    mark,
  }
})

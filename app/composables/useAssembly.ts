import {
  assemblyOf,
  expectedAfter,
  progressOf,
  recordOf,
  sequenceOf,
  standingOf,
  type AssemblyStep,
  type StepRecord,
} from '#core/making/assembly'

/** The sequence of the open build in the loadout looked at, the step somebody is at, and what is done to its record. */
export function useAssembly() {
  const store = useBuildStore()
  const route = useRoute()
  const router = useRouter()

  const assembly = computed(() => assemblyOf(store.build!))
  const ordered = computed(() => sequenceOf(store.build!, store.choice))
  const steps = computed<readonly AssemblyStep[]>(() => ('steps' in ordered.value ? ordered.value.steps : []))
  const cycle = computed(() => ('cycle' in ordered.value ? ordered.value.cycle : null))
  const standings = computed(
    () => new Map(steps.value.map(step => [step.id, standingOf(steps.value, assembly.value, step)])),
  )
  const progress = computed(() => progressOf(steps.value, assembly.value))

  /** The step chosen; the address follows it, and it follows the address. */
  const chosen = ref(String(route.query.step ?? ''))
  watch(
    () => route.query.step,
    id => {
      if (id) chosen.value = String(id)
    },
  )
  watch(
    () => store.build?.id,
    () => {
      chosen.value = String(route.query.step ?? '')
    },
  )
  /** The step chosen, else the first that is open. */
  const at = computed(() => {
    const named = steps.value.findIndex(step => step.id === chosen.value)
    if (named >= 0) return named
    return Math.max(
      0,
      steps.value.findIndex(step => step.id === progress.value.next?.id),
    )
  })
  const step = computed(() => steps.value[at.value] ?? null)
  const record = computed(() => (step.value ? recordOf(assembly.value, step.value.id) : null))
  const expected = computed(() =>
    step.value ? expectedAfter(steps.value, step.value.id, store.build!, store.choice, store.estimates) : null,
  )

  function goTo(id: string) {
    chosen.value = id
    void router.replace({ query: { ...route.query, view: undefined, step: id } })
  }
  function go(by: -1 | 1) {
    const next = steps.value[at.value + by]
    if (next) goTo(next.id)
  }
  function put(fields: Partial<Omit<StepRecord, 'stepId'>>, id = step.value?.id): boolean {
    return id !== undefined && store.run({ type: 'assembly.record', stepId: id, fields })
  }
  /** Minutes since the clock of the step was started, to the tenth; null where it was not, or the builder has said them. */
  function minutesOfClock(of: StepRecord): number | null {
    if (of.minutes !== null || of.startedAt === null) return of.minutes
    return Math.min(6000, Math.max(0, Math.round((Date.now() - Date.parse(of.startedAt)) / 6000) / 10))
  }
  /** Ticks the step and goes on to the next; unticks one that is done. */
  function tick() {
    if (!step.value || !record.value) return
    if (record.value.doneAt !== null) {
      put({ doneAt: null, test: null, overriddenWhy: '' })
      return
    }
    const next = steps.value[at.value + 1]
    if (put({ doneAt: new Date().toISOString(), minutes: minutesOfClock(record.value), skippedWhy: null }) && next)
      goTo(next.id)
  }
  return {
    assembly,
    steps,
    cycle,
    standings,
    progress,
    at,
    step,
    record,
    expected,
    goTo,
    go,
    put,
    tick,
    minutesOfClock,
  }
}
export type AssemblyRun = ReturnType<typeof useAssembly>

import { shaveListOf, slipFactorOf, type ShavingGoal, type ShownPlan } from '#core/deciding/shave'
import type { FrontierPoint, ShaveReply, ShaveRequest } from '~/workers/shave.worker'

/** The plan for the open build, worked out in a worker whenever the list, the ledger or the goal has changed. */
export function useShavePlan() {
  const store = useBuildStore()
  const rules = useRulesStore()
  const settings = useSettingsStore()
  const goal = ref<ShavingGoal>({ kind: 'clear' })
  const withFrontier = ref(false)
  const plan = shallowRef<ShownPlan | null>(null)
  const others = shallowRef<readonly ShownPlan[]>([])
  const frontier = shallowRef<readonly FrontierPoint[]>([])
  /** What the plan would be with the one shaving asked about turned: forced in where it is out, left out where it is in. */
  const turned = shallowRef<{ readonly id: string; readonly plan: ShownPlan } | null>(null)
  const busy = ref(false)
  const progress = ref<{ done: number; of: number } | null>(null)
  const failure = ref('')
  const seconds = ref(10)

  let worker: Worker | null = null
  let number = 0
  /** A solver that falls silent for much longer than it was given is taken for dead. */
  const silence = useTimeoutFn(
    () => stop('The solver fell silent and was ended. The list is as it was; ask again.'),
    () => (seconds.value + 15) * 1000,
    { immediate: false },
  )
  function start(): Worker {
    const made = new Worker(new URL('../workers/shave.worker.ts', import.meta.url), { type: 'module' })
    made.addEventListener('message', take)
    // A worker that dies says nothing more: its place is taken by the next, and the builder is told.
    made.addEventListener('error', () => stop('The solver stopped. The list is as it was; ask again.'))
    return made
  }
  function take({ data }: MessageEvent<ShaveReply>) {
    if (data.kind === 'ready' || data.number !== number) return
    silence.start()
    if (data.kind === 'plan') plan.value = data.plan
    else if (data.kind === 'turned') {
      turned.value = { id: data.id, plan: data.plan }
      finish('')
    } else if (data.kind === 'other') others.value = [...others.value, data.plan]
    else if (data.kind === 'point') {
      frontier.value = [...frontier.value, data.point]
      progress.value = { done: data.done, of: data.of }
    }
    // After a failure the next question goes to a fresh worker.
    else if (data.kind === 'failed') stop(data.sentence)
    else finish('')
  }
  function finish(sentence: string) {
    silence.stop()
    busy.value = false
    progress.value = null
    failure.value = sentence
  }
  function question() {
    number++
    busy.value = true
    failure.value = ''
    progress.value = null
    silence.start()
    return {
      number,
      build: toRaw(store.build!),
      choice: { ...store.choice },
      cards: rules.cards.map(card => toRaw(card)),
      honestyElsewhere: [...store.honestyElsewhere],
      goal: { ...goal.value },
      slipFactor: slipFactorOf[settings.settings.hand],
      seconds: seconds.value,
    }
  }
  function send(request: ShaveRequest) {
    worker ??= start()
    worker.postMessage(request)
  }
  function ask() {
    if (!store.build || store.build.reference) return
    others.value = []
    frontier.value = []
    turned.value = null
    send({ kind: 'plan', ...question(), frontier: withFrontier.value })
  }
  /** Asks what the plan would cost with one shaving turned; not while the plan itself is being worked out. */
  function askTurned(id: string, lock: 'in' | 'out') {
    if (store.build && !busy.value) send({ kind: 'turned', ...question(), id, lock })
  }
  /** Gives the search three times as long: it goes on where it was, or starts anew where its worker was ended. */
  function goOn() {
    seconds.value *= 3
    if (!worker || failure.value) {
      ask()
      return
    }
    number++
    busy.value = true
    silence.start()
    send({ kind: 'go on', number, seconds: seconds.value })
  }
  /** Ends what is being worked out at once. */
  function stop(sentence = '') {
    worker?.terminate()
    worker = null
    number++
    finish(sentence)
  }
  const list = computed(() => (store.build ? shaveListOf(store.build) : null))
  onMounted(() => {
    worker ??= start()
  })
  watchDebounced(
    [
      () => store.build?.id,
      () => store.build?.lines,
      () => store.build?.aim,
      list,
      () => store.choice,
      goal,
      withFrontier,
      () => rules.cards,
      () => settings.settings.hand,
    ],
    ask,
    { debounce: 80, immediate: true },
  )
  onScopeDispose(() => worker?.terminate())

  return {
    goal,
    withFrontier,
    plan,
    others,
    frontier,
    turned,
    busy,
    progress,
    failure,
    ask,
    askTurned,
    goOn,
    stop,
    list,
  }
}

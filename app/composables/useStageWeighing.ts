import { fixed, signed } from '#core/text/display'
import { CoreInputError } from '#core/basics/errors'
import { makeLine, makeMass, type Line, type Observation } from '#core/model/ledger'
import { differenceAsMass, isComparable, reconcile } from '#core/mass/observation'
import { placeOf, takeInLifts, takeObservation, takeTogether, usualBasis, type Taking } from '#core/deciding/weigh'
import { nameSchema } from '#core/text/schemas'
import type { Pan } from './usePan'

/** Several lines weighed together: what the scale says against the ledger, what could explain a difference, and keeping it. */
export function useStageWeighing(
  pan: Pick<Pan, 'display' | 'taking' | 'leave' | 'type'>,
  lines: ComputedRef<readonly Line[]>,
  title: Ref<string>,
) {
  const store = useBuildStore()
  const scales = useScalesStore()
  const lifts = ref<number[]>([])
  const message = ref('')
  const others = computed(() =>
    store.build!.lines.filter(line => line.state === 'fitted' && !lines.value.some(on => on.id === line.id)),
  )

  /** What would be kept from the display as it is now, or from the lifts so far. */
  const draft = computed<Observation | null>(() => {
    const by = pan.taking('draft')
    const { massG } = pan.display.value
    if (!by || lines.value.length === 0) return null
    const displays = lifts.value.length > 0 ? lifts.value : massG === null ? [] : [massG]
    if (displays.length === 0) return null
    try {
      return takeObservation(by, title.value, lines.value, displays, 'held')
    } catch (error) {
      if (error instanceof CoreInputError) return null
      throw error
    }
  })
  /** Nothing is compared with an empty pan, nor with the first of several lifts. */
  const compared = computed(() => {
    if (!draft.value || lifts.value.length === 1) return null
    const found = reconcile(draft.value, store.build!, others.value, store.honesty)
    return isComparable(draft.value.valueG, found.expected.valueG) ? found : null
  })
  /** What contradicts the ledger by very much is taken in only when it was said twice. */
  let saidAtMs = -Infinity
  const farOff = 4
  const soonMs = 20_000
  const suspectWords = computed(() =>
    (compared.value?.suspects ?? []).slice(0, 4).flatMap(suspect => {
      const line = store.lineOf(suspect.lineId)
      if (!line) return []
      const name = lineTitle(line)
      const words =
        suspect.why === 'its spread'
          ? `could explain ${signed(suspect.explainsG, 2)} g, ${fixed(suspect.stretch, 1)} times its own spread`
          : suspect.why === 'not on the pan'
            ? 'weighs just what is missing: is it on the pan, or booked twice?'
            : 'weighs just what is too much: is it on the pan?'
      return [{ name, words }]
    }),
  )

  function mayTake(): boolean {
    if (lifts.value.length > 0) return true
    const { massG, reason } = pan.display.value
    message.value = reason || (massG === null ? 'Nothing is on the pan.' : '')
    if (!message.value && scales.current && massG! > scales.current.capacityG)
      message.value = `More than ${scales.current.name} carries. Add it in two lifts.`
    return message.value === ''
  }
  /** What Enter does where a figure is typed: takes it in where nothing speaks against it, else asks what to do. */
  function enter() {
    if (compared.value && !compared.value.agrees && mayTake())
      message.value = 'It does not agree with the ledger: say below what to do with it.'
    else keep('taken in')
  }
  watch(lines, () => {
    saidAtMs = -Infinity
  })
  function addLift() {
    if (!pan.display.value.reason && pan.display.value.massG !== null) {
      lifts.value = [...lifts.value, pan.display.value.massG]
      pan.leave(pan.display.value.massG)
      pan.type('')
      message.value = ''
    } else {
      message.value = pan.display.value.reason || 'Nothing is on the pan.'
    }
  }
  function keep(state: Observation['state']) {
    if (lifts.value.length === 0 && !mayTake()) return
    const named = nameSchema('The name').safeParse(title.value.trim())
    if (!named.success) {
      message.value = named.error.issues[0]!.message
      return
    }
    const by = pan.taking(newId())
    if (state === 'taken in' && draft.value && !compared.value) {
      message.value =
        lifts.value.length === 1
          ? 'That is the first lift: put the rest on and add it too.'
          : 'That is far less than these lines weigh: put all of it on the pan.'
      return
    }
    if (state === 'taken in' && draft.value && compared.value) {
      const below = compared.value.belowNothing.map(id => store.lineOf(id)).find(line => line)
      if (below) {
        message.value =
          `Taken in, ${lineTitle(below)} would weigh less than nothing. Something booked is not on the ` +
          `pan: say below what it is, or hold the weighing.`
        return
      }
      if (Math.abs(compared.value.z) > farOff && performance.now() - saidAtMs > soonMs) {
        saidAtMs = performance.now()
        message.value =
          `It is ${fixed(Math.abs(compared.value.z), 0)} times its own spread off the ledger. Once more ` +
          `takes it in all the same.`
        return
      }
    }
    if (!by || !draft.value) {
      message.value =
        lines.value.length === 0
          ? 'Say what is on the pan: at least one line.'
          : 'That comes out below nothing, or no scale is known: type what it shows.'
      return
    }
    const alone = state === 'taken in' && lines.value.length === 1 ? store.lineOf(lines.value[0]!.id) : undefined
    if (alone?.quantity === lines.value[0]!.quantity) {
      keepAlone(by, alone, draft.value.displaysG)
      return
    }
    const observation = takeObservation(by, named.data, lines.value, draft.value.displaysG, state)
    if (!store.run({ type: 'observation.put', observation })) {
      message.value = store.refusal
      return
    }
    message.value =
      state === 'taken in'
        ? 'Taken in: every loadout with these parts profits.'
        : 'Held: it says nothing about the lines until it is taken in.'
    if (lifts.value.length === 0) pan.leave(observation.displaysG[0]!)
    lifts.value = []
    pan.type('')
  }
  /** A line on the pan by itself is a weighing of that line. */
  function keepAlone(by: Taking, line: Line, displaysG: readonly number[]) {
    const mass =
      displaysG.length === 1
        ? takeTogether(by, line, displaysG, line.quantity, usualBasis(line))
        : takeInLifts(by, line, displaysG, usualBasis(line))
    if (
      !store.run({
        type: 'line.weigh',
        id: line.id,
        mass,
        as: placeOf(mass, line, store.build!, store.estimates, store.honesty),
      })
    ) {
      message.value = store.refusal
      return
    }
    message.value = `Taken for ${lineTitle(line)}.`
    if (lifts.value.length === 0) pan.leave(displaysG[0]!)
    lifts.value = []
    pan.type('')
  }
  /** Books what the scale shows beyond the ledger as a line of its own. */
  function bookDifference() {
    if (!draft.value || !compared.value || (lifts.value.length === 0 && !mayTake())) return
    const by = pan.taking(newId())!
    const observation = takeObservation(by, title.value, lines.value, draft.value.displaysG, 'set aside')
    const difference = differenceAsMass(observation, store.build!.lines, store.honesty)
    if (difference.valueG < 0) {
      message.value =
        'The scale shows less than is booked: something is booked twice or heavier in the ledger than it is.'
      return
    }
    const line = makeLine({
      id: newId(),
      slot: 'other',
      name: `Not booked before: ${title.value}`.slice(0, 120),
      mass: makeMass({
        versionId: newId(),
        evidence: 'weighed',
        valueG: difference.valueG,
        resolutionG: by.ready.scale.resolutionG,
        origin: `difference on ${by.ready.name}`,
        weighing: {
          takenAt: by.takenAt,
          scaleId: by.ready.scale.id,
          scaleName: by.ready.name,
          checkId: by.ready.check?.id ?? null,
          method: 'booked difference',
          displaysG: observation.displaysG,
          tare: by.tare,
          contributions: difference.contributions,
          supersedes: null,
        },
      }),
    })
    if (
      !store.run({ type: 'lines.add', lines: [line], beforeId: null }, `what ${title.value} showed beyond its parts`)
    ) {
      message.value = store.refusal
      return
    }
    message.value = `Booked ${fixed(difference.valueG, 2)} g as a line.`
    if (lifts.value.length === 0) pan.leave(observation.displaysG[0]!)
    lifts.value = []
  }

  return { lifts, message, draft, compared, suspectWords, addLift, keep, enter, bookDifference }
}

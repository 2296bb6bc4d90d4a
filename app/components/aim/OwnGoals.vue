<script setup lang="ts">
import { centsFigure, fixed, minutesBand, minutesFigure, priceWords, percentFigure, percentSure } from '#core/text/display'
import type { RestsOn, TaughtPlan } from '#core/aircraft/flown'
import { flightPlanOf, goalChance, sheetFlight } from '#core/aircraft/flight'
import { isNotRead, readCents, readGrams, readNumber } from '#core/text/units'
import type { Aim } from '#core/model/ledger'
import type { BuildFields } from '#core/slices/head'
import { shortTextSchema } from '#core/text/schemas'

const store = useBuildStore()
const flown = useFlightsStore()
const { settings } = storeToRefs(useSettingsStore())
const problems = reactive<Record<string, string>>({})
const aim = computed(() => store.build!.aim)

function set(fields: BuildFields) {
  store.run({ type: 'build.set', fields })
}
/** Reads a field; writes it when it can be read, otherwise says why and leaves the build as it is. */
function change(key: keyof Aim, event: Event, read: (text: string) => { value: unknown } | { problem: string }) {
  const result = read((event.target as HTMLInputElement).value)
  problems[key] = 'problem' in result ? result.problem : ''
  if ('value' in result) set({ aim: { [key]: result.value } })
}
const grams = (optional: boolean) => (text: string) => {
  if (text.trim() === '') return { value: optional ? null : 0 }
  const read = readGrams(text)
  return isNotRead(read) ? read : { value: read.massG }
}
function minutes(text: string) {
  if (text.trim() === '') return { value: null }
  const read = readNumber(text)
  if (isNotRead(read)) return read
  return read.value >= 0 && read.value <= 600 ? { value: read.value } : { problem: 'Minutes lie between 0 and 600.' }
}
function money(text: string) {
  const read = readCents(text)
  return isNotRead(read) ? read : { value: read.cents }
}
function confidence(text: string) {
  const read = readNumber(text.replace('%', ''))
  if (isNotRead(read)) return read
  return read.value >= 50 && read.value <= 99.99
    ? { value: read.value / 100 }
    : { problem: 'Confidence lies between 50 and 99.99 %.' }
}
function purpose(text: string) {
  const parsed = shortTextSchema('The purpose').safeParse(text.trim())
  return parsed.success ? { value: parsed.data } : { problem: parsed.error.issues[0]!.message }
}
function craftClass(event: Event) {
  const parsed = shortTextSchema('The craft class').safeParse((event.target as HTMLInputElement).value.trim())
  problems.craftClass = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) set({ craftClass: parsed.data })
}
/** Met only where every price is said: what nobody has priced costs something too. */
function priceGoal(goalCents: number): string {
  const { priceCents, unpricedLines } = store.overview!
  const { currency } = settings.value
  const met =
    priceCents > goalCents
      ? 'more than planned'
      : unpricedLines > 0
        ? `${unpricedLines} ${unpricedLines === 1 ? 'price is' : 'prices are'} not said`
        : 'met'
  return `Fitted parts ${priceWords(priceCents, unpricedLines, currency)} of ${centsFigure(goalCents)} ${currency}: ${met}.`
}
const goalWords = computed(() => {
  const { overview } = store
  const out: string[] = []
  if (aim.value.goalDryG !== null)
    out.push(
      `Dry ${fixed(overview!.dry.valueG, 1)} of ${fixed(aim.value.goalDryG, 1)} g: ` +
        `${overview!.dry.valueG <= aim.value.goalDryG ? 'met' : `${fixed(overview!.dry.valueG - aim.value.goalDryG, 1)} g too much`}.`,
    )
  if (aim.value.goalPriceCents !== null) out.push(priceGoal(aim.value.goalPriceCents))
  if (aim.value.goalMinutes !== null) {
    const plan = flightPlanOf(store.build!, lessonsFor(flown, store.build!.id))
    const { forecast } = sheetFlight(store.build!, store.choice, overview!.massG, plan)
    if (forecast && forecast.why === null)
      out.push(
        `Minutes ${minutesBand(forecast.hardMinutes, forecast.gentleMinutes)} of ` +
          `${minutesFigure(aim.value.goalMinutes)} as it is flown: ` +
          `${minutesMet(forecast, aim.value.goalMinutes)}${chanceWords(aim.value.goalMinutes, plan, forecast.restsOn)}.`,
      )
  }
  return out
})

/** How many flights of a hundred reach it, and on what that rests. */
function chanceWords(goal: number, plan: TaughtPlan, restsOn: RestsOn | null): string {
  const chance = goalChance(store.build!, store.choice, store.estimates, plan, goal)
  if (chance === null) return ''
  return `; a flight reaches it in ${percentSure(chance)} (${restsOnWords(restsOn) || 'before any flight'})`
}

function minutesMet(
  { hardMinutes, minutes, gentleMinutes }: { hardMinutes: number, minutes: number, gentleMinutes: number },
  goal: number,
): string {
  if (hardMinutes >= goal) return 'met even when flown hard'
  if (minutes >= goal) return 'met in the middle of the band'
  return gentleMinutes >= goal ? 'only when flown gently' : 'short of it'
}
</script>

<template>
  <div class="fields">
    <label class="field">Craft class<EditField
      :value="store.build!.craftClass"
      @change="craftClass"
    /></label>
    <label class="field">Purpose<EditField
      :value="aim.purpose"
      placeholder="ridge walks in summer"
      @change="change('purpose', $event, purpose)"
    /></label>
    <label class="field">Reserve to keep free, g<EditField
      :value="aim.reserveG"
      class="figure"
      inputmode="decimal"
      @change="change('reserveG', $event, grams(false))"
    /></label>
    <label class="field">Confidence for a verdict, %<EditField
      :value="percentFigure(aim.confidence)"
      class="figure"
      inputmode="decimal"
      @change="change('confidence', $event, confidence)"
    /></label>
    <label class="field">Own goal, dry mass, g<EditField
      :value="aim.goalDryG ?? ''"
      class="figure"
      inputmode="decimal"
      @change="change('goalDryG', $event, grams(true))"
    /></label>
    <label class="field">Own goal, minutes<EditField
      :value="aim.goalMinutes ?? ''"
      class="figure"
      inputmode="decimal"
      @change="change('goalMinutes', $event, minutes)"
    /></label>
    <label class="field">Own goal, money, {{ settings.currency }}<EditField
      :value="aim.goalPriceCents === null ? '' : centsFigure(aim.goalPriceCents)"
      class="figure"
      inputmode="decimal"
      @change="change('goalPriceCents', $event, money)"
    /></label>
  </div>
  <template
    v-for="(sentence, key) in problems"
    :key="key"
  >
    <p
      v-if="sentence"
      class="problem"
      role="alert"
    >
      {{ sentence }}
    </p>
  </template>
  <p
    v-for="words in goalWords"
    :key="words"
    class="soft"
  >
    {{ words }}
  </p>
</template>

<script setup lang="ts">
import { applicableCards, cardName, limitInWords, mayCount } from '#core/limits/rules'
import { nameSchema } from '#core/text/schemas'
import type { Aim } from '#core/model/ledger'

const store = useBuildStore()
const rules = useRulesStore()
const nameProblem = ref('')
const aim = computed(() => store.build!.aim)
const places = computed(() => [...new Set(rules.cards.map(card => card.place))])
const applicable = computed(() => applicableCards(rules.cards, aim.value))
const offered = computed(() => [
  ...applicable.value,
  ...rules.cards.filter(card => aim.value.cardIds.includes(card.id) && !applicable.value.includes(card)),
])

function set(fields: Partial<Aim>) {
  store.run({ type: 'build.set', fields: { aim: fields } })
}
function toggle(list: readonly string[], item: string): string[] {
  return list.includes(item) ? list.filter(other => other !== item) : [...list, item]
}
function rename(event: Event) {
  const input = event.target as HTMLInputElement
  const named = nameSchema('The build’s name').safeParse(input.value.trim())
  nameProblem.value = named.success ? '' : named.error.issues[0]!.message
  if (named.success && named.data !== store.build!.name) store.run({ type: 'build.set', fields: { name: named.data } })
}
const print = () => window.print()
</script>

<template>
  <main class="worksheet">
    <div class="station-head">
      <h1>Aim</h1><span class="gap" /><el-button
        class="no-print"
        @click="print"
      >
        Print what applies
      </el-button>
    </div>
    <StationSays page="aim" />
    <div class="columns">
      <section
        class="answers no-print"
        aria-label="Your answers"
      >
        <label class="field">Name<EditField
          :value="store.build!.name"
          :aria-invalid="nameProblem !== ''"
          @change="rename"
        /></label>
        <p
          v-if="nameProblem"
          class="problem"
          role="alert"
        >
          {{ nameProblem }}
        </p>
        <h3>1. Where will it fly?</h3>
        <el-checkbox
          v-for="place in places"
          :key="place"
          :model-value="aim.places.includes(place)"
          @change="set({ places: toggle(aim.places, place) })"
        >
          {{ place }}
        </el-checkbox>
        <h3>2. What for?</h3>
        <el-radio-group
          class="stacked"
          :model-value="aim.purposeKind"
          aria-label="What for"
          @change="set({ purposeKind: $event as typeof aim.purposeKind })"
        >
          <el-radio value="recreation">
            recreation
          </el-radio>
          <el-radio value="other">
            anything else: paid, or in furtherance of a business
          </el-radio>
        </el-radio-group>
        <h3>3. Which of these cards count?</h3>
        <p
          v-if="offered.length === 0"
          class="soft"
        >
          Say where it will fly, and the cards of that place stand here.
        </p>
        <el-checkbox
          v-for="card in offered"
          :key="card.id"
          :model-value="aim.cardIds.includes(card.id)"
          @change="set({ cardIds: toggle(aim.cardIds, card.id) })"
        >
          <span>{{ cardName(card) }}, <span class="soft">{{ limitInWords(card) }}</span><span
            v-if="!mayCount(card, aim)"
            class="word-over"
          > does not follow from your answers: it does not count</span></span>
        </el-checkbox>
        <p class="soft">
          A league’s class or a limit of your own is a card too: <NuxtLink to="/rules">add it in Rules</NuxtLink>.
        </p>
        <h3>Own goals</h3>
        <OwnGoals />
      </section>
      <section class="applies">
        <h2>Your answers → what applies</h2><DecisionPath />
      </section>
    </div>
  </main>
</template>

<style scoped>
@media print {
  .columns {
    display: block !important;
  }
}
.columns {
  display: grid;
  grid-template-columns: minmax(280px, 340px) 1fr;
  gap: 28px;
}
.applies h2 {
  margin: 2px 0 10px;
}
@media screen and (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>

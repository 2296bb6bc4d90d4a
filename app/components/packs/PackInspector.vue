<script setup lang="ts">
import { gramsWithSpread, fixed } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import { cellResistanceOf } from '#core/aircraft/currents'
import { flightPlanOf, packNotes } from '#core/aircraft/flight'
import { learntOf, packAge } from '#core/aircraft/flown'
import { coverageFactor95 } from '#core/maths/numbers'
import { packLabel, type Line, type PackFacts } from '#core/model/ledger'
import { textOf, type Properties } from '#core/model/properties'
import { cellText, editCellAt } from '#shared/sheet/edit-cell'

const props = defineProps<{ pack: Line }>()
const store = useBuildStore()
const scales = useScalesStore()
const problem = ref('')
const today = localDay()
const resistance = computed(() => (props.pack.pack ? cellResistanceOf(props.pack) : null))
const flights = useFlightsStore()
/** What the flights of this pack say of it: they take the place of what was assumed. */
const learnt = computed(() => learntOf(props.pack, flightPlanOf(store.build!, lessonsFor(flights, store.build!.id))))
const age = computed(() => props.pack.pack && packAge(props.pack.pack.capacityMah, learnt.value))
const learntWords = computed(() => {
  const { usable, resistance: flown } = learnt.value
  const on = (count: number) => (count === 1 ? 'one flight' : `${count} flights`)
  return [
    ...(usable
      ? [
          `By ${on(usable.flights)} it holds ${fixed(usable.value, 0)} ± ${fixed(coverageFactor95 * usable.u, 0)} mAh, ` +
            `${fixed(100 * age.value!.share!, 0)} % of what it was sold with.`,
        ]
      : []),
    ...(flown
      ? [
          `By ${on(flown.flights)} it resists ${fixed(flown.value, 0)} ± ${fixed(coverageFactor95 * flown.u, 0)} mΩ in all` +
            `${age.value?.grown ? `, ${fixed(age.value.grown, 1)} times as much as at first` : ''}.`,
        ]
      : []),
  ]
})
const estimate = computed(() => store.estimates.of(props.pack))

function change(fields: Partial<Line>) {
  store.run({ type: 'lines.change', changes: [{ id: props.pack.id, fields }] })
}
function edit(column: 'name' | 'grams', event: Event) {
  const edited = editCellAt(props.pack, column, (event.target as HTMLInputElement).value, newId(), scales.typed)
  problem.value = 'problem' in edited ? edited.problem : ''
  if ('fields' in edited) change(edited.fields)
}
function charged() {
  change({ properties: { ...props.pack.properties, lastChargedOn: today } })
}
</script>

<template>
  <h2>{{ packLabel(pack) }}</h2>
  <p
    v-for="note in packNotes(pack, today)"
    :key="note"
    class="note"
  >
    {{ note }}
  </p>
  <p>
    <el-button
      v-if="textOf(pack, 'lastChargedOn') !== today"
      @click="charged"
    >
      Charged today
    </el-button>
  </p>
  <div class="fields">
    <label class="field wide">What it is<EditField
      :value="pack.name"
      @change="edit('name', $event)"
    /></label>
    <label class="field">Grams<EditField
      :value="cellText(pack, 'grams')"
      inputmode="decimal"
      class="figure"
      placeholder="85.2 w"
      @change="edit('grams', $event)"
    /></label>
    <p class="known soft">
      {{
        pack.mass
          ? `${gramsWithSpread(estimate.valueG, spreadG(estimate))}, ${pack.mass.evidence}`
          : 'A letter says how they are known: w weighed, l listed.'
      }}
      <NuxtLink :to="`/builds/${store.build!.id}/weigh`">Weigh it</NuxtLink>
    </p>
  </div>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
  <PackFields
    v-if="pack.pack"
    :pack="pack.pack"
    @change="(facts: PackFacts) => change({ pack: facts })"
  />
  <PackQuestion
    v-else
    :key="pack.id"
    :name="pack.name"
    :so-far="pack.packSoFar"
    @said="(facts: PackFacts) => change({ pack: facts })"
  />
  <h3>How it is</h3>
  <p
    v-if="resistance"
    class="soft"
  >
    A cell resists {{ fixed(resistance.mohm, 1) }} mΩ,
    {{ resistance.from }}{{ resistance.from === 'assumed' ? ' from its capacity, 40 % either way' : '' }}.
  </p>
  <template v-if="learntWords.length > 0">
    <p
      v-for="words in learntWords"
      :key="words"
      data-test="pack-learnt"
    >
      {{ words }}
    </p>
    <div
      v-if="age?.isTired && textOf(pack, 'packState') !== 'tired'"
      class="note"
    >
      Its flights say that it is tired. <el-button
        size="small"
        @click="change({ properties: { ...pack.properties, packState: 'tired' } })"
      >
        Mark it tired
      </el-button>
    </div>
  </template>
  <PropertyFields
    slot-name="pack"
    :properties="pack.properties"
    @change="(properties: Properties | null) => change({ properties })"
  />
  <p>
    <NuxtLink :to="{ path: `/builds/${store.build!.id}/parts`, query: { line: pack.id } }">Price, listing, history
      and note in Parts</NuxtLink>
  </p>
</template>

<style scoped>
.known {
  align-self: end;
  margin: 0;
  font-size: 12px;
}
</style>

<script setup lang="ts">
import { gramsWithSpread, fixed } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import { cellResistanceOf } from '#core/aircraft/currents'
import { packNotes } from '#core/aircraft/flight'
import { packLabel, type Line, type PackFacts } from '#core/model/ledger'
import { textOf, type Properties } from '#core/model/properties'
import { cellText, editCellAt } from '#shared/sheet/edit-cell'

const props = defineProps<{ pack: Line }>()
const store = useBuildStore()
const scales = useScalesStore()
const problem = ref('')
const today = localDay()
const resistance = computed(() => (props.pack.pack ? cellResistanceOf(props.pack) : null))
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

<script setup lang="ts">
import { fixed, gramsWithSpread, signed } from '#core/text/display'
import { sigmaG, spreadG } from '#core/maths/estimate'
import { coverageFactor95 } from '#core/maths/numbers'
import { compareScales, weighedEstimate } from '#core/mass/scale'
import { isNotRead, readGrams } from '#core/text/units'

const scales = useScalesStore()
const firstId = ref(scales.scales[0]!.id)
const secondId = ref(scales.scales[1]!.id)
const shown = reactive({ first: '', second: '' })

function estimate(id: string, text: string) {
  const scale = scales.scales.find(s => s.id === id)
  const read = readGrams(text)
  if (!scale || isNotRead(read)) return null
  const { check, result } = scales.standings.get(id)!
  return {
    scale,
    checked: check !== null,
    estimate: weighedEstimate(
      { scale, check: check && result ? { id: check.id, result } : null },
      { id: `two-${id}`, displaysG: [read.massG], tare: { id: `tare-${id}`, displayG: 0 } },
    ),
  }
}
const problem = computed(() => {
  for (const text of [shown.first, shown.second]) {
    const read = readGrams(text)
    if (text.trim() !== '' && isNotRead(read)) return read.problem
  }
  return firstId.value === secondId.value ? 'Choose two different scales.' : ''
})
const both = computed(() => {
  const [a, b] = [estimate(firstId.value, shown.first), estimate(secondId.value, shown.second)]
  if (!a || !b || problem.value) return null
  const compared = compareScales(a.estimate, b.estimate)
  const better = sigmaG(a.estimate) <= sigmaG(b.estimate) ? a : b
  const why =
    better.checked && !(better === a ? b : a).checked
      ? 'it was checked and the other was not'
      : 'its own spread is smaller'
  return { compared, better, why, unchecked: [a, b].filter(s => !s.checked).map(s => s.scale.name) }
})
</script>

<template>
  <section
    class="panel"
    aria-label="Two scales"
  >
    <h2>The same thing on two scales</h2>
    <p class="soft">
      Scales rarely agree. Put one part on both and type what each shows.
    </p>
    <div class="pair">
      <PickOne
        v-model="firstId"
        label="First scale"
        :options="scales.scales.map((scale) => ({ value: scale.id, label: scale.name }))"
      /><el-input
        v-model="shown.first"
        class="figure"
        inputmode="decimal"
        placeholder="g"
        aria-label="Shown by the first"
      />
      <PickOne
        v-model="secondId"
        label="Second scale"
        :options="scales.scales.map((scale) => ({ value: scale.id, label: scale.name }))"
      /><el-input
        v-model="shown.second"
        class="figure"
        inputmode="decimal"
        placeholder="g"
        aria-label="Shown by the second"
      />
    </div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <div
      v-if="both"
      data-test="two-scales"
    >
      <p>
        They differ by <b class="figure">{{ signed(both.compared.differenceG, 3) }} g</b> once corrected; together
        they claim ± <span class="figure">{{ fixed(coverageFactor95 * both.compared.sigmaG, 3) }}</span>.
        <b>{{ both.compared.agree ? 'They agree.' : 'They do not agree.' }}</b>
      </p>
      <p v-if="both.compared.combined">
        Both together: <b class="figure">{{ gramsWithSpread(both.compared.combined.valueG, spreadG(both.compared.combined)) }}</b>
      </p>
      <p v-else>
        Trust the {{ both.better.scale.name }} for now: {{ both.why }}.
        {{
          both.unchecked.length > 0
            ? `Check the ${both.unchecked.join(' and the ')} with a reference mass: one of them is off.`
            : 'One of the two checks no longer holds: check both again.'
        }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 110px 1fr 110px;
  gap: 8px;
  max-width: 760px;
  margin: 8px 0;
}
@media screen and (max-width: 760px) {
  .pair {
    grid-template-columns: 1fr 110px;
  }
}
</style>

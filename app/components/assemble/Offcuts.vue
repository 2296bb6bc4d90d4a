<script setup lang="ts">
import { fixed, gramsWithSpread } from '#core/text/display'
import { CoreInputError } from '#core/basics/errors'
import { spreadG } from '#core/maths/estimate'
import type { Line } from '#core/model/ledger'
import { takeByDifference } from '#core/deciding/weigh'

/** What was cut off a line, lying on the pan: the line weighs so much less from now on. */
const props = defineProps<{ line: Line }>()
const store = useBuildStore()
const scales = useScalesStore()
const pan = usePan()
const message = ref('')
function take() {
  const { massG, reason } = pan.display.value
  const by = pan.taking(newId())
  if (reason || massG === null) {
    message.value = reason || 'Nothing is on the pan.'
    return
  }
  if (!by) {
    message.value = 'Say first which scale this is, under Scales.'
    return
  }
  try {
    const mass = takeByDifference(by, props.line, massG, 0, store.honesty)
    if (
      !store.run(
        { type: 'line.weigh', id: props.line.id, mass, as: 'another piece' },
        `${fixed(massG, 2)} g cut off, weighed`,
      )
    ) {
      message.value = store.refusal
      return
    }
    pan.leave(massG)
    pan.type('')
    message.value = `${fixed(massG, 2)} g taken off the line.`
  } catch (error) {
    if (!(error instanceof CoreInputError)) throw error
    message.value = 'More was cut off than the line weighs: look at the reading.'
  }
}
</script>

<template>
  <section
    class="offcuts"
    aria-label="What was cut off"
  >
    <span>{{ lineTitle(line) }}: {{ gramsWithSpread(store.estimates.of(line).valueG, spreadG(store.estimates.of(line))) }}</span>
    <label class="hand">Offcuts on the pan, g<el-input
      :model-value="pan.typed.value"
      class="figure"
      inputmode="decimal"
      :placeholder="pan.display.value.massG === null ? 'g' : fixed(pan.display.value.massG, 2)"
      @update:model-value="pan.type($event)"
    /></label>
    <el-button
      :disabled="!line.mass || !scales.current"
      @click="take"
    >
      Take it off the line
    </el-button>
    <p
      v-if="message"
      role="status"
    >
      <b>{{ message }}</b>
    </p>
  </section>
</template>

<style scoped>
.offcuts {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 10px;
}
.hand {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.hand .el-input {
  width: 100px;
}
p {
  flex-basis: 100%;
  margin: 0;
}
@media screen and (max-width: 760px) {
  button {
    min-height: 48px;
  }
}
</style>

<script setup lang="ts">
import { decimalsFor, fixed } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import type { Line } from '#core/model/ledger'
import type { WeighRun } from '~/composables/useWeighRun'

const props = defineProps<{ run: WeighRun }>()
const store = useBuildStore()
const lines = computed(() =>
  props.run.ids.value.flatMap((id, index) => {
    const line = store.lineOf(id)
    return line ? [{ line, index, grams: grams(line) }] : []
  }),
)
function grams(line: Line): string {
  if (!line.mass) return 'open'
  const estimate = store.estimates.of(line)
  return fixed(estimate.valueG, decimalsFor(spreadG(estimate)))
}
const list = useTemplateRef<HTMLElement>('list')
watch(
  () => props.run.at.value,
  async () => {
    await nextTick()
    list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <div class="run-list">
    <PickOne
      class="order"
      label="Order"
      :model-value="run.order.value"
      :options="[{ value: 'by spread', label: 'widest first' }, { value: 'as listed', label: 'bench order' }]"
      @update:model-value="run.begin($event as typeof run.order.value)"
    />
    <ol ref="list">
      <li
        v-for="{ line, index, grams: shown } in lines"
        :key="line.id"
      >
        <el-button
          :data-line="line.id"
          :aria-current="index === run.at.value ? 'step' : undefined"
          :class="{ current: index === run.at.value }"
          @click="run.goTo(index)"
        >
          <EvidenceSwatch
            v-if="line.mass"
            :evidence="line.mass.evidence"
          /><span
            v-else
            class="open"
          />
          <span class="name">{{ lineTitle(line) }}<small v-if="line.quantity > 1"> × {{ line.quantity }}</small></span>
          <span class="figure">{{ shown }}</span>
        </el-button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.run-list {
  width: 262px;
  flex: none;
}
.order {
  display: block;
  margin-bottom: 6px;
}
.order select {
  width: 100%;
  padding: 3px 8px;
  font-size: 12.5px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: calc(100vh - 290px);
  overflow: auto;
}
button {
  width: 100%;
  display: block;
  border: 0;
  border-radius: 6px;
  padding: 5px 8px;
  background: none;
  text-align: left;
  font-weight: 500;
  white-space: normal;
  box-shadow: none;
}
button :deep(> span) {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) auto;
  gap: 9px;
  align-items: center;
}
button:hover {
  background: var(--paper);
}
.current {
  background: var(--selection) !important;
  box-shadow: inset 3px 0 var(--plum-text);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name small {
  color: var(--ink-soft);
}
.open {
  width: 18px;
  height: 10px;
  border: 1px dashed var(--edge);
  border-radius: 2px;
}
.figure {
  font-size: 12.5px;
}
</style>

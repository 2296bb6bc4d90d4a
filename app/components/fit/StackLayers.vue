<script setup lang="ts">
import { Bottom, Close, Plus, Top } from '@element-plus/icons-vue'
import { bareSides, boardSides, layerKinds, type Layer } from '#core/aircraft/fit'
import { layerSchema } from '#core/slices/fit'
import { figure } from '#core/text/display'
import { isNotRead, readNumber } from '#core/text/units'

/** The layers of the stack from the top down: named, measured, turned and moved. `sized`: with the sizes the parts have. */
const { layers, sized } = defineProps<{ layers: readonly Layer[]; sized: readonly Layer[] }>()
const emit = defineEmits<{ save: [layers: readonly Layer[]] }>()
const chosen = defineModel<string | null>('chosen', { required: true })
const problem = ref('')
const save = (next: readonly Layer[]) => emit('save', next)
const sizeOf = (layer: Layer, key: 'heightMm' | 'widthMm' | 'lengthMm') =>
  sized.find(one => one.id === layer.id)?.[key] ?? null
/** What is asked of boards alone. */
const boardMeasures = [
  ['widthMm', 'Width'],
  ['lengthMm', 'Length'],
  ['turnDeg', 'Turn'],
] as const
const foundWords = (layer: Layer, key: 'heightMm' | 'widthMm' | 'lengthMm') => {
  const size = sizeOf(layer, key)
  return size === null ? '?' : figure(size, 2)
}
function change(layer: Layer, fields: Partial<Layer>) {
  const parsed = layerSchema.safeParse({ ...layer, ...fields })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) save(layers.map(one => (one.id === layer.id ? parsed.data : one)))
}
function measure(layer: Layer, key: 'heightMm' | 'widthMm' | 'lengthMm' | 'turnDeg', event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (text.trim() === '' && key !== 'turnDeg') {
    change(layer, { [key]: null })
    return
  }
  const read = readNumber(text)
  if (isNotRead(read)) problem.value = read.problem
  else change(layer, { [key]: read.value })
}
function add(after: number) {
  const layer: Layer = {
    id: newId(),
    name: 'Spacers',
    kind: 'spacer',
    lineId: null,
    heightMm: null,
    widthMm: null,
    lengthMm: null,
    turnDeg: 0,
    bare: 'none',
    port: null,
  }
  save([...layers.slice(0, after + 1), layer, ...layers.slice(after + 1)])
}
const layerRows = useTemplateRef<HTMLElement>('layerRows')
useReorder(layerRows, {
  handle: '.grip',
  rows: 'tr',
  moved: (from, to) => move(layers.length - 1 - from, from - to),
})
function move(at: number, by: number) {
  const next = [...layers]
  const [layer] = next.splice(at, 1)
  next.splice(at + by, 0, layer!)
  save(next)
}
</script>

<template>
  <div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <table
      v-stacks
      class="cells layers"
    >
      <colgroup>
        <col><col class="c-kind"><col
          v-for="size in 4"
          :key="size"
          class="c-size"
        ><col class="c-bare"><col class="c-port"><col class="c-acts">
      </colgroup>
      <thead>
        <tr>
          <th>From the top down, mm</th><th>Kind</th><th class="right">
            Height
          </th><th class="right">
            Wide
          </th><th class="right">
            Long
          </th><th class="right">
            Turned, °
          </th><th>Bare metal</th><th>Plug at</th><th />
        </tr>
      </thead>
      <tbody ref="layerRows">
        <tr
          v-for="(layer, i) in [...layers].reverse()"
          :key="layer.id"
          :class="{ chosen: chosen === layer.id }"
          @focusin="chosen = layer.id"
          @keydown.alt.up.prevent="i > 0 && move(layers.length - 1 - i, 1)"
          @keydown.alt.down.prevent="i < layers.length - 1 && move(layers.length - 1 - i, -1)"
        >
          <td>
            <span class="layer-name"><RowGrip /><EditField
              :value="layer.name"
              :aria-label="`Name of layer ${layer.name}`"
              @change="change(layer, { name: ($event.target as HTMLInputElement).value })"
            /></span>
          </td>
          <td>
            <PickOne
              :model-value="layer.kind"
              :label="`Kind of ${layer.name}`"
              :options="layerKinds"
              @update:model-value="change(layer, { kind: $event as Layer['kind'] })"
            />
          </td>
          <td>
            <EditField
              :value="layer.heightMm"
              class="figure short"
              :placeholder="foundWords(layer, 'heightMm')"
              inputmode="decimal"
              :aria-label="`Height of ${layer.name}`"
              @change="measure(layer, 'heightMm', $event)"
            />
          </td>
          <template v-if="layer.kind === 'board'">
            <td
              v-for="[key, words] in boardMeasures"
              :key="key"
            >
              <EditField
                :value="layer[key]"
                class="figure short"
                :placeholder="key === 'turnDeg' ? undefined : foundWords(layer, key)"
                :aria-label="`${words} of ${layer.name}`"
                @change="measure(layer, key, $event)"
              />
            </td>
          </template>
          <td
            v-else
            colspan="3"
          />
          <td>
            <PickOne
              v-if="layer.kind === 'board' || layer.kind === 'plate'"
              :model-value="layer.bare"
              :label="`Bare metal of ${layer.name}`"
              :options="bareSides"
              @update:model-value="change(layer, { bare: $event as Layer['bare'] })"
            />
          </td>
          <td>
            <PickOne
              v-if="layer.kind === 'board'"
              :model-value="layer.port ?? ''"
              :label="`Plug of ${layer.name}`"
              :options="boardSides"
              none="–"
              @update:model-value="change(layer, { port: ($event || null) as Layer['port'] })"
            />
          </td>
          <td class="acts">
            <IconButton
              :icon="Top"
              :disabled="i === 0"
              :label="`${layer.name} one up`"
              @click="move(layers.length - 1 - i, 1)"
            /><IconButton
              :icon="Bottom"
              :disabled="i === layers.length - 1"
              :label="`${layer.name} one down`"
              @click="move(layers.length - 1 - i, -1)"
            /><IconButton
              :icon="Plus"
              :label="`Spacers above ${layer.name}`"
              @click="add(layers.length - 1 - i)"
            /><IconButton
              :icon="Close"
              :label="`Take ${layer.name} out`"
              @click="save(layers.filter(l => l.id !== layer.id))"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.layers {
  table-layout: fixed;
}
.c-kind {
  width: 118px;
}
.c-size {
  width: 60px;
}
.c-bare {
  width: 88px;
}
.c-port {
  width: 80px;
}
.c-acts {
  width: 112px;
}
@media screen and (max-width: 760px) {
  .layers .acts {
    flex-basis: 100%;
  }
}
.layer-name {
  display: flex;
  align-items: center;
  gap: 4px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
  margin-top: 6px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--ink-soft);
  font-size: 11.5px;
}
th,
td {
  padding: 2px 4px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
.short {
  width: 62px;
  text-align: right;
}
tr.chosen td {
  background: var(--selection);
}
.acts {
  white-space: nowrap;
  text-align: right;
}
</style>

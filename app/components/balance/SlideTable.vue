<script setup lang="ts">
import type { SlideCell, SlideRow } from '#core/aircraft/balance'
import { packWords } from '~/utils/words'
import { sameLoadout } from '#core/mass/loadout'
import type { LoadoutChoice } from '#core/model/ledger'
import { fixed } from '#core/text/display'

/** Where each pack sits with each set-up. */
const { rows } = defineProps<{ rows: readonly SlideRow[] }>()
const emit = defineEmits<{ choose: [choice: LoadoutChoice] }>()
const store = useBuildStore()
const setups = computed(() => store.build!.setups)
const wordsOf = (id: string) => {
  const line = store.build!.lines.find(one => one.id === id)
  return line ? packWords(line) : ''
}
const toneOf = ({ choice, slide }: SlideCell) => ({
  misses: slide !== null && slide.missesMm >= 0.05,
  viewed: sameLoadout(choice, store.choice),
})
const hasTray = computed(() => rows.some(row => row.cells.some(cell => cell.slide?.frontAtMm !== null)))
</script>

<template>
  <section
    v-if="rows.length > 0"
    class="slides"
    aria-labelledby="slides-head"
  >
    <h3 id="slides-head">
      {{ hasTray ? 'Front of the pack, behind the tray’s front edge' : 'How far each pack slides' }}
    </h3>
    <table v-stacks>
      <thead>
        <tr>
          <th scope="col">
            Pack
          </th><th
            scope="col"
            class="right"
          >
            Grams
          </th><th
            v-for="setup in setups"
            :key="setup.id"
            scope="col"
          >
            {{ setup.name }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.packLineId"
        >
          <th scope="row">
            <b>{{ row.label }}</b> <small>{{ wordsOf(row.packLineId) }}</small>
          </th>
          <td class="right figure">
            {{ fixed(row.massG, 2) }}
          </td>
          <td
            v-for="cell in row.cells"
            :key="cell.choice.setupId"
            class="cell"
            :class="toneOf(cell)"
          >
            <el-button
              link
              :aria-pressed="sameLoadout(cell.choice, store.choice)"
              @click="emit('choose', cell.choice)"
            >
              <span class="figure">{{ slideCellWords(cell.slide) }}</span>
              <small v-if="cell.slide">± {{ fixed(cell.slide.spreadMm, 1) }}</small>
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: separate;
  border-spacing: 3px;
}
th {
  text-align: left;
  font-weight: 400;
  font-size: 12.5px;
  padding: 4px 6px 4px 0;
  vertical-align: bottom;
}
tbody th,
tbody td {
  vertical-align: middle;
}
thead th {
  color: var(--ink-soft);
}
tbody th :is(b, small) {
  display: inline-block;
  white-space: nowrap;
}
.right {
  text-align: right;
}
.cell {
  background: color-mix(in srgb, var(--clear) 12%, var(--card));
  padding: 2px 6px;
}
.misses {
  background: var(--beyond);
}
.misses :deep(.el-button) {
  color: var(--over);
}
.viewed {
  outline: 2px solid var(--plum-text);
  outline-offset: -1px;
  border-radius: 3px;
}
.cell :deep(.el-button) {
  width: 100%;
  justify-content: space-between;
  color: var(--ink);
  min-height: 30px;
  height: auto;
  white-space: normal;
}
.cell :deep(.el-button > span) {
  display: grid;
  width: 100%;
  gap: 2px;
  justify-items: start;
}
small {
  color: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .cell {
    padding: 0 8px;
    border-radius: 4px;
  }
  .cell :deep(.el-button) {
    width: auto;
    min-height: 44px;
  }
  .cell :deep(.el-button > span) {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
}
</style>

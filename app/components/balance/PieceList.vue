<script setup lang="ts">
import { fixed } from '#core/text/display'

/** All pieces by their lines, in the order of the ledger. */
const emit = defineEmits<{ select: [key: string] }>()
const { balance } = useBalance()
const pieces = computed(() => balance.value?.layout.pieces ?? [])
const spread = computed(() => balance.value?.layout.spread ?? [])
const byLine = computed(() =>
  pieces.value
    .filter(piece => piece.number === 0)
    .map(piece => {
      const all = pieces.value.filter(one => one.lineId === piece.lineId)
      return { piece, count: all.length, isAssumed: all.some(one => one.isAssumed) }
    }),
)
</script>

<template>
  <div>
    <h2>Pieces</h2>
    <p class="soft">
      Choose one here or in a drawing, then drag it, nudge it with the arrows, or type where it sits.
    </p>
    <ul class="pieces">
      <li
        v-for="{ piece, count, isAssumed } in byLine"
        :key="piece.key"
      >
        <el-button
          link
          type="primary"
          :title="piece.name"
          @click="emit('select', piece.key)"
        >
          {{ piece.name }}
        </el-button>
        <span class="figure">{{ count > 1 ? `${count} × ` : '' }}{{ fixed(piece.mass.valueG, 2) }}</span>
        <small>{{ isAssumed ? 'assumed' : 'placed' }}</small>
      </li>
    </ul>
    <p
      v-if="spread.length > 0"
      class="soft"
    >
      Spread over the craft: {{ spread.map(line => line.name).join(', ') }}.
    </p>
  </div>
</template>

<style scoped>
.pieces {
  list-style: none;
  padding: 0;
  margin: 0;
}
.pieces li {
  display: grid;
  grid-template-columns: 1fr auto 58px;
  gap: 8px;
  align-items: baseline;
  border-bottom: 1px solid var(--line);
  padding: 2px 0;
}
.pieces :deep(.el-button) {
  justify-content: start;
  min-width: 0;
  margin: 0;
}
.pieces :deep(.el-button > span) {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.pieces small {
  color: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .pieces :deep(.el-button) {
    min-height: 44px;
  }
}
</style>

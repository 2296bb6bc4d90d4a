<script setup lang="ts">
import type { ShelfOrder } from '~/utils/shelf-order'

/** What of the shelf is shown, and in which order. */
const words = defineModel<string>('words', { required: true })
const tag = defineModel<string>('tag', { required: true })
const order = defineModel<ShelfOrder | ''>('order', { required: true })
defineProps<{
  orders: readonly { readonly value: ShelfOrder; readonly label: string }[]
  tags: readonly string[]
  shown: number
  of: number
}>()
</script>

<template>
  <div
    class="filters"
    role="search"
  >
    <el-input
      v-model="words"
      clearable
      placeholder="Search name, class, tag, verdict"
      aria-label="Search the shelf"
      maxlength="100"
    />
    <div class="choice">
      <PickOne
        v-model="order"
        :options="orders"
        label="Order of the shelf"
        none="as they were made"
      />
    </div>
    <div
      v-if="tags.length > 0"
      class="choice"
    >
      <PickOne
        v-model="tag"
        :options="tags"
        label="Only with the tag"
        none="all tags"
      />
    </div>
    <span
      v-if="shown < of"
      class="soft"
      role="status"
    >{{ shown }} of {{ of }}</span>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 10px;
  max-width: 760px;
  flex-wrap: wrap;
}
.filters > .el-input {
  flex: 1;
  min-width: 200px;
}
.choice {
  width: 170px;
}
@media screen and (max-width: 760px) {
  .choice {
    flex: 1 1 170px;
  }
}
</style>

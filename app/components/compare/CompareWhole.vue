<script setup lang="ts">
import { wholeRows } from '#shared/files/comparison-text'
import type { ComparedCraft } from '~/stores/compare'

/** Crafts as wholes: what lies farthest apart stands first. */
const { crafts, currency } = defineProps<{ crafts: readonly ComparedCraft[]; currency: string }>()
const rows = computed(() => wholeRows(crafts.map(({ figures }) => figures), currency))
</script>

<template>
  <table class="answers-table">
    <caption class="visually-hidden">
      Figures of the whole crafts
    </caption>
    <thead>
      <tr>
        <th>As a whole</th><th
          v-for="craft in crafts"
          :key="craft.key"
          class="right"
        >
          {{ craft.name }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="row in rows"
        :key="row.label"
      >
        <td class="soft">
          {{ row.label }}
        </td><td
          v-for="(text, i) in row.texts"
          :key="i"
          class="right figure"
        >
          {{ text }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
}
.right {
  white-space: nowrap;
}
</style>

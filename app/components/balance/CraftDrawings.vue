<script setup lang="ts">
/** The craft from three sides, following a hand with every frame. */
defineProps<{ selectedKey: string | null }>()
const emit = defineEmits<{ select: [key: string] }>()
const { live, movingKeys, meetings, drag, nudge, keep } = useBalance()
/** Pieces that are in the way of others: marked in the drawings, and said. */
const inTheWay = computed((before?: ReadonlySet<string>): ReadonlySet<string> => {
  const now = new Set(meetings.value.flatMap(({ pieces: two }) => two.map(({ key }) => key)))
  return before?.size === now.size && [...now].every(key => before.has(key)) ? before : now
})
const views = [
  ['above', 'From above'],
  ['side', 'From the left side'],
  ['front', 'From the front'],
] as const
</script>

<template>
  <div class="drawings">
    <figure
      v-for="[from, title] in views"
      :key="from"
      :class="from"
    >
      <figcaption class="soft">
        {{ title }}{{ from === 'front' ? '' : ', nose left' }}
      </figcaption>
      <CraftView
        v-if="live"
        :balance="live"
        :from="from"
        :title="title"
        :selected-key="selectedKey"
        :in-the-way="inTheWay"
        :moving="movingKeys"
        @select="emit('select', $event)"
        @drag="drag"
        @drop="keep"
        @nudge="nudge"
      />
    </figure>
  </div>
</template>

<style scoped>
.drawings {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}
figure {
  margin: 0;
}
figcaption {
  font-size: 12px;
}
.above :deep(.craft) {
  height: 290px;
}
.side :deep(.craft),
.front :deep(.craft) {
  height: 130px;
}
</style>

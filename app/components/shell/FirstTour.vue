<script setup lang="ts">
/** A short walk over the screen of a build; what is not there is left out. */
const { touring } = useShell()
const at = ref(0)
interface Stop {
  readonly at: string
  readonly title: string
  readonly words: string
}
const stops: readonly Stop[] = [
  {
    at: '.strip-head .value',
    title: 'What it weighs',
    words: 'The all-up weight with the pack, and ± how sure that is: 95 times of 100 the truth lies within.',
  },
  {
    at: '.strip-head .verdict',
    title: 'The verdict',
    words:
      'Clear, too close to call, or over, under the rule card you fly by. Too close means: the limit lies within the ±. ' +
      'Under the strip stands what would settle it.',
  },
  {
    at: '.strip-head svg',
    title: 'The mass strip',
    words: 'Every gram in its place, hatched where it is only listed or guessed. Press a piece to see its line.',
  },
  {
    at: '[role=grid] thead',
    title: 'The ledger',
    words:
      'One line for each thing that leaves the ground. Type into any cell, paste rows, drag by the grip; the secondary ' +
      'button offers the rest. “17.02 w” means weighed.',
  },
  {
    at: '.stations',
    title: 'The stations',
    words: 'The way of the work, from the aim to the record. Under each name stands what is done and what is missing.',
  },
  {
    at: '.find-button',
    title: 'Find',
    words: 'Builds, parts, bags, rule cards, words and actions. Press / anywhere. The question mark lists all keys.',
  },
]
const present = ref<Stop[]>([])
watch(
  touring,
  async on => {
    if (!on) return
    await nextTick()
    at.value = 0
    present.value = stops.filter(stop => document.querySelector(stop.at)?.checkVisibility())
  },
  { immediate: true },
)
</script>

<template>
  <el-tour
    v-model="touring"
    v-model:current="at"
    :z-index="3200"
    :target-area-clickable="false"
    :scroll-into-view-options="{ block: 'nearest' }"
  >
    <el-tour-step
      v-for="stop in present"
      :key="stop.at"
      :target="stop.at"
      :title="stop.title"
      :description="stop.words"
      :prev-button-props="{ children: 'Back' }"
      :next-button-props="{ children: stop === present.at(-1) ? 'Done' : 'Next' }"
    />
    <template #indicators="{ current, total }">
      <span class="soft">{{ current + 1 }} of {{ total }}</span>
    </template>
  </el-tour>
</template>

<script setup lang="ts">
import type { OrderStep } from '#core/deciding/choosing'
import { fixed, gramsFigure } from '#core/text/display'

/** The order of choosing: where each step stands, and of the one looked at what is left for it and what it must meet. */
const props = defineProps<{ steps: readonly OrderStep[]; lineId: string; buildId: string }>()
const emit = defineEmits<{ go: [lineId: string] }>()
const pickedKey = ref<string | null>(null)
const current = computed(
  () =>
    props.steps.find(step => step.key === pickedKey.value) ??
    props.steps.find(step => step.lines.some(line => line.id === props.lineId)) ??
    null,
)
watch(
  () => props.lineId,
  () => {
    pickedKey.value = null
  },
)
const next = computed(() => props.steps.find(step => step.standing !== 'chosen') ?? null)
function go(step: OrderStep) {
  pickedKey.value = step.key
  const [first] = step.lines
  if (first && !step.lines.some(line => line.id === props.lineId)) emit('go', first.id)
}
const words = (step: OrderStep) =>
  step.within !== null ? 'on another part' : step.lines.length === 0 ? 'nothing yet' : `${gramsFigure(step.massG, step.spreadG)} g`
const standings = { open: 'to choose', typical: 'typical so far', chosen: 'chosen' } as const
/** What must be met, by the part that asks it. */
const asked = computed(() => {
  const byPart = new Map<string, string[]>()
  for (const { by, says } of current.value?.forces ?? []) byPart.set(by, [...(byPart.get(by) ?? []), says])
  return [...byPart]
})
const room = computed(() => {
  const step = current.value
  if (!step || step.leavesG === null) return ''
  const what = step.label.toLowerCase()
  return step.leavesG <= 0
    ? `Nothing is left under the limit for ${what}: all else is ${fixed(-step.leavesG, 1)} g over it with the reserve.`
    : `The limit leaves ${fixed(step.leavesG, 1)} g for ${what}, all else as it is.`
})
</script>

<template>
  <section
    class="order"
    aria-label="The order of choosing"
  >
    <ol>
      <li
        v-for="step in steps"
        :key="step.key"
      >
        <el-button
          text
          class="step"
          :class="[step.standing, { now: step === current }]"
          :aria-current="step === current ? 'step' : undefined"
          @click="go(step)"
        >
          <span class="name">{{ step.label }}</span>
          <span class="soft">{{ standings[step.standing] }}</span>
          <span class="figure soft">{{ words(step) }}</span>
        </el-button>
      </li>
    </ol>
    <div
      v-if="current"
      class="says"
      aria-live="polite"
    >
      <p v-if="current.within">
        {{ current.label }}: on {{ current.within }}.
      </p>
      <p v-else-if="current.lines.length === 0">
        Nothing for {{ current.label.toLowerCase() }} flies in this loadout.
        <NuxtLink :to="`/builds/${buildId}/parts`">
          Add a line
        </NuxtLink>
      </p>
      <p v-if="room">
        {{ room }}
      </p>
      <dl
        v-if="asked.length > 0"
        aria-label="What it must meet"
      >
        <template
          v-for="[by, says] in asked"
          :key="by"
        >
          <dt class="soft">
            {{ by }}
          </dt><dd>{{ says.join(' · ') }}</dd>
        </template>
      </dl>
      <p
        v-else
        class="soft"
      >
        Nothing chosen so far asks anything of it that is known.
      </p>
      <el-button
        v-if="next && next !== current"
        link
        type="primary"
        @click="go(next)"
      >
        Next to choose: {{ next.label.toLowerCase() }}
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.order {
  margin-bottom: 12px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  border: 1px solid var(--line);
  border-radius: 8px 8px 0 0;
  overflow: hidden;
}
li + li {
  border-left: 1px solid var(--line);
}
.step {
  width: 100%;
  height: auto;
  min-height: 58px;
  border-radius: 0;
  padding: 7px 10px;
  justify-content: start;
  text-align: left;
  font-weight: 400;
  border-top: 3px solid transparent;
}
.step :deep(> span) {
  display: grid;
  gap: 1px;
  white-space: normal;
  font-size: 12px;
}
.step.chosen {
  border-top-color: var(--clear);
}
.step.typical {
  border-top-color: var(--close);
}
.step.now {
  background: var(--selection);
}
.name {
  font-weight: 600;
  font-size: 13px;
}
.says {
  border: 1px solid var(--line);
  border-top: 0;
  border-radius: 0 0 8px 8px;
  padding: 8px 12px;
  background: var(--paper);
  font-size: 13px;
}
.says p {
  margin: 0 0 3px;
}
dl {
  display: grid;
  grid-template-columns: minmax(120px, 34%) 1fr;
  gap: 2px 12px;
  margin: 0 0 3px;
}
dd {
  margin: 0;
}
@media screen and (max-width: 760px) {
  ol {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  li:nth-child(n + 4) {
    border-top: 1px solid var(--line);
  }
  .says {
    font-size: 14.5px;
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
  dd {
    margin-bottom: 5px;
  }
}
</style>

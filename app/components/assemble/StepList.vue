<script setup lang="ts">
import { movedStep, recordOf, type AssemblyStep, type StepState } from '#core/making/assembly'
import type { AssemblyRun } from '~/composables/useAssembly'

const props = defineProps<{ run: AssemblyRun }>()
const marks: Record<StepState, string> = {
  open: '',
  done: '✓',
  skipped: '–',
  failed: '✕',
  overridden: '!',
  blocked: '·',
}
const wordsOfState: Record<StepState, string> = {
  open: '',
  done: 'done',
  skipped: 'skipped',
  failed: 'test failed',
  overridden: 'gone past a failed test',
  blocked: 'waits for a test',
}
function smallWords({ id, minutes, test }: AssemblyStep): string {
  const taken = recordOf(props.run.assembly.value, id).minutes
  const words = wordsOfState[stateOf(id)]
  return taken !== null && stateOf(id) === 'done' ? `${words}, ${taken} of ${minutes} min` : words || (test ? 'with a test' : '')
}
const stateOf = (id: string) => props.run.standings.value.get(id)?.state ?? 'open'
const store = useBuildStore()
const problem = ref('')
function moveTo(from: number, to: number) {
  const steps = props.run.steps.value
  const moved = movedStep(steps, steps[from]!.id, to - from)
  if ('problem' in moved) problem.value = moved.problem
  else problem.value = store.run({ type: 'assembly.set', fields: { order: [...moved.order] } }) ? '' : store.refusal
}
const ordered = useTemplateRef<HTMLElement>('ordered')
useReorder(ordered, { handle: '.grip', rows: 'li', moved: moveTo })
const wrap = useTemplateRef<HTMLElement>('wrap')
watch(
  () => props.run.step.value?.id,
  async () => {
    await nextTick()
    wrap.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <nav
    ref="wrap"
    class="list"
    aria-label="Steps"
  >
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <ol ref="ordered">
      <li
        v-for="(step, i) in run.steps.value"
        :key="step.id"
        :class="stateOf(step.id)"
      >
        <button
          type="button"
          :aria-current="run.step.value?.id === step.id ? 'step' : undefined"
          :data-step="step.id"
          @click="run.goTo(step.id)"
          @keydown.alt.up.prevent="i > 0 && moveTo(i, i - 1)"
          @keydown.alt.down.prevent="i < run.steps.value.length - 1 && moveTo(i, i + 1)"
        >
          <em>{{ marks[stateOf(step.id)] || i + 1 }}</em>
          <span class="title">{{ step.title }}<small v-if="smallWords(step)">{{ smallWords(step) }}</small></span>
        </button><RowGrip />
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.list {
  overflow: auto;
  max-height: calc(100vh - 210px);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
}
li > .grip {
  visibility: hidden;
}
li:hover > .grip {
  visibility: visible;
}
@media (hover: none) {
  li > .grip {
    visibility: visible;
  }
}
button {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  display: flex;
  gap: 9px;
  padding: 6px 8px;
  text-align: left;
  white-space: normal;
  font-weight: 500;
  align-items: flex-start;
  border-radius: 6px;
}
button[aria-current] {
  background: var(--selection);
}
button[aria-current] .title {
  font-weight: 700;
}
em {
  font: 500 11px/20px var(--mono);
  flex: none;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  text-align: center;
  border: 1px solid var(--edge);
  color: var(--ink-soft);
}
.done em {
  background: var(--clear);
  border-color: var(--clear);
  color: var(--verdict-ink);
}
.failed em {
  background: var(--over);
  border-color: var(--over);
  color: var(--verdict-ink);
}
.overridden em {
  border-color: var(--close);
  color: var(--close);
}
.skipped .title,
.blocked .title {
  color: var(--ink-soft);
}
small {
  display: block;
  font-size: 11.5px;
  color: var(--ink-soft);
  font-weight: 400;
}
@media screen and (max-width: 760px) {
  .list {
    max-height: none;
  }
  button {
    min-height: 48px;
  }
}
</style>

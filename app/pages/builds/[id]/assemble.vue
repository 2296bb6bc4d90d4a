<script setup lang="ts">
import { circleWords } from '#core/making/assembly'
import { fixed } from '#core/text/display'

const store = useBuildStore()
const route = useRoute()
const router = useRouter()
const run = useAssembly()
const { steps, step, standings, progress, at, cycle, expected, record } = run
const views = [
  ['steps', 'Steps'],
  ['connections', 'Connections'],
  ['maiden', 'Maiden card'],
  ['repair', 'Repair'],
] as const
const view = computed(() => views.find(([key]) => key === route.query.view)?.[0] ?? 'steps')
const show = (key: string) => router.replace({ query: { ...route.query, view: key === 'steps' ? undefined : key } })
const blocked = computed(() => (step.value && standings.value.get(step.value.id)?.blockedBy.length) || 0)
const trimmed = computed(() =>
  step.value?.id === 'leads-trim' ? store.build!.lines.filter(line => step.value!.uses.includes(line.id)) : [],
)
const hasParts = computed(() => store.build!.lines.length > 0)
const sentence = computed(() => {
  if (!hasParts.value) return ''
  const { done, of, minutesLeft, minutesTaken, failed, overridden } = progress.value
  if (done === 0) return `${of} steps, about ${fixed(minutesLeft / 60, 1)} hours`
  return [
    `${done} of ${of} done`,
    minutesTaken > 0 ? ` in ${fixed(minutesTaken / 60, 1)} hours` : '',
    minutesLeft > 0 ? `, about ${fixed(minutesLeft / 60, 1)} hours left` : '',
    failed > 0 ? ` · ${failed} failed` : '',
    overridden > 0 ? ` · ${overridden} gone past` : '',
  ].join('')
})
const bench = useTemplateRef<HTMLElement>('bench')
// On the phone the step begins at the top of the screen, not below the strip.
watch(
  () => step.value?.id,
  async (_, before) => {
    await nextTick()
    if (before && window.innerWidth <= 760) bench.value?.scrollIntoView({ block: 'start' })
  },
)
const atSteps = () => view.value === 'steps'
useSingleKeys({ next: () => run.go(1), previous: () => run.go(-1), tick: run.tick }, atSteps)
</script>

<template>
  <div class="station">
    <main class="worksheet assemble">
      <div class="station-head no-print">
        <h1>Assemble</h1><span class="soft">{{ sentence }}</span><span class="gap" /><ViewTabs
          :views="views"
          :view="view"
          label="Views"
          @show="show"
        />
      </div>
      <StationSays page="assemble" />
      <p
        v-if="cycle"
        class="problem"
        role="alert"
      >
        {{ circleWords(cycle) }} Take one of them out under Order.
      </p>
      <p
        v-else-if="!hasParts"
        class="soft"
      >
        No parts yet. <NuxtLink :to="`/builds/${store.build!.id}/parts`">Add the first line in Parts</NuxtLink>: the
        steps are written from what is there.
      </p>
      <ConnectionTable v-else-if="view === 'connections'" />
      <MaidenCard
        v-else-if="view === 'maiden'"
        :run="run"
      />
      <RepairView
        v-else-if="view === 'repair'"
        :run="run"
      />
      <div
        v-else-if="step && record"
        ref="bench"
        class="bench"
      >
        <PickOne
          class="jump"
          field="Step"
          :model-value="step.id"
          label="Step"
          :options="steps.map((one, i) => ({ value: one.id, label: `${i + 1} · ${one.title}` }))"
          @update:model-value="run.goTo($event)"
        />
        <StepList
          :run="run"
          class="list"
        />
        <div class="centre">
          <StepCard
            :key="step.id"
            :run="run"
          >
            <Offcuts
              v-for="line in trimmed"
              :key="line.id"
              :line="line"
            />
            <StepWeighing
              v-if="expected && expected.lines.length > 0"
              :lines="expected.lines"
              :expected="expected.estimate"
              :open="expected.open"
              :step-title="step.title"
            />
          </StepCard>
          <div class="go">
            <el-button
              :disabled="at === 0"
              @click="run.go(-1)"
            >
              Back <KeyHint does="previous" />
            </el-button>
            <el-button
              type="primary"
              :disabled="!record.doneAt && (blocked > 0 || standings.get(step.id)?.state === 'failed')"
              @click="run.tick"
            >
              {{ record.doneAt ? 'Not done after all' : 'Done' }} <KeyHint does="tick" />
            </el-button>
            <el-button
              :disabled="at === steps.length - 1"
              @click="run.go(1)"
            >
              Next <KeyHint does="next" />
            </el-button>
          </div>
        </div>
      </div>
    </main>
    <aside
      v-if="view === 'steps' && !cycle && hasParts && step && record"
      class="inspector"
      aria-label="Inspector"
    >
      <StepNotes :run="run" /><OrderPanel
        :run="run"
        class="order"
      />
    </aside>
    <aside
      v-else-if="cycle"
      class="inspector"
      aria-label="Inspector"
    >
      <OrderPanel :run="run" />
    </aside>
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: 236px minmax(0, 1fr);
  gap: 24px;
}
.jump {
  display: none;
}
.go {
  display: flex;
  gap: 8px;
  margin-top: 16px;
  max-width: 720px;
  position: sticky;
  bottom: -24px;
  background: var(--card);
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.go button {
  font-size: 15px;
  padding: 9px 18px;
}
.go .el-button--primary {
  flex: 1;
  justify-content: center;
}
.order {
  margin-top: 22px;
}
@media screen and (max-width: 760px) {
  .assemble {
    overflow: visible;
  }
  .bench {
    display: block;
  }
  .list {
    display: none;
  }
  .jump {
    display: grid;
  }
  .go {
    bottom: var(--bottom-bar, 0);
  }
  .go button {
    min-height: 56px;
    flex: 1;
    justify-content: center;
  }
  kbd {
    display: none;
  }
}
</style>

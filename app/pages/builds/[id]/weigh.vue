<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { panModes } from '#core/deciding/weigh'
import { fixed } from '#core/text/display'
import { lineGrams } from '#core/mass/evidence'
import { sumCompensated } from '#core/maths/numbers'

const store = useBuildStore()
const scales = useScalesStore()
const route = useRoute()
const router = useRouter()
const bench = useBenchScale()
const run = useWeighRun(typeof route.query.line === 'string' ? route.query.line : undefined)
const loadProblem = ref('')
scales.load().catch((error: unknown) => {
  loadProblem.value = sentenceOf(error)
})

const whole = computed({
  get: () => route.query.pan === 'whole',
  set: (on: boolean) => {
    router.replace({ query: { ...route.query, pan: on ? 'whole' : undefined } })
  },
})
const known = computed(() => {
  const counted = store.overview!.counted
  const weighed = counted.filter(line => line.mass?.evidence === 'weighed')
  return `${weighed.length} of ${counted.length} lines weighed · ` +
    `${fixed(sumCompensated(weighed.map(l => lineGrams(l.mass!, l.quantity))), 0)} of ` +
    `${fixed(store.overview!.massG, 0)} g known`
})
const loadG = computed(() => run.display.value.massG ?? bench.readings.value.at(-1)?.massG ?? null)
const modes = computed(() =>
  panModes.filter(mode => run.several.value || !['all together', 'one after another'].includes(mode)),
)

const atPan = () => !whole.value && !run.finished.value
useSingleKeys(
  { take: run.take, zero: run.zero, pieces: run.cyclePieces, skip: run.skip, back: run.back, again: run.again },
  atPan,
)
/** After a click of the mouse the space bar belongs to the pan again, not to the button clicked last. */
const pan = useTemplateRef<HTMLElement>('pan')
async function backToPan(event: MouseEvent) {
  if (event.detail === 0 || !(event.target as Element).closest('.run-list button, .actions button, .practice button'))
    return
  await nextTick()
  pan.value?.focus({ preventScroll: true })
}
const hand = useTemplateRef<InputInstance>('hand')
function typedEnter() {
  run.take()
  hand.value?.blur()
}
</script>

<template>
  <div class="station">
    <main class="worksheet weigh">
      <div class="station-head">
        <h1>Weigh</h1><span class="soft known">{{ known }}</span><span class="gap" />
        <el-button
          :aria-pressed="whole"
          :type="whole ? 'primary' : 'default'"
          @click="whole = !whole"
        >
          {{ whole ? 'Back to the run' : 'Whole aircraft' }}
        </el-button>
      </div>
      <StationSays page="weigh" />
      <p
        v-if="loadProblem"
        class="problem"
        role="alert"
      >
        {{ loadProblem }}
      </p>
      <SameOrAnother />
      <p
        v-if="store.build!.lines.length === 0"
        class="soft"
      >
        No parts yet. <NuxtLink :to="`/builds/${store.build!.id}/parts`">Add the first line in Parts</NuxtLink>, then put it on the pan.
      </p>
      <WholeWeighing
        v-else-if="whole"
        :run="run"
      />
      <div
        v-else
        class="run"
        @click="backToPan"
      >
        <RunList
          :run="run"
          class="list"
        />
        <RunSummary
          v-if="run.finished.value"
          :run="run"
        />
        <section
          v-else-if="run.line.value"
          ref="pan"
          class="centre"
          tabindex="-1"
        >
          <PanReading :run="run" />
          <PanTrace
            class="trace"
            :readings="bench.readings.value"
            :expected="run.expected.value"
            :capacity-g="scales.current?.capacityG ?? 200"
          />
          <p
            v-if="run.message.value"
            class="note"
            role="alert"
            data-test="run-message"
          >
            {{ run.message.value }}
          </p>
          <div class="actions">
            <el-button
              type="primary"
              class="take"
              @click="run.take"
            >
              Take it <KeyHint does="take" />
            </el-button>
            <el-button @click="run.zero">
              Zero <KeyHint does="zero" />
            </el-button>
            <el-button
              v-if="run.several.value"
              @click="run.cyclePieces"
            >
              Several pieces <kbd>C</kbd>
            </el-button>
            <el-button
              v-if="run.canFinish.value"
              @click="run.finish()"
            >
              That was all
            </el-button>
            <el-button
              class="skip"
              @click="run.skip"
            >
              Skip <kbd>→</kbd>
            </el-button>
          </div>
          <div class="more">
            <PickOne
              inline
              field="how"
              :model-value="run.mode.value"
              :options="modes"
              @update:model-value="run.chooseMode($event as typeof run.mode.value)"
            />
            <PickOne
              v-model="run.basis.value"
              inline
              field="the part"
              :options="[{ value: 'as supplied', label: 'as supplied' }, { value: 'as fitted', label: 'as fitted' }]"
            />
            <label class="hand">or type it<el-input
              ref="hand"
              v-model="run.typed.value"
              class="figure"
              inputmode="decimal"
              aria-label="Type what the scale shows"
              placeholder="g"
              @keydown.enter.prevent="typedEnter"
            /></label>
          </div>
          <p
            v-if="run.piecesWanted.value"
            class="soft hint"
          >
            Small pieces: {{ run.piecesWanted.value }} or more together bring one of them under ± 1 %.
          </p>
          <WouldChangeTiles :change="run.preview.value?.change ?? null" />
          <PracticePan
            :lines="[]"
            :current="run.line.value"
            :pieces="run.piecesOnPan.value"
          />
        </section>
      </div>
    </main>
    <aside
      class="inspector"
      aria-label="The scale"
    >
      <ScaleCard
        :run="run"
        :load-g="loadG"
      />
    </aside>
  </div>
</template>

<style scoped>
.run {
  display: flex;
  gap: 20px;
}
.centre {
  flex: 1;
  min-width: 0;
  max-width: 620px;
  margin: 0 auto;
}
.hint {
  text-align: center;
  margin: 8px 0 0;
  font-size: 12.5px;
}
.centre:focus {
  outline: none;
}
.trace {
  margin-top: 14px;
}
.actions {
  display: flex;
  gap: 8px;
  justify-content: center;
  flex-wrap: wrap;
  margin-top: 14px;
}
.actions button {
  padding: 9px 14px;
  font-size: 14px;
}
.more {
  display: flex;
  gap: 14px;
  justify-content: center;
  flex-wrap: wrap;
  margin-top: 10px;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.more label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.more select,
.more .el-input {
  padding: 3px 6px;
  font-size: 12.5px;
}
.more .el-input {
  width: 80px;
}
@media screen and (max-width: 760px) {
  .known {
    display: none;
  }
  .run {
    display: block;
  }
  .list {
    display: none;
  }
  .centre {
    max-width: none;
  }
  .actions {
    position: sticky;
    bottom: var(--bottom-bar, 0);
    z-index: 5;
    background: var(--card);
    padding: 8px 0;
    gap: 8px;
  }
  .actions button {
    flex: 1;
    min-height: 54px;
    justify-content: center;
    font-size: 16px;
    padding: 6px 8px;
  }
  .actions .take {
    flex: 1 0 100%;
    font-size: 18px;
  }
  .actions kbd {
    display: none;
  }
  .more label:not(.hand) {
    display: none;
  }
  .trace,
  .hint {
    display: none;
  }
}
</style>

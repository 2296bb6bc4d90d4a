<script setup lang="ts">
import { applyCommand } from '#core/changes/commands'
import { repairPath } from '#core/making/assembly'
import { fixed, gramsWithSpread, signed } from '#core/text/display'
import { countedLines } from '#core/mass/loadout'
import { overviewOf } from '#core/mass/report'
import type { AssemblyRun } from '~/composables/useAssembly'

const props = defineProps<{ run: AssemblyRun }>()
const store = useBuildStore()
const rules = useRulesStore()
const lines = computed(() => countedLines(store.build!, store.choice))
const route = useRoute()
/** A crash noted on Fly names the first part that was hurt. */
const brokenId = ref(String(route.query.broken ?? ''))
const broken = computed(() => lines.value.find(line => line.id === brokenId.value) ?? null)
const path = computed(() => (broken.value ? repairPath(props.run.steps.value, broken.value.id) : null))
/** What each candidate for its place would make of grams and verdict; the same part again changes neither. */
const swaps = computed(() =>
  broken.value
    ? store
        .build!.lines.filter(line => line.state === 'candidate' && line.insteadOf === broken.value!.id)
        .map(line => {
          const after = applyCommand(store.build!, { type: 'line.fit', id: line.id })
          const choice =
            store.choice.packLineId === broken.value!.id ? { ...store.choice, packLineId: line.id } : store.choice
          return { line, overview: overviewOf(after, choice, rules.cards, store.estimates) }
        })
    : [],
)
</script>

<template>
  <section
    aria-label="Repair"
    class="repair"
  >
    <PickOne
      v-model="brokenId"
      class="which"
      field="What is broken"
      :options="lines.map((line) => ({ value: line.id, label: lineTitle(line) }))"
      none="choose a part"
    />
    <p
      v-if="!broken"
      class="soft"
    >
      The shortest way in is worked out from the same steps: what lies over the part comes off, nothing else.
    </p>
    <template v-else-if="path">
      <p class="lead">
        {{ path.takeApart.length }} {{ path.takeApart.length === 1 ? 'step' : 'steps' }} to undo, about
        {{ fixed(path.minutes, 0) }} minutes with what is built and tested again. Pack off first.
      </p>
      <div class="columns">
        <div>
          <h3>Take apart</h3><ol>
            <li
              v-for="step in path.takeApart"
              :key="step.id"
            >
              {{ step.title }}
            </li>
          </ol>
        </div>
        <div>
          <h3>Put together</h3><ol>
            <li
              v-for="step in path.rebuild"
              :key="step.id"
            >
              <el-button
                link
                type="primary"
                @click="run.goTo(step.id)"
              >
                {{ step.title }}
              </el-button><small v-if="step.cautions.length > 0">{{ step.cautions[0] }}</small>
            </li>
          </ol>
        </div>
        <div>
          <h3>Test again</h3><ol v-if="path.testsAgain.length > 0">
            <li
              v-for="step in path.testsAgain"
              :key="step.id"
            >
              <el-button
                link
                type="primary"
                @click="run.goTo(step.id)"
              >
                {{ step.title }}
              </el-button>
            </li>
          </ol><p
            v-else
            class="soft"
          >
            No test rests on it.
          </p>
        </div>
      </div>
      <h3>What goes in its place</h3>
      <table>
        <tbody>
          <tr>
            <td>the same again</td><td class="figure right">
              ±0.00 g
            </td><td class="figure right">
              {{ gramsWithSpread(store.overview!.massG, store.overview!.spreadG) }}
            </td><td>
              <VerdictMark
                v-if="store.overview!.binding?.verdict"
                :word="store.overview!.binding.verdict.word"
              />
            </td>
          </tr>
          <tr
            v-for="swap in swaps"
            :key="swap.line.id"
          >
            <td>{{ lineTitle(swap.line) }}</td><td
              class="figure right"
              :class="swap.overview.massG <= store.overview!.massG ? 'word-clear' : 'word-over'"
            >
              {{ signed(swap.overview.massG - store.overview!.massG, 2) }} g
            </td><td class="figure right">
              {{ gramsWithSpread(swap.overview.massG, swap.overview.spreadG) }}
            </td><td>
              <VerdictMark
                v-if="swap.overview.binding?.verdict"
                :word="swap.overview.binding.verdict.word"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-if="swaps.length === 0"
        class="soft"
      >
        No candidate stands beside it in Parts: add one there to see what it would do.
      </p>
    </template>
  </section>
</template>

<style scoped>
.which {
  max-width: 420px;
}
.lead {
  font-size: 16px;
  font-weight: 600;
}
.columns {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 24px;
}
ol {
  padding-left: 20px;
  margin: 4px 0;
}
li {
  margin: 4px 0;
}
li .is-link {
  text-align: left;
  white-space: normal;
  padding: 0;
}
small {
  display: block;
  color: var(--over);
  font-size: 12px;
}
table {
  border-collapse: collapse;
  width: 100%;
  max-width: 760px;
}
td {
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
  white-space: nowrap;
}
@media screen and (max-width: 760px) {
  .columns {
    grid-template-columns: 1fr;
    gap: 0;
  }
  li {
    min-height: 36px;
  }
}
</style>

<script setup lang="ts">
import { fixed, gramsWithSpread, signed } from '#core/text/display'
import { learntBetween } from '#core/deciding/weigh'
import type { WeighRun } from '~/composables/useWeighRun'

const props = defineProps<{ run: WeighRun }>()
const store = useBuildStore()
const before = computed(() => props.run.started.value!.overview)
const now = computed(() => store.overview!)
const learnt = computed(() =>
  learntBetween(props.run.started.value!.build, props.run.started.value!.estimates, store.build!, store.estimates),
)
const word = (overview: typeof now.value) => overview.binding?.verdict?.word ?? null
</script>

<template>
  <section
    class="summary"
    aria-label="What was learnt"
  >
    <h2>What was learnt</h2>
    <p v-if="learnt.length === 0">
      No line was weighed in this run.
    </p>
    <template v-else>
      <p class="lead">
        All-up weight <span class="figure">{{ gramsWithSpread(before.massG, before.spreadG) }}</span> became
        <b class="figure">{{ gramsWithSpread(now.massG, now.spreadG) }}</b>.
        <span v-if="word(before) && word(before) !== word(now)">The verdict went from
          {{ word(before)!.toLowerCase() }} to <b>{{ word(now)!.toLowerCase() }}</b>.</span>
        <span v-else-if="word(now)">Still {{ word(now)!.toLowerCase() }}.</span>
      </p>
      <table>
        <thead>
          <tr>
            <th>Line</th><th class="right">
              <TermTip word="Believed" />
            </th><th class="right">
              <TermTip word="Weighed" />
            </th><th class="right">
              Difference
            </th><th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="entry in learnt"
            :key="entry.line.id"
          >
            <td>{{ lineTitle(entry.line) }}</td><td class="right figure">
              {{ fixed(entry.beforeG, 2) }}
            </td><td class="right figure">
              {{ fixed(entry.afterG, 2) }}
            </td>
            <td class="right figure">
              {{ signed(entry.afterG - entry.beforeG, 2) }}
            </td><td class="soft">
              {{ entry.surprise > 2 ? 'a surprise' : '' }}
            </td>
          </tr>
        </tbody>
      </table>
    </template>
    <div class="actions">
      <el-button
        type="primary"
        @click="run.begin()"
      >
        Another run
      </el-button><el-button
        v-if="run.taken.value.length > 0"
        @click="run.again()"
      >
        Weigh the last one again <KeyHint does="again" />
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.lead {
  font-size: 15px;
}
table {
  width: 100%;
  border-collapse: collapse;
  max-width: 620px;
}
th {
  text-align: left;
  font-weight: 500;
  font-size: 12px;
  color: var(--ink-soft);
}
td,
th {
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
.actions {
  display: flex;
  gap: 8px;
  margin-top: 16px;
}
</style>

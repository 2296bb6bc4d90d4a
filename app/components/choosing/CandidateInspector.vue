<script setup lang="ts">
import { Close } from '@element-plus/icons-vue'
import type { CandidateRow } from '#core/deciding/choosing'
import { blankFit } from '#core/aircraft/fit'
import { slotFacts, type Line } from '#core/model/ledger'
import { fixed, gramsFigure, headroomWords, minutesFigure, signed, spreadFigure } from '#core/text/display'

/** What one candidate would change, taking it or saying why not; and what was considered for this place before. */
const props = defineProps<{ fitted: Line | null; selected: CandidateRow | null }>()
const emit = defineEmits<{ take: [row: CandidateRow, fit: boolean] }>()
const store = useBuildStore()
const bobMoves = useBobMoves()

const everyConsidered = computed(() => (store.build!.fit ?? blankFit).considered)
const considered = computed(() => everyConsidered.value.filter(c => c.slot === props.fitted?.slot))
const why = ref('')
function reject(row: CandidateRow) {
  const one = {
    id: newId(),
    slot: row.line.slot,
    name: row.line.name,
    grams: row.setG === null ? null : Number(row.setG.toFixed(3)),
    why: why.value.trim(),
    on: localDay(),
  }
  store.run({ type: 'fit.set', fields: { considered: [...everyConsidered.value, one] } })
  why.value = ''
}
function forget(id: string) {
  store.run({ type: 'fit.set', fields: { considered: everyConsidered.value.filter(c => c.id !== id) } })
}
</script>

<template>
  <aside
    class="inspector"
    aria-label="Inspector"
  >
    <template v-if="selected && fitted">
      <h2>{{ selected.line.name }}</h2>
      <p class="soft">
        {{ selected.source === 'fitted' ? 'fitted now' : `from: ${selected.source}` }}
      </p>
      <dl class="facts">
        <dt>The set</dt>
        <dd>
          {{
            selected.setG === null
              ? '–'
              : `${gramsFigure(selected.setG, selected.spreadG)} ± ${spreadFigure(selected.spreadG)} g`
          }}
        </dd>
        <template v-if="selected.deltaG !== null && selected.source !== 'fitted'">
          <dt>Against {{ fitted.name.split(',')[0] }}</dt><dd>{{ signed(selected.deltaG, 2) }} g</dd>
        </template>
        <dt>All-up with it</dt><dd>{{ fixed(selected.auwG, 2) }} g</dd>
        <dt>Minutes with it</dt><dd data-test="minutes-with-it">
          {{ selected.minutes ? minutesFigure(selected.minutes.minutes) : 'not known' }}
        </dd>
      </dl>
      <p
        v-if="bobMoves(fitted.id, selected.deltaG === null ? null : -selected.deltaG)"
        class="soft"
        data-test="bob"
      >
        {{ bobMoves(fitted.id, -selected.deltaG!) }}
      </p>
      <p
        v-if="selected.minutes && selected.source !== 'fitted'"
        class="soft"
        data-test="minutes-against"
      >
        {{ minutesAgainstWords(selected.minutes) }}
      </p>
      <p v-if="selected.verdict">
        <VerdictMark :word="selected.verdict.word" />
        {{ ' ' }}<span class="soft">{{ headroomWords(selected.verdict.headroomG, selected.spreadG) }}</span>
      </p>
      <p
        v-for="finding in selected.findings"
        :key="finding.id"
        class="note"
      >
        <b>{{ finding.title }}</b><br>{{ finding.sentence }}
      </p>
      <div
        v-if="selected.source !== 'fitted'"
        class="acts"
      >
        <el-button
          type="primary"
          @click="emit('take', selected, true)"
        >
          Fit this
        </el-button><el-button
          v-if="selected.source !== 'on the list'"
          @click="emit('take', selected, false)"
        >
          Keep on the list
        </el-button>
      </div>
      <template v-if="selected.source !== 'fitted'">
        <h3>Or say why not</h3>
        <OneField
          v-model="why"
          label="Why not"
          placeholder="too hot without a fan"
          tall
          words="Keep the reason"
          @send="reject(selected)"
        />
      </template>
    </template>
    <template v-else>
      <h2>{{ fitted ? slotFacts[fitted.slot].label : 'Choosing' }}</h2>
      <p>{{ fitted ? slotFacts[fitted.slot].sentence : '' }}</p>
      <p class="soft">
        Each row is tried in this build: its total, verdict and fit are those it would have. Filled point: fitted
        now; brass: in the drawer; dashed: a typical class; red ring: clashes.
      </p>
    </template>
    <template v-if="considered.length > 0">
      <h3>Considered before</h3><div
        v-for="c in considered"
        :key="c.id"
        class="considered"
      >
        <b>{{ c.name }}</b><span
          v-if="c.grams !== null"
          class="figure soft"
        > {{ fixed(c.grams, 1) }} g</span><p>
          {{ c.why || 'no reason kept' }} <span class="soft">{{ c.on }}</span> <IconButton
            :icon="Close"
            :label="`Forget ${c.name}`"
            @click="forget(c.id)"
          />
        </p>
      </div>
    </template>
  </aside>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.considered {
  border-top: 1px solid var(--line);
  padding: 4px 0;
}
.considered p {
  margin: 0;
}
</style>

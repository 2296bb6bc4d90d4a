<script setup lang="ts">
import { fixed, centsFigure } from '#core/text/display'
import {
  effectOf,
  lossWords,
  shavingKinds,
  structuralKinds,
  usualOfKind,
  type Shaving,
  type ShavingKind,
} from '#core/deciding/shave'
import { isNotRead, readCents, readNumber, withoutUnit } from '#core/text/units'
import { shavingSchema } from '#core/slices/shave'

const props = defineProps<{ shaving: Shaving }>()
const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const problem = ref('')
const working = ref(false)
const calculatorOf: Partial<Record<ShavingKind, string>> = {
  'trim leads': 'trim',
  'direct solder': 'trim',
  'shorter lead': 'trim',
  'drill': 'hole',
  'cut': 'plate',
  'less coating': 'film',
  'change material': 'material',
}
const touched = computed(() => store.build!.lines.find(line => line.id === props.shaving.lineId) ?? null)
const lines = computed(() =>
  store.build!.lines.filter(
    line => line.mass && (line.state === 'fitted' || (line.state === 'off' && props.shaving.kind === 'put on')),
  ),
)
const candidates = computed(() =>
  store.build!.lines.filter(line => line.state === 'candidate' && line.insteadOf === props.shaving.lineId),
)
const others = computed(() => (store.build!.shave?.shavings ?? []).filter(s => s.id !== props.shaving.id))
const bobMoves = useBobMoves()
const effect = computed(() => effectOf(store.build!, props.shaving))

function put(fields: Partial<Shaving>) {
  const read = shavingSchema.safeParse({ ...props.shaving, ...fields })
  problem.value = read.success ? '' : read.error.issues[0]!.message
  if (read.success) store.run({ type: 'shaving.put', shaving: read.data })
}
function number(key: 'gramsG' | 'spreadG' | 'minutes' | 'slipPercent', event: Event) {
  const read = readNumber(withoutUnit((event.target as HTMLInputElement).value, 'g', 'min', '%').replace('−', '-'))
  if (isNotRead(read)) problem.value = read.problem
  else
    put({
      [key]: read.value,
      ...(key === 'gramsG' || key === 'spreadG'
        ? { evidence: props.shaving.evidence === 'weighed' ? 'guess' : props.shaving.evidence }
        : {}),
    })
}
/** What is cut away, by its dimensions: of every piece where the line has several. */
function useWorked({ grams, each }: { grams: number; each: boolean }) {
  const off = each ? grams * touched.value!.quantity : grams
  put({ gramsG: Number(off.toFixed(3)), spreadG: Number(Math.max(0.01, off * 0.1).toFixed(2)), evidence: 'worked out' })
  working.value = false
}
function money(event: Event) {
  const read = readCents((event.target as HTMLInputElement).value)
  if (isNotRead(read)) problem.value = read.problem
  else put({ cents: read.cents })
}
/** Another kind brings its usual costs along. */
function kind(of: ShavingKind) {
  put({
    kind: of,
    ...usualOfKind[of],
    ...(props.shaving.cents !== null && props.shaving.cents > 0 ? { cents: props.shaving.cents } : {}),
  })
}
function toggle(list: 'excludes' | 'needs', id: string) {
  put({
    [list]: props.shaving[list].includes(id)
      ? props.shaving[list].filter(other => other !== id)
      : [...props.shaving[list], id],
  })
}
</script>

<template>
  <div class="fields">
    <label class="field wide">What is done<EditField
      :value="shaving.what"
      @change="put({ what: ($event.target as HTMLInputElement).value.trim() })"
    /></label>
    <PickOne
      field="Kind"
      :model-value="shaving.kind"
      :options="shavingKinds"
      @update:model-value="kind($event as ShavingKind)"
    />
    <PickOne
      field="Line it touches"
      :model-value="shaving.lineId ?? ''"
      :options="lines.map((line) => ({ value: line.id, label: line.name }))"
      :none="shaving.kind === 'put on' ? 'a line of its own' : 'not said yet'"
      @update:model-value="put({ lineId: $event || null, candidateId: null })"
    />
    <PickOne
      v-if="candidates.length > 0"
      class="wide"
      field="Swapped for"
      :model-value="shaving.candidateId ?? ''"
      :options="candidates.map((line) => ({ value: line.id, label: line.name }))"
      none="nothing"
      @update:model-value="put({ candidateId: $event || null })"
    />
    <template v-if="effect.kind !== 'swap' && effect.kind !== 'off' && effect.kind !== 'on'">
      <label class="field">Grams off<EditField
        :value="shaving.gramsG === 0 ? '' : shaving.gramsG"
        placeholder="not said"
        inputmode="decimal"
        class="figure"
        @change="number('gramsG', $event)"
      /></label>
      <label class="field">± g<EditField
        :value="shaving.spreadG"
        inputmode="decimal"
        class="figure"
        @change="number('spreadG', $event)"
      /></label>
      <p
        v-if="touched && !working"
        class="wide"
      >
        <el-button
          link
          type="primary"
          @click="working = true"
        >
          Work the grams out …
        </el-button>
      </p>
      <LazyWorkOut
        v-if="touched && working"
        class="wide"
        :line="touched"
        use="That much comes off"
        saved
        :first="calculatorOf[shaving.kind]"
        @worked="useWorked"
        @close="working = false"
      />
    </template>
    <p
      v-else
      class="soft wide"
    >
      Its grams are those of the ledger.
    </p>
    <label class="field">Money, {{ settings.currency }}<EditField
      :value="shaving.cents === null ? '' : centsFigure(shaving.cents)"
      placeholder="unknown"
      inputmode="decimal"
      class="figure"
      @change="money"
    /></label>
    <label class="field">Minutes<EditField
      :value="shaving.minutes"
      inputmode="decimal"
      class="figure"
      @change="number('minutes', $event)"
    /></label>
    <PickOne
      field="Given up, 0–5"
      :model-value="shaving.loss"
      :options="[0, 1, 2, 3, 4, 5]"
      @update:model-value="put({ loss: Number($event) })"
    />
    <PickOne
      field="of"
      :model-value="shaving.lossWord"
      :options="lossWords"
      @update:model-value="put({ lossWord: $event as Shaving['lossWord'] })"
    />
    <PickOne
      v-if="shaving.kind === 'put on'"
      field="Brings, 0–5"
      :model-value="shaving.gain"
      :options="[0, 1, 2, 3, 4, 5]"
      @update:model-value="put({ gain: Number($event) })"
    />
    <label class="field">A slip ruins the part, %<EditField
      :value="shaving.slipPercent"
      inputmode="decimal"
      class="figure"
      @change="number('slipPercent', $event)"
    /></label>
    <el-checkbox
      class="end"
      :model-value="shaving.forGood"
      @change="put({ forGood: !shaving.forGood })"
    >
      cannot be undone
    </el-checkbox>
  </div>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
  <p
    v-if="structuralKinds.includes(shaving.kind)"
    class="note"
  >
    Thinner carbon can fail in flight: never fly over people. Wear eye protection and a mask; cut and drill wet, the dust is harmful.
  </p>
  <p
    v-if="effect.kind === 'none' && shaving.state !== 'done'"
    class="note"
  >
    Say which fitted line it touches: until then no plan can use it.
  </p>
  <h3>In a plan</h3>
  <el-radio-group
    class="stacked"
    :model-value="shaving.lock ?? 'free'"
    aria-label="In a plan"
    @change="put({ lock: $event === 'free' ? null : ($event as typeof shaving.lock) })"
  >
    <el-radio value="free">
      as it serves
    </el-radio>
    <el-radio value="in">
      always in
    </el-radio>
    <el-radio value="out">
      left out for now
    </el-radio>
  </el-radio-group>
  <details v-if="others.length > 0">
    <summary>Goes not with, needs</summary>
    <table>
      <thead><tr><th>Shaving</th><th>not with</th><th>needs</th></tr></thead><tbody>
        <tr
          v-for="other in others"
          :key="other.id"
        >
          <td>{{ other.what }}</td><td>
            <el-checkbox
              :model-value="shaving.excludes.includes(other.id)"
              :aria-label="`not with ${other.what}`"
              @change="toggle('excludes', other.id)"
            />
          </td><td>
            <el-checkbox
              :model-value="shaving.needs.includes(other.id)"
              :aria-label="`needs ${other.what}`"
              @change="toggle('needs', other.id)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </details>
  <p
    v-if="shaving.state !== 'done' && bobMoves(shaving.lineId, shaving.gramsG)"
    class="soft"
    data-test="bob"
  >
    {{ bobMoves(shaving.lineId, shaving.gramsG) }}
  </p>
  <template v-if="shaving.state === 'done'">
    <h3>Done</h3><p>
      Forecast {{ fixed(-shaving.gramsG, 2) }} ± {{ fixed(shaving.spreadG, 2) }}
      g{{ shaving.realG === null ? ', not weighed yet.' : `, weighed ${fixed(-shaving.realG, 2)} g.` }}
    </p>
  </template>
</template>

<style scoped>
.end {
  align-self: end;
}
details summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
  margin-top: 8px;
}
table {
  font-size: 12px;
  border-collapse: collapse;
}
th {
  font-weight: 500;
  color: var(--ink-soft);
  text-align: left;
}
td,
th {
  padding: 2px 8px 2px 0;
}
</style>

<script setup lang="ts">
import { Close } from '@element-plus/icons-vue'
import { askedOfWire, newWire, planWires, type AskedOfWire, type WirePlan } from '#core/aircraft/fit'
import { makeLine, makeMass } from '#core/model/ledger'
import { workedOut } from '#core/mass/evidence'
import { fixed, percentFigure } from '#core/text/display'
import { isNotRead, readNumber } from '#core/text/units'
import { wireGauges } from '#core/mass/mass-calculators'
import { wirePlanSchema } from '#core/slices/fit'

const store = useBuildStore()
const problem = ref('')
const wires = computed(() => store.build!.fit?.wires ?? [])
const plan = computed(() => planWires(wires.value))
const gauges = wireGauges.map(g => g.awg)

function save(next: readonly WirePlan[]) {
  store.run({ type: 'fit.set', fields: { wires: next } })
}
function change(wire: WirePlan, fields: Partial<WirePlan>) {
  const parsed = wirePlanSchema.safeParse({ ...wire, ...fields })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) save(wires.value.map(one => (one.id === wire.id ? parsed.data : one)))
}
function measure(wire: WirePlan, key: 'count' | 'routeMm' | 'slackMm' | 'haveMm', event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (text.trim() === '') {
    change(wire, { [key]: null })
    return
  }
  const read = readNumber(text)
  if (isNotRead(read)) problem.value = read.problem
  else change(wire, { [key]: read.value })
}
/**
 * Leads of the plan cut from the reel, or what splices add, become one line of worked out grams; leads that came with a
 * part are in that part's grams.
 */
const fromReel = computed(() =>
  plan.value.rows.filter(row => row.wire.haveMm === null).reduce((sum, row) => sum + row.massG, 0),
)
const ofSplices = computed(() => plan.value.rows.reduce((sum, row) => sum + row.spliceG, 0))
function book(origin: 'wire plan' | 'splices of the wire plan', name: string, grams: number) {
  const known = store.build!.lines.find(line => line.slot === 'wire' && line.mass?.origin === origin)
  const mass = makeMass({
    versionId: newId(),
    evidence: 'worked out',
    valueG: Number(grams.toFixed(3)),
    resolutionG: 0.001,
    origin,
  })
  if (known) store.run({ type: 'lines.change', changes: [{ id: known.id, fields: { mass } }] })
  else store.run({ type: 'lines.add', lines: [makeLine({ id: newId(), slot: 'wire', name, mass })], beforeId: null })
}
function add() {
  save([...wires.value, newWire(newId(), wires.value, store.overview?.counted ?? [])])
}
const askedWords: Record<AskedOfWire, string> = {
  awg: 'the gauge',
  count: 'how many',
  routeMm: 'the way',
  slackMm: 'the slack',
}
/** In the order they were planned, those with something still to say among them. */
const rows = computed(() =>
  wires.value.map(wire => {
    const planned = plan.value.rows.find(row => row.wire.id === wire.id)
    return (
      planned ?? {
        wire,
        massG: null,
        shortMm: 0,
        words: `Say ${askedOfWire(wire)
          .map(key => askedWords[key])
          .join(', ')}.`,
      }
    )
  }),
)
const headWords = computed(() => {
  if (wires.value.length === 0)
    return 'No leads planned yet: each has a way to go, some slack, and what is there already.'
  const kinds = wires.value.length === 1 ? 'One kind of lead' : `${wires.value.length} kinds of leads`
  const trimmed = plan.value.savedG > 0.004 ? `, ${fixed(plan.value.savedG, 2)} g saved by trimming` : ''
  return `${kinds}, ${fixed(plan.value.massG, 2)} g in all${plan.value.open.length > 0 ? ' of those wholly said' : ''}${trimmed}`
})
</script>

<template>
  <div class="wires">
    <p class="head">
      <span>{{ headWords }}<b
        v-if="plan.tooShort > 0"
        class="word-over"
      > · {{ plan.tooShort }} too short</b></span><el-button
        type="primary"
        @click="add"
      >
        New lead
      </el-button>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <div class="scroll">
      <table
        v-if="rows.length > 0"
        v-stacks
        class="cells"
      >
        <thead>
          <tr>
            <th>Lead</th><th>From</th><th>To</th><th><TermTip word="AWG" /></th><th class="right">
              Many
            </th><th class="right">
              <TermTip word="Way">
                Way, mm
              </TermTip>
            </th><th class="right">
              <TermTip word="Slack" />
            </th><th class="right">
              Is there
            </th><th class="right">
              Grams
            </th><th class="what">
              What to do
            </th><th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.wire.id"
            :class="{ bad: row.shortMm > 0 }"
            :data-wire="row.wire.id"
          >
            <td>
              <EditField
                :value="row.wire.name"
                :aria-label="`Name of lead ${row.wire.name}`"
                @change="change(row.wire, { name: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td>
              <EditField
                :value="row.wire.from"
                class="word"
                :aria-label="`${row.wire.name}: from`"
                @change="change(row.wire, { from: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td>
              <EditField
                :value="row.wire.to"
                class="word"
                :aria-label="`${row.wire.name}: to`"
                @change="change(row.wire, { to: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td>
              <PickOne
                :model-value="row.wire.awg ?? ''"
                :label="`${row.wire.name}: gauge`"
                :options="gauges"
                none="–"
                @update:model-value="change(row.wire, { awg: Number($event) || null })"
              />
            </td>
            <td>
              <EditField
                :value="row.wire.count"
                class="figure short"
                :aria-label="`${row.wire.name}: how many`"
                @change="measure(row.wire, 'count', $event)"
              />
            </td>
            <td>
              <EditField
                :value="row.wire.routeMm"
                class="figure short"
                :aria-label="`${row.wire.name}: way`"
                @change="measure(row.wire, 'routeMm', $event)"
              />
            </td>
            <td>
              <EditField
                :value="row.wire.slackMm"
                class="figure short"
                :aria-label="`${row.wire.name}: slack`"
                @change="measure(row.wire, 'slackMm', $event)"
              />
            </td>
            <td>
              <EditField
                :value="row.wire.haveMm"
                class="figure short"
                placeholder="reel"
                :aria-label="`${row.wire.name}: is there`"
                @change="measure(row.wire, 'haveMm', $event)"
              />
            </td>
            <td class="figure right">
              {{ row.massG === null ? '' : fixed(row.massG, 2) }}
            </td>
            <td :class="{ 'word-over': row.shortMm > 0 }">
              {{ row.words }}
            </td>
            <td>
              <IconButton
                :icon="Close"
                :label="`Take ${row.wire.name} out`"
                @click="save(wires.filter(w => w.id !== row.wire.id))"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="fromReel > 0 || ofSplices > 0">
      <el-button
        v-if="fromReel > 0"
        @click="book('wire plan', 'Leads of the wire plan, from the reel', fromReel)"
      >
        Book {{ fixed(fromReel, 2) }} g from the reel as worked out
      </el-button>
      <el-button
        v-if="ofSplices > 0"
        @click="book('splices of the wire plan', 'Splices of leads that were too short', ofSplices)"
      >
        Book {{ fixed(ofSplices, 2) }} g of splices as worked out
      </el-button>
    </p>
    <p class="soft">
      Stranded wire with a silicone jacket, ± {{ percentFigure(workedOut.fraction) }} %. A lead that is too short for
      its way is said before it is laid:
      with the grams of a splice, or lay it another way.
    </p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--ink-soft);
  font-size: 11.5px;
}
th,
td {
  padding: 2px 4px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
td select {
  padding: 2px 5px;
  font-size: 12.5px;
  border-color: transparent;
  background: transparent;
  width: 100%;
}
td select:hover,
td select:focus {
  border-color: var(--edge);
  background: var(--card);
}
td select {
  min-width: 52px;
  padding-right: 0;
}
td:first-child {
  min-width: 130px;
}
.short {
  width: 50px;
  text-align: right;
}
.word {
  width: 72px;
}
th.what {
  min-width: 170px;
}
tr.bad td {
  background: color-mix(in srgb, var(--beyond) 40%, transparent);
}
</style>

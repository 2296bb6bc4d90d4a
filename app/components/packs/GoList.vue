<script setup lang="ts">
import { gramsWithSpread, headroomWords, percentFigure } from '#core/text/display'
import { packNotes, type LoadoutCell } from '#core/aircraft/flight'
import { slideTable } from '#core/aircraft/balance'
import { countedLines, sameLoadout, withSetup } from '#core/mass/loadout'
import { packLabel, scaleWeighings } from '#core/model/ledger'
import { coverageFactor95 } from '#core/maths/numbers'
import { cardName } from '#core/limits/rules'

const store = useBuildStore()
const { ownCells, cards, flights } = useLoadouts()
const left = ref<ReadonlySet<string>>(new Set())
const withAll = ref(false)
const today = localDay()
const isClear = (cell: LoadoutCell) => cell.intoReserveG === 0
const listed = computed(() =>
  ownCells.value.filter(cell => !cell.never && (isClear(cell) || cell.onPurpose || withAll.value)),
)
const going = computed(() => listed.value.filter(cell => !left.value.has(cell.key)))
const setupName = (cell: LoadoutCell) => store.build!.setups.find(s => s.id === cell.choice.setupId)!.name
/** Where each pack lies so that its loadout hangs true. */
const slides = computed(() => slideTable(store.build!, store.estimates).flatMap(row => row.cells))
const liesAt = (cell: LoadoutCell) =>
  slideCellWords(slides.value.find(({ choice }) => sameLoadout(choice, cell.choice))?.slide ?? null)
function toggle(key: string) {
  const next = new Set(left.value)
  if (!next.delete(key)) next.add(key)
  left.value = next
}
/** The latest weighing on a scale of the builder's own that had this loadout's pack, or all of it, on the pan. */
function weighedOn(cell: LoadoutCell): string {
  const lines = countedLines(store.build!, cell.choice)
  const ids = new Set(lines.map(line => line.id))
  const whole = store
    .build!.observations.filter(
      o => o.state === 'taken in' && o.subjects.length > 1 && o.subjects.every(s => ids.has(s.id)),
    )
    .map(o => o.takenAt)
  const single = lines.flatMap(line => scaleWeighings(line).map(weighing => weighing.takenAt))
  const latest = [...whole, ...single].sort().at(-1)
  const weighed = lines.filter(line => line.mass?.evidence === 'weighed').length
  return latest ? dayOf(latest, 'short') : `${weighed} of ${lines.length} lines weighed`
}
function printList() {
  window.print()
}
</script>

<template>
  <section aria-label="Go list">
    <div class="head no-print">
      <el-checkbox v-model="withAll">
        also what is not clear
      </el-checkbox><span class="gap" /><el-button
        :disabled="going.length === 0"
        @click="printList"
      >
        Print
      </el-button>
    </div>
    <h2 class="title">
      {{ store.build!.name }}: go list of {{ dayOf(today) }}
    </h2>
    <p class="soft">
      {{
        cards.length === 0
          ? 'No rule card chosen.'
          : `Judged under ${cards.map(cardName).join(' and ')}, at ${percentFigure(store.build!.aim.confidence)} % confidence.`
      }}
    </p>
    <p v-if="listed.length === 0">
      No loadout is clear under all these cards.
    </p>
    <div
      v-else
      class="scroll"
    >
      <table v-stacks>
        <thead>
          <tr>
            <th class="no-print">
              <span class="visually-hidden">On the list</span>
            </th><th>Pack</th><th><TermTip word="Set-up" /></th><th class="right">
              <TermTip word="AUW">
                All-up weight
              </TermTip>
            </th><th><TermTip word="Verdict" /></th><th class="right">
              Minutes
            </th><th class="right">
              <TermTip word="Lies at" />
            </th><th>Weighed on</th><th>Mind</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="cell in listed"
            :key="cell.key"
            :class="{ 'no-print': left.has(cell.key), 'left': left.has(cell.key) }"
          >
            <td class="no-print">
              <el-checkbox
                :model-value="!left.has(cell.key)"
                :aria-label="`${packLabel(cell.pack)} ${withSetup(setupName(cell))} on the list`"
                @change="toggle(cell.key)"
              />
            </td>
            <td><b>{{ packLabel(cell.pack) }}</b> <span class="soft">{{ packWords(cell.pack) }}</span></td>
            <td>{{ setupName(cell) }}</td>
            <td class="right figure">
              {{ gramsWithSpread(cell.massG, cell.sigmaG * coverageFactor95, cell.binding?.limitG) }}
              <InOunces :grams="cell.massG" />
            </td>
            <td>
              <template
                v-for="judgement in cell.judgements"
                :key="judgement.card.id"
              >
                <span
                  v-if="judgement.verdict"
                  class="judged"
                ><VerdictMark :word="judgement.verdict.word" /> <span class="soft">{{
                  headroomWords(judgement.verdict.headroomG, cell.sigmaG * coverageFactor95)
                }}<template v-if="cards.length > 1">,
                  {{ judgement.card.place }}</template></span></span>
              </template><span v-if="cell.onPurpose">over on purpose</span>
            </td>
            <td class="right figure">
              {{ flights.get(cell.key)?.forecast?.why === null ? minutesWords(flights.get(cell.key)) : '–' }}
            </td>
            <td class="right figure">
              {{ liesAt(cell) }}
            </td>
            <td>{{ weighedOn(cell) }}</td>
            <td class="mind">
              {{ [...(flights.get(cell.key)?.misfits ?? []), ...packNotes(cell.pack, today)].join(' ') }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="soft">
      A planning aid, not legal advice. Rules change: confirm with your aviation authority. Never fly or charge a
      swollen or damaged pack; charge attended, on a fire-safe surface.
    </p>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  gap: 12px;
  align-items: center;
}
.gap {
  flex: 1;
}
.title {
  margin: 6px 0 2px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
}
th,
td {
  padding: 6px 8px 6px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
}
.right {
  text-align: right;
  white-space: nowrap;
}
.judged {
  display: block;
  white-space: nowrap;
}
.left td {
  opacity: 0.5;
}
.mind {
  font-size: 12px;
  max-width: 240px;
}
@media print {
  table {
    font-size: 11px;
  }
  th,
  td,
  .judged {
    white-space: normal !important;
  }
  td.mind {
    min-width: 140px;
  }
}
</style>

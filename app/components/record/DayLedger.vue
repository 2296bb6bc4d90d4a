<script setup lang="ts">
import { coverageFactor95 } from '#core/maths/numbers'
import { sigmaG } from '#core/maths/estimate'
import { countedLines, loadoutName } from '#core/mass/loadout'
import { reportRows } from '#core/mass/report'
import { slotFacts, type Line } from '#core/model/ledger'
import { gramsFigure, gramsWithSpread, headroomWords, spreadFigure } from '#core/text/display'

/** The whole ledger of another day, and every way to fly the craft then: to read, not to change. */
const looking = useLookingBackStore()
const rules = useRulesStore()
const then = computed(() => looking.compared!)
const flying = computed(() => new Set(countedLines(then.value.build, then.value.choice).map(({ id }) => id)))
const standing = ({ id, state }: Line) => (state !== 'fitted' ? state : flying.value.has(id) ? '' : 'not in this loadout')
const spreadOf = (line: Line) => coverageFactor95 * sigmaG(then.value.estimates.of(line))
const lines = computed(() =>
  then.value.build.lines.map(line => ({
    line,
    standing: standing(line),
    grams: line.mass ? gramsFigure(then.value.estimates.of(line).valueG, spreadOf(line)) : 'open',
    spread: line.mass ? `± ${spreadFigure(spreadOf(line))}` : '',
  })),
)
/** Of every loadout the card that leaves the least, or none. */
const loadouts = computed(() =>
  reportRows(then.value.build, rules.cards, looking.honesty!).map(row => {
    const judged = row.cards.filter(({ headroomG }) => headroomG !== null)
    const worst = judged.sort((a, b) => a.headroomG! - b.headroomG!)[0]
    return {
      name: loadoutName(then.value.build, row.choice),
      grams: gramsWithSpread(row.auwG, row.spreadG),
      verdict: worst ? worst.verdict : '',
      headroom: worst ? headroomWords(worst.headroomG!, worst.spreadG) : 'no limit',
    }
  }),
)
</script>

<template>
  <div class="day-ledger">
    <table class="answers-table">
      <caption>The ledger that day</caption>
      <thead>
        <tr>
          <th class="slot">
            Slot
          </th><th>What was fitted</th><th class="right">
            Many
          </th><th class="right">
            Grams
          </th><th class="right">
            Spread
          </th><th>Known by</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in lines"
          :key="row.line.id"
          :class="{ soft: row.standing !== '' }"
        >
          <td class="soft slot">
            {{ slotFacts[row.line.slot].label }}
          </td><td>
            {{ lineTitle(row.line) }}<span
              v-if="row.standing"
              class="soft"
            > · {{ row.standing }}</span>
          </td><td class="right figure">
            {{ row.line.quantity > 1 ? `× ${row.line.quantity}` : '' }}
          </td><td class="right figure">
            {{ row.grams }}
          </td><td class="right figure soft">
            {{ row.spread }}
          </td><td>
            <EvidenceSwatch
              v-if="row.line.mass"
              :evidence="row.line.mass.evidence"
            />{{ row.line.mass?.evidence ?? '' }}
          </td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <td class="slot" /><th
            colspan="2"
            scope="row"
          >
            All-up, {{ loadoutName(then.build, then.choice) }}
          </th><td class="right figure">
            {{ gramsFigure(looking.overview!.massG, looking.overview!.spreadG) }}
          </td><td class="right figure soft">
            ± {{ spreadFigure(looking.overview!.spreadG) }}
          </td><td />
        </tr>
      </tfoot>
    </table>
    <table
      v-if="loadouts.length > 0"
      class="answers-table"
    >
      <caption>Every way to fly it that day</caption>
      <thead>
        <tr>
          <th>Loadout</th><th class="right">
            All-up
          </th><th>Verdict</th><th>Under the card that leaves least</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in loadouts"
          :key="row.name"
        >
          <td>{{ row.name }}</td><td class="right figure">
            {{ row.grams }}
          </td><td>{{ row.verdict }}</td><td class="soft">
            {{ row.headroom }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  margin-top: 14px;
}
caption {
  text-align: left;
  padding-bottom: 4px;
  font-size: 13px;
  font-weight: 600;
}
tfoot th {
  text-align: left;
}
tfoot th,
tfoot .right {
  font-weight: 600;
}
.figure {
  white-space: nowrap;
}
.right + th,
.right + td:not(.right) {
  padding-left: 18px;
}
.day-ledger {
  overflow-x: auto;
}
@media screen and (max-width: 760px) {
  th,
  td,
  .right + td:not(.right) {
    padding-inline: 3px;
    font-size: 12px;
  }
  /* What it is says more than its slot. */
  tr > .slot {
    display: none;
  }
  tfoot th {
    white-space: normal;
  }
}
</style>

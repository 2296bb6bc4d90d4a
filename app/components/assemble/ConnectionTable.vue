<script setup lang="ts">
import { connectionsOf } from '#core/making/assembly'
import { fixed, figure } from '#core/text/display'
import { planWires } from '#core/aircraft/fit'

const store = useBuildStore()
const rows = computed(() => connectionsOf(store.build!, store.choice))
const leads = computed(() => planWires(store.build!.fit?.wires ?? []))
function printTable() {
  window.print()
}
const tone: Record<string, string> = {
  red: '#c62f2f',
  black: '#1d1a22',
  yellow: '#d9a514',
  white: '#f4f1ea',
  green: '#3f8f4d',
  blue: '#3a64ad',
}
</script>

<template>
  <section aria-label="Connections">
    <div class="station-head no-print">
      <p class="soft">
        From the feeds of Fit. Colours are the common ones: the paper of the part decides.
      </p><span class="gap" /><el-button
        :disabled="rows.length === 0"
        @click="printTable"
      >
        Print
      </el-button>
    </div>
    <h2 class="title">
      {{ store.build!.name }}: connections
    </h2>
    <p v-if="rows.length === 0">
      Nothing is wired in this loadout yet.
    </p>
    <div
      v-else
      class="scroll"
    >
      <table v-stacks>
        <thead>
          <tr>
            <th>From</th><th>Pad</th><th>Wire</th><th>To</th><th>Pin</th><th>Volts</th><th class="right">
              <TermTip word="AWG">
                Gauge
              </TermTip>
            </th><th class="right">
              Cut to
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(row, i) in rows"
            :key="i"
            :class="{ next: i > 0 && rows[i - 1]!.to !== row.to }"
          >
            <td>{{ row.from }}</td><td><b>{{ row.pad }}</b></td><td class="wire">
              <i
                v-if="tone[row.colour]"
                :style="{ background: tone[row.colour] }"
                aria-hidden="true"
              />{{ row.colour }}
            </td><td>{{ row.to }}</td><td>{{ row.pin }}</td><td
              class="figure"
              :class="{ 'word-over': row.volts.startsWith('not known') || row.clash }"
            >
              {{ row.volts }}<b
                v-if="row.clash"
                class="clash"
              >Clash: {{ row.clash }}</b>
            </td>
            <td class="figure right">
              {{ row.lead ? `AWG ${row.lead.wire.awg}` : row.itsOwn?.awg ? `AWG ${row.itsOwn.awg}` : '' }}
            </td><td class="figure right">
              {{ row.lead ? `${figure(row.lead.lengthMm, 1)} mm` : '' }}<small
                v-if="row.itsOwn?.lengthMm"
                class="soft"
              >{{ figure(row.itsOwn.lengthMm, 1) }} mm as it comes</small>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <template v-if="leads.rows.length > 0">
      <h3>Leads to cut</h3>
      <div class="scroll">
        <table v-stacks>
          <thead>
            <tr>
              <th>Lead</th><th>From, to</th><th class="right">
                <TermTip word="AWG">
                  Gauge
                </TermTip>
              </th><th class="right">
                Many
              </th><th class="right">
                <TermTip word="Way" />
              </th><th class="right">
                <TermTip word="Slack" />
              </th><th class="right">
                Cut to
              </th><th class="right">
                Grams
              </th><th />
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="lead in leads.rows"
              :key="lead.wire.id"
            >
              <td><b>{{ lead.wire.name }}</b></td><td>{{ lead.wire.from }}, {{ lead.wire.to }}</td><td class="figure right">
                AWG {{ lead.wire.awg }}
              </td><td class="figure right">
                {{ lead.wire.count }}
              </td><td class="figure right">
                {{ lead.wire.routeMm }}
              </td><td class="figure right">
                {{ lead.wire.slackMm }}
              </td><td class="figure right">
                <b>{{ figure(lead.lengthMm, 1) }} mm</b>
              </td><td class="figure right">
                {{ fixed(lead.massG, 2) }}
              </td><td class="soft">
                {{ lead.words }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </section>
</template>

<style scoped>
.clash {
  display: block;
  font-family: var(--sans);
  white-space: normal;
}
.title {
  margin: 4px 0 8px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  padding: 5px 10px 5px 0;
  text-align: left;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
  border-bottom-color: var(--edge);
}
.right {
  text-align: right;
  white-space: nowrap;
}
tr.next td {
  border-top: 1px solid var(--edge);
}
.wire {
  white-space: nowrap;
}
i {
  display: inline-block;
  width: 16px;
  height: 8px;
  border-radius: 4px;
  margin-right: 6px;
  border: 1px solid var(--edge);
}
</style>

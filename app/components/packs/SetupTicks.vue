<script setup lang="ts">
import { gramsWithSpread, fixed, minutesBand } from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import { slotFacts, type Line, type Setup } from '#core/model/ledger'
import { isOptional } from '#core/mass/loadout'
import { nameSchema } from '#core/text/schemas'

const store = useBuildStore()
const { ownCells, flights } = useLoadouts()
const newName = ref('')
const problem = ref('')
const optional = computed(() => store.build!.lines.filter(line => line.state === 'fitted' && isOptional(line)))

function put(setup: Setup): boolean {
  const named = nameSchema('The set-up’s name').safeParse(setup.name.trim())
  problem.value = named.success ? '' : named.error.issues[0]!.message
  return named.success && store.run({ type: 'setup.put', setup: { ...setup, name: named.data } })
}
function add(like: Setup | null) {
  const name = like ? `${like.name}, again` : newName.value
  if (put({ id: newId(), name, lineIds: like?.lineIds ?? [] }) && !like) newName.value = ''
}
/** Lines that travel together are ticked together. */
function tick(setup: Setup, line: Line) {
  const together = new Set(line.tie ? optional.value.filter(l => l.tie === line.tie).map(l => l.id) : [line.id])
  const on = setup.lineIds.includes(line.id)
  const others = setup.lineIds.filter(id => !together.has(id))
  put({ ...setup, lineIds: on ? others : [...others, ...together] })
}
const gramsOf = (setup: Setup) =>
  optional.value
    .filter(line => setup.lineIds.includes(line.id))
    .reduce((sum, line) => sum + store.estimates.of(line).valueG, 0)
const withFlown = (setup: Setup) =>
  ownCells.value.find(cell => cell.choice.setupId === setup.id && cell.choice.packLineId === store.choice.packLineId)
function minutes(setup: Setup) {
  const forecast = flights.value.get(withFlown(setup)?.key ?? '')?.forecast
  return forecast && forecast.why === null ? minutesBand(forecast.hardMinutes, forecast.gentleMinutes) : ''
}
</script>

<template>
  <section aria-label="Set-ups">
    <p class="soft">
      A set-up says which fittings and payload fly.
      {{
        optional.length === 0
          ? 'Give a line the role fitting or payload in Parts, then tick it here.'
          : 'Tick the lines that are on board.'
      }}
    </p>
    <div class="scroll">
      <table v-stacks>
        <thead>
          <tr>
            <th>Line</th><th class="right">
              Grams
            </th><th
              v-for="setup in store.build!.setups"
              :key="setup.id"
            >
              <EditField
                :value="setup.name"
                :aria-label="`Name of set-up ${setup.name}`"
                @change="put({ ...setup, name: ($event.target as HTMLInputElement).value })"
              />
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="line in optional"
            :key="line.id"
          >
            <th scope="row">
              {{ line.name }}
              <small class="soft">{{ slotFacts[line.slot].label.toLowerCase() }}{{
                line.role === 'payload' && line.slot === 'payload' ? '' : `, ${line.role}`
              }}{{ line.tie ? `, with “${line.tie}”` : '' }}</small>
            </th><td class="right figure">
              {{ line.mass ? gramsWithSpread(store.estimates.of(line).valueG, spreadG(store.estimates.of(line))) : '–' }}
            </td><td
              v-for="setup in store.build!.setups"
              :key="setup.id"
            >
              <el-checkbox
                :model-value="setup.lineIds.includes(line.id)"
                :aria-label="`${line.name} flies in ${setup.name}`"
                @change="tick(setup, line)"
              />
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">
              Together
            </th><td /><td
              v-for="setup in store.build!.setups"
              :key="setup.id"
              class="figure"
            >
              {{ fixed(gramsOf(setup), 2) }} g
            </td>
          </tr>
          <tr>
            <th scope="row">
              With the pack looked at
            </th><td /><td
              v-for="setup in store.build!.setups"
              :key="setup.id"
            >
              <template v-if="withFlown(setup)">
                <span class="figure">{{ fixed(withFlown(setup)!.massG, 1) }} g</span><br><VerdictMark
                  v-if="withFlown(setup)!.binding?.verdict"
                  :word="withFlown(setup)!.binding!.verdict!.word"
                /><br><span class="figure soft">{{ minutes(setup) }}</span>
              </template>
            </td>
          </tr>
          <tr>
            <td /><td /><td
              v-for="setup in store.build!.setups"
              :key="setup.id"
            >
              <el-button
                link
                type="primary"
                :aria-label="`Copy set-up ${setup.name}`"
                @click="add(setup)"
              >
                Copy
              </el-button> <el-button
                link
                type="primary"
                :disabled="store.build!.setups.length === 1"
                :aria-label="`Delete set-up ${setup.name}`"
                @click="store.run({ type: 'setup.delete', id: setup.id })"
              >
                Delete
              </el-button>
            </td>
          </tr>
        </tfoot>
      </table>
    </div>
    <OneField
      v-model="newName"
      class="new"
      label="Name of the new set-up"
      placeholder="bare, for the shed"
      words="Add a set-up"
      :problem="problem"
      @send="add(null)"
    />
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
  font-weight: 400;
}
thead th {
  color: var(--ink-soft);
  font-size: 11.5px;
}
thead .el-input {
  width: 150px;
  padding: 3px 7px;
  font-size: 12.5px;
  font-weight: 600;
}
.right {
  text-align: right;
  white-space: nowrap;
}
small {
  display: block;
}
tfoot th {
  color: var(--ink-soft);
}
.new {
  margin-top: 10px;
}
</style>

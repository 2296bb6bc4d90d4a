<script setup lang="ts">
import { buyTotal, toBuy, type BuyReason } from '#core/deciding/buying'
import { centsFigure, withPoint } from '#core/text/display'
import { csvFile } from '#shared/files/csv'

const store = useBuildStore()
const drawer = useDrawerStore()
const { settings } = storeToRefs(useSettingsStore())
onMounted(() => {
  if (!drawer.loaded) void drawer.load()
})
const tools = ref(false)
const spares = ref(false)
const rows = computed(() =>
  toBuy(
    store.build!,
    drawer.parts,
    drawer.placements,
    { tools: tools.value, spares: spares.value },
    { kits: drawer.kits, radioFamily: settings.value.gear.radioFamily },
  ),
)
const total = computed(() => buyTotal(rows.value))
const reasons: readonly BuyReason[] = ['not owned yet', 'needed, no line', 'crash spare', 'tool or consumable']
const sections = computed(() =>
  reasons
    .map(reason => ({ reason, rows: rows.value.filter(row => row.reason === reason) }))
    .filter(s => s.rows.length > 0),
)

function save() {
  const text = withPoint(() =>
    csvFile([
    [
      'Why',
      'What',
      'Wanted',
      'In the drawer',
      'To buy',
      `Each, ${settings.value.currency}`,
      `Together, ${settings.value.currency}`,
      'Note',
    ],
    ...rows.value.map(row => [
      row.reason,
      row.name,
      String(row.wanted),
      String(row.inDrawer),
      String(row.toBuy),
      row.priceEachCents === null ? '' : centsFigure(row.priceEachCents),
      row.priceCents === null ? '' : centsFigure(row.priceCents),
      row.why,
    ]),
  ]),
  )
  saveFile(`${store.build!.name} to buy.csv`, text, 'text/csv')
}
function printList() {
  window.print()
}
</script>

<template>
  <div class="buy">
    <div class="head no-print">
      <el-checkbox v-model="spares">
        crash spares
      </el-checkbox><el-checkbox v-model="tools">
        tools and consumables
      </el-checkbox><span class="gap" />
      <el-button
        :disabled="rows.length === 0"
        @click="save"
      >
        As CSV
      </el-button><el-button
        :disabled="rows.length === 0"
        @click="printList"
      >
        Print
      </el-button>
    </div>
    <p v-if="rows.length === 0">
      Nothing to buy: every fitted line is owned, weighed or in the drawer.
    </p>
    <div class="scroll">
      <table v-if="rows.length > 0">
        <thead>
          <tr>
            <th>What</th><th class="right">
              Wanted
            </th><th class="right">
              In the drawer
            </th><th class="right">
              To buy
            </th><th class="right">
              Each
            </th><th class="right">
              Together, {{ settings.currency }}
            </th>
          </tr>
        </thead>
        <tbody
          v-for="section in sections"
          :key="section.reason"
        >
          <tr class="section">
            <th
              colspan="6"
              scope="rowgroup"
            >
              {{
                {
                  'not owned yet': 'Fitted, not owned yet',
                  'needed, no line': 'Needed, no line for it',
                  'crash spare': 'Crash spares',
                  'tool or consumable': 'Tools and consumables',
                }[section.reason]
              }}
            </th>
          </tr>
          <tr
            v-for="row in section.rows"
            :key="row.name + row.why"
          >
            <td>
              {{ row.name }} <span
                v-if="row.why"
                class="soft"
              >{{ row.why }}</span>
            </td><td class="figure right">
              {{ row.wanted }}
            </td><td class="figure right soft">
              {{ row.inDrawer || '' }}
            </td><td class="figure right">
              <b>{{ row.toBuy }}</b>
            </td><td class="figure right soft">
              {{ row.priceEachCents === null ? '' : centsFigure(row.priceEachCents) }}
            </td><td class="figure right">
              {{ row.priceCents === null ? '' : centsFigure(row.priceCents) }}
            </td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <td colspan="5">
              Sum of what has a price{{ total.unpriced > 0 ? `; ${total.unpriced} without one` : '' }}
            </td><td class="figure right">
              {{ centsFigure(total.cents) }}
            </td>
          </tr>
        </tfoot>
      </table>
    </div>
    <p class="soft">
      A line counts as owned when it is weighed, was on board when the craft was weighed, or is a part of the drawer with enough pieces.
    </p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
  margin: 6px 0;
}
.gap {
  flex: 1;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 4px 6px;
  border-bottom: 1px solid var(--line);
  text-align: left;
}
thead th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
}
.right {
  text-align: right;
}
.section th {
  background: var(--paper);
  font-size: 12px;
}
tfoot td {
  font-weight: 600;
}
</style>

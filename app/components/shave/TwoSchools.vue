<script setup lang="ts">
import { signed } from '#core/text/display'
import { schoolsOf, type SchoolWay } from '#core/deciding/shave'

const store = useBuildStore()
const { settings } = storeToRefs(useSettingsStore())
const schools = computed(() => schoolsOf(store.build!, store.estimates))
const grams = ({ againstG: [low, high] }: SchoolWay) =>
  low === high ? signed(low, 2) : `${signed(low, 1)} to ${signed(high, 1)}`
function price(way: SchoolWay): string {
  if (way.now) return ''
  const parts = [
    way.cents === null
      ? 'money not known'
      : way.cents === 0
        ? 'no money'
        : `${signed(way.cents / 100, 2)} ${settings.value.currency}`,
    way.minutes === null ? '' : `${signed(way.minutes, 0)} min`,
    way.loss === 0 ? '' : `${signed(way.loss, 0)} given up`,
  ]
  return parts.filter(Boolean).join(' · ')
}
</script>

<template>
  <details
    v-if="schools.length > 0"
    class="schools"
  >
    <summary>Two schools: what each way comes to on this build</summary>
    <table
      v-for="school in schools"
      :key="school.question"
    >
      <caption>{{ school.question }}</caption>
      <tbody>
        <tr
          v-for="way in school.ways"
          :key="way.name"
          :class="{ now: way.now }"
        >
          <th scope="row">
            {{ way.name }}
          </th><td class="figure">
            {{ way.now ? 'now' : `${grams(way)} g` }}
          </td><td class="soft price">
            {{ price(way) }}
          </td><td class="soft">
            {{ way.words }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      Grams from the fixings plan, the wire plan and typical masses. Minutes are the usual ones; money is said where
      the ledger knows a price.
    </p>
  </details>
</template>

<style scoped>
.price {
  width: 27%;
}
.schools {
  margin-top: 18px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
summary {
  cursor: pointer;
  font-weight: 600;
  color: var(--plum-text);
}
table {
  border-collapse: collapse;
  margin: 10px 0;
  width: 100%;
}
caption {
  text-align: left;
  font-weight: 600;
  padding-bottom: 2px;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 3px 12px 3px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
th {
  width: 26%;
}
td.figure {
  width: 13%;
  white-space: nowrap;
}
.now th {
  font-weight: 600;
}
</style>

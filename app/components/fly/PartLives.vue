<script setup lang="ts">
import { partKeyOf, type LifeSlot } from '#core/aircraft/flown'
import { minutesFigure } from '#core/text/display'
import { slotFacts } from '#core/model/ledger'
import { isNotRead, readNumber } from '#core/text/units'

/** What the parts have flown since they were fitted, against the builder's own limits. */
const { isAll, overOnly } = defineProps<{
  isAll?: boolean
  /** Only those beyond their limit, and nothing where there are none. */
  overOnly?: boolean
}>()
const store = useBuildStore()
const flights = useFlightsStore()
const settings = useSettingsStore()
const problem = ref('')
const limits = computed(() => settings.settings.lifeLimits)
/** Parts that are on the build now; the others flew on it and are elsewhere. */
const here = computed(() => {
  const build = store.build!
  return new Set(build.lines.filter(line => line.state === 'fitted').map(line => partKeyOf(build, line)))
})
const rows = computed(() =>
  flights.lives
    .filter(life => isAll || (life.retiredAt === null && here.value.has(life.key)))
    .map(life => {
      const limit = limits.value[life.slot] ?? null
      const share = limit === null ? 0 : life.flights / limit
      return { ...life, limit, share, isOver: share >= 1 }
    })
    .filter(({ isOver }) => isOver || !overOnly),
)
/** Kinds that fly on this build, for their limits. */
const kinds = computed(() => [...new Set(flights.lives.map(({ slot }) => slot))])
function whereWords({ retiredAt, key, buildIds }: (typeof rows.value)[number]): string {
  if (retiredAt !== null) return `until ${flightDay(retiredAt)}`
  if (!here.value.has(key)) return 'not on this build now'
  return buildIds.length > 1 ? `on ${buildIds.length} builds` : ''
}
async function setLimit(slot: LifeSlot, event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const { [slot]: _before, ...others } = limits.value
  const read = text === '' ? null : readNumber(text)
  if (read && (isNotRead(read) || !Number.isInteger(read.value) || read.value < 1 || read.value > 100_000)) {
    problem.value = 'A limit is a whole number of flights, from 1 to 100,000; empty for none.'
    return
  }
  problem.value = ''
  await settings.change({ lifeLimits: read && !isNotRead(read) ? { ...others, [slot]: read.value } : others })
}
async function renew(key: string) {
  problem.value = await flights.renew(key, localMoment())
}
</script>

<template>
  <p
    v-if="rows.length === 0 && !overOnly"
    class="soft"
  >
    No part has flown yet.
  </p>
  <ul
    v-else-if="rows.length > 0"
    class="lives"
  >
    <li
      v-for="life in rows"
      :key="`${life.key} ${life.retiredAt}`"
      :class="{ over: life.isOver }"
    >
      <div class="head">
        <span>
          <b>{{ slotFacts[life.slot].label }}</b> {{ life.name }} <small class="soft">{{ whereWords(life) }}</small>
        </span><span class="figure">{{ life.flights }}</span><span class="figure soft">
          {{ minutesFigure(life.minutes) }} min
        </span><el-button
          v-if="isAll"
          link
          type="primary"
          :disabled="life.retiredAt !== null || !here.has(life.key)"
          @click="renew(life.key)"
        >
          New one fitted
        </el-button>
      </div>
      <div
        v-if="life.limit !== null"
        class="bar"
      >
        <i :style="{ width: `${Math.min(100, 100 * life.share)}%` }" />
      </div>
      <p
        v-if="life.isOver"
        class="look"
      >
        Look at it: {{ life.flights }} of {{ life.limit }} flights.
      </p>
    </li>
  </ul>
  <template v-if="isAll && kinds.length > 0">
    <h3>Look at them after so many flights</h3>
    <p class="soft">
      Your own limits, for every build. Empty is none.
    </p>
    <div class="limits">
      <label
        v-for="slot in kinds"
        :key="slot"
        class="field"
      >{{ slotFacts[slot].label }}<EditField
        :value="limits[slot] ?? ''"
        inputmode="numeric"
        class="figure"
        @change="setLimit(slot, $event)"
      /></label>
    </div>
  </template>
  <p
    v-if="problem"
    class="problem"
    role="alert"
  >
    {{ problem }}
  </p>
</template>

<style scoped>
.lives {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 13px;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: 1fr 34px 62px auto;
  gap: 6px;
  align-items: baseline;
}
.head .figure {
  text-align: right;
}
.bar {
  height: 4px;
  margin-top: 4px;
  border-radius: 2px;
  background: var(--line);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 2px;
  background: var(--plum-text);
}
.over .bar i {
  background: var(--close);
}
.look {
  margin: 2px 0 0;
  color: var(--close);
  font-weight: 600;
}
.limits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
  gap: 10px;
}
</style>

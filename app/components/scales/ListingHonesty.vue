<script setup lang="ts">
import { extent, scaleLinear } from 'd3'
import { fixed, signed } from '#core/text/display'
import { slotFacts, slots } from '#core/model/ledger'
import { ListingBiasTable, tendencies, type ListingObservation } from '#core/mass/listings'
import { coverageFactor95 } from '#core/maths/numbers'

const shelf = useShelfStore()
const observations = shallowRef<readonly ListingObservation[]>([])
const problem = ref('')
shelf
  .listings()
  .then(found => {
    observations.value = found
  })
  .catch((error: unknown) => {
    problem.value = sentenceOf(error)
  })

const width = 360
const kinds = computed(() => {
  const table = new ListingBiasTable(observations.value)
  return slots.flatMap(slot => {
    const mine = observations.value.filter(o => o.slot === slot)
    if (mine.length === 0) return []
    const { mu, sharedSigma, products } = table.of(slot)
    const percent = (log: number) => 100 * (Math.exp(log) - 1)
    return [
      {
        slot,
        products,
        points: mine.map(o => percent(Math.log(o.ratio))),
        mean: percent(mu),
        low: percent(mu - coverageFactor95 * sharedSigma),
        high: percent(mu + coverageFactor95 * sharedSigma),
      },
    ]
  })
})
const alike = computed(() =>
  tendencies(observations.value).map(t => ({
    name: t.name.replace(/(^|\s)\w/g, letter => letter.toUpperCase()),
    products: t.products,
    mean: 100 * (Math.exp(t.mu) - 1),
    spread: 100 * coverageFactor95 * t.sharedSigma,
  })),
)
const x = computed(() => {
  const [low = -5, high = 5] = extent(kinds.value.flatMap(k => [...k.points, k.low, k.high, 0]))
  return scaleLinear([low - 1, high + 1], [8, width - 8]).nice()
})
</script>

<template>
  <section
    class="panel"
    aria-label="Listing honesty"
  >
    <h2>How honest listings are</h2>
    <p class="soft">
      Parts of yours that were listed and then weighed as they came. What they teach corrects the parts that are only
      listed; few parts teach little, so the correction is shrunk towards none.
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p
      v-if="kinds.length === 0 && !problem"
      class="soft"
    >
      Nothing yet: weigh a part as supplied that has a listing.
    </p>
    <table
      v-else-if="kinds.length > 0"
      v-stacks
    >
      <thead>
        <tr>
          <th>Kind</th><th class="right">
            Parts
          </th><th>
            <TermTip word="Listed">
              Weighed against listed, %
            </TermTip>
          </th><th class="right">
            <TermTip word="Correction">
              Correction in use
            </TermTip>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="kind in kinds"
          :key="kind.slot"
        >
          <td>{{ slotFacts[kind.slot].label }}</td><td class="right figure">
            {{ kind.products }}
          </td>
          <td>
            <svg
              :width="width"
              height="22"
              role="img"
              :aria-label="kind.points.map(p => `${signed(p, 1)} %`).join(', ')"
            >
              <line
                class="zero"
                :x1="x(0)"
                :x2="x(0)"
                y1="0"
                y2="22"
              /><line
                class="interval"
                :x1="x(kind.low)"
                :x2="x(kind.high)"
                y1="11"
                y2="11"
              /><line
                class="mean"
                :x1="x(kind.mean)"
                :x2="x(kind.mean)"
                y1="4"
                y2="18"
              />
              <circle
                v-for="(point, i) in kind.points"
                :key="i"
                :cx="x(point)"
                cy="11"
                r="3"
              />
            </svg>
          </td>
          <td class="right figure">
            {{ signed(kind.mean, 1) }} % <small class="soft">{{ fixed(kind.low, 1) }} … {{ fixed(kind.high, 1) }}</small>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-if="alike.length > 0">
      <h3>Parts whose names begin alike</h3>
      <p class="soft">
        As those of one maker do: their own tendency, for your eyes; the correction in use is the kind’s.
      </p>
      <p
        v-for="tendency in alike"
        :key="tendency.name"
        class="alike"
      >
        <b>{{ tendency.name }}</b> <span class="figure">{{ signed(tendency.mean, 1) }} % ±
          {{ fixed(tendency.spread, 1) }}</span> <span class="soft">from {{ tendency.products }} parts</span>
      </p>
    </template>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  font-size: 12px;
  color: var(--ink-soft);
}
td,
th {
  padding: 4px 8px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
  white-space: nowrap;
}
svg {
  display: block;
  max-width: 100%;
}
.zero {
  stroke: var(--edge);
  stroke-dasharray: 2 3;
}
.interval {
  stroke: var(--plum-text);
  stroke-width: 5;
  opacity: 0.3;
}
.mean {
  stroke: var(--plum-text);
  stroke-width: 2;
}
circle {
  fill: var(--g-drive);
}
@media screen and (max-width: 760px) {
  .panel {
    overflow-x: auto;
  }
}
</style>

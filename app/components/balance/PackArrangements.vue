<script setup lang="ts">
import { arrangementsOf, type Arrangement } from '#core/aircraft/balance'
import { fixed } from '#core/text/display'

/** The ways to carry the pack, side by side: where it then hangs, how lazily it turns, how high it is. */
const store = useBuildStore()
const rows = computed(() =>
  store.build ? arrangementsOf(store.build, store.choice, store.estimates) : ([] as readonly Arrangement[]),
)
const wordsOf = ({ side, turnDeg }: Arrangement) => `${side}, ${turnDeg === 0 ? 'along' : 'across'}`
function hangs({ slide, inProps }: Arrangement): string {
  if (inProps) return 'in the props'
  if (!slide) return '–'
  return slide.missesMm < 0.05
    ? 'hangs true'
    : `${fixed(Math.abs(slide.remainsMm), 1)} mm ${slide.remainsMm < 0 ? 'tail-heavy' : 'nose-heavy'}`
}
const isGood = (row: Arrangement) => !row.inProps && row.slide !== null && row.slide.missesMm < 0.05
</script>

<template>
  <details v-if="rows.length > 0">
    <summary>Other ways to carry the pack</summary>
    <p class="soft">
      Each with the pack slid to where it hangs best on the tray, and all else as it is.
    </p>
    <table v-stacks>
      <thead>
        <tr>
          <th>Pack</th><th>Best it hangs</th><th class="right">
            Above the props, mm
          </th><th class="right">
            <TermTip word="Radius of gyration">
              Roll · pitch · yaw, mm
            </TermTip>
          </th><th class="right">
            High, mm
          </th><th>
            <span class="visually-hidden">Choose it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="wordsOf(row)"
          :class="{ now: row.isNow }"
        >
          <td>{{ wordsOf(row) }}</td><td :class="isGood(row) ? 'word-clear' : 'word-close'">
            {{ hangs(row) }}
          </td><td class="right figure">
            {{ row.abovePropsMm === null ? '–' : fixed(row.abovePropsMm, 1) }}
          </td><td class="right figure">
            {{ row.gyrationMm.map(mm => fixed(mm, 1)).join(' · ') }}
          </td><td class="right figure">
            {{ fixed(row.highMm, 0) }}
          </td><td class="right">
            <span
              v-if="row.isNow"
              class="soft"
            >so it is</span><el-button
              v-else
              link
              type="primary"
              :aria-label="`Carry the pack ${wordsOf(row)}`"
              @click="store.run({ type: 'places.pack', side: row.side, turnDeg: row.turnDeg })"
            >
              Carry it so
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
}
th {
  text-align: left;
  font-weight: 500;
  font-size: 12px;
  color: var(--ink-soft);
  vertical-align: bottom;
}
th,
td {
  padding: 3px 6px 3px 0;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
.right.figure {
  font-size: 12px;
  white-space: nowrap;
}
.now td {
  background: var(--selection);
}
</style>

<script setup lang="ts">
import { fixed, minutesFigure, percentSure } from '#core/text/display'
import { styles } from '#core/aircraft/power'
import { packLines } from '#core/mass/loadout'
import { packLabel } from '#core/model/ledger'

/** The chance of the minutes goal by pack and style, and which single change would bring it nearer. */
const store = useBuildStore()
const { goal, chanceIn, ways, style } = useNextFlight()
const flown = styles.filter(one => one !== 'hover')
const rows = computed(() =>
  packLines(store.build!)
    .filter(line => line.pack)
    .map(line => ({
      id: line.id,
      label: packLabel(line),
      chances: flown.map(of => chanceIn({ ...store.choice, packLineId: line.id }, of)),
    })),
)
const wayWords = computed(() => {
  if (!ways.value) return []
  const { lighterG, otherPack, gentler } = ways.value
  return [
    lighterG === null || lighterG === 0 ? '' : `lighter by ${fixed(lighterG, 1)} g reaches it every second time`,
    otherPack ? `${otherPack.label} reaches it in ${percentSure(otherPack.chance)}` : '',
    gentler ? `flown as ${gentler.style} it does in ${percentSure(gentler.chance)}` : '',
  ].filter(Boolean)
})
</script>

<template>
  <section
    v-if="goal !== null && rows.length > 0"
    aria-labelledby="goal-head"
  >
    <h3 id="goal-head">
      Reaches the goal of {{ minutesFigure(goal) }} minutes
    </h3>
    <table class="answers-table">
      <thead>
        <tr>
          <th scope="col">
            Pack
          </th><th
            v-for="one in flown"
            :key="one"
            scope="col"
            class="right"
          >
            {{ one }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.id"
        >
          <td>{{ row.label }}</td><td
            v-for="(chance, i) in row.chances"
            :key="flown[i]"
            class="right figure"
          >
            {{ chance === null ? '–' : percentSure(chance) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p
      v-if="wayWords.length > 0"
      class="soft"
    >
      As {{ style }} on this loadout, one change at a time: {{ wayWords.join('; ') }}.
    </p>
  </section>
  <p
    v-else-if="goal === null"
    class="soft"
  >
    Say a goal of minutes in <NuxtLink :to="`/builds/${store.build!.id}/aim`">Aim</NuxtLink>: then its chance stands here.
  </p>
</template>

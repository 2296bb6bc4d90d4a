<script setup lang="ts">
import { balanceOf, type Balance, type Vec3 } from '#core/aircraft/balance'
import { estimatesOf } from '#core/mass/loadout'
import { fixed } from '#core/text/display'

/** How lazily this craft turns beside the other builds of the shelf, each as it is flown. */
const { balance } = defineProps<{ balance: Balance }>()
const store = useBuildStore()
const shelf = useShelfStore()

interface Row {
  readonly id: string
  readonly name: string
  readonly massG: number
  readonly gyrationMm: Vec3
}
const others = shallowRef<readonly Row[]>([])
const progress = shallowRef<{ done: number; of: number } | null>(null)
const problem = ref('')
let isStopped = false
let hasLooked = false
onBeforeUnmount(() => {
  isStopped = true
})

async function look(event: Event) {
  if (!(event.target as HTMLDetailsElement).open || hasLooked) return
  hasLooked = true
  isStopped = false
  problem.value = ''
  try {
    await shelf.load()
    const wanted = shelf.entries.filter(entry => !entry.archived && !entry.reference && entry.id !== store.build!.id)
    for (const [done, entry] of wanted.entries()) {
      progress.value = { done, of: wanted.length }
      const build = await store.otherBuild(entry.id)
      if (isStopped) break
      const { totalG, gyrationMm } = balanceOf(build, build.flies, estimatesOf(build, store.honesty))
      if (gyrationMm) others.value = [...others.value, { id: entry.id, name: entry.name, massG: totalG, gyrationMm }]
    }
  } catch (error) {
    problem.value = sentenceOf(error)
    hasLooked = false
  } finally {
    progress.value = null
  }
}
const rows = computed(() => {
  const { build } = store
  const { totalG, gyrationMm } = balance
  const own = build && gyrationMm ? [{ id: build.id, name: build.name, massG: totalG, gyrationMm }] : []
  return [...own, ...others.value].sort((a, b) => a.gyrationMm[1] - b.gyrationMm[1])
})
</script>

<template>
  <details @toggle="look">
    <summary>Beside your other builds</summary>
    <p class="soft">
      How far out the mass sits, each build as it is flown: the less, the quicker it turns. Places that nobody has said are
      as usual.
    </p>
    <table
      v-stacks
      class="answers-table"
    >
      <thead>
        <tr>
          <th>Build</th><th class="right">
            Grams
          </th><th class="right">
            Roll, mm
          </th><th class="right">
            Pitch, mm
          </th><th class="right">
            Yaw, mm
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.id"
          :class="{ own: row.id === store.build!.id }"
        >
          <td>
            <NuxtLink :to="`/builds/${row.id}/balance`">
              {{ row.name }}
            </NuxtLink>
          </td><td class="right figure">
            {{ fixed(row.massG, 1) }}
          </td><td
            v-for="(mm, axis) in row.gyrationMm"
            :key="axis"
            class="right figure"
          >
            {{ fixed(mm, 1) }}
          </td>
        </tr>
      </tbody>
    </table>
    <WorkProgress
      v-if="progress"
      words="Builds looked at"
      v-bind="progress"
      @stop="isStopped = true"
    />
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </details>
</template>

<style scoped>
.own td {
  font-weight: 600;
  background: var(--selection);
}
</style>

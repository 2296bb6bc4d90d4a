<script setup lang="ts">
import { movableLines, otherMoves, placeOfPiece, type Balance } from '#core/aircraft/balance'
import { fixed } from '#core/text/display'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'

/** The least moves of other things than the pack that hang the craft true, within how far the builder lets each go. */
const { balance } = defineProps<{ balance: Balance }>()
const store = useBuildStore()
/** Fields that nobody sees are not drawn anew while a piece is dragged. */
const isOpen = ref(false)

/** Farther nothing is moved on such a craft, mm. */
const mostMm = 200
const limits = ref<Record<string, string>>({})
const nameOf = (lineId: string) => store.lineOf(lineId)?.name ?? ''
const lines = computed(() => [...movableLines(balance)].sort((a, b) => b.massG - a.massG))
const reads = computed(() =>
  lines.value.map(({ lineId }) => {
    const text = (limits.value[lineId] ?? '').trim()
    if (text === '') return { lineId, mm: null, problem: '' }
    const read = readNumber(withoutUnit(text, 'mm'))
    if (isNotRead(read)) return { lineId, mm: null, problem: read.problem }
    return read.value < 0 || read.value > mostMm
      ? { lineId, mm: null, problem: `From 0 to ${mostMm} mm.` }
      : { lineId, mm: read.value, problem: '' }
  }),
)
const problemOf = (lineId: string) => reads.value.find(one => one.lineId === lineId)?.problem
const told = computed(() =>
  otherMoves(balance, new Map(reads.value.flatMap(({ lineId, mm }) => (mm === null ? [] : [[lineId, mm]])))),
)
const moves = computed(() => (told.value?.moves ?? []).filter(({ byMm }) => Math.abs(byMm) >= 0.05))
const leftWords = computed(() => {
  const { leftMm } = told.value!
  if (Math.abs(leftMm) < 0.05) return 'Then it hangs true.'
  return `Then it still hangs ${fixed(Math.abs(leftMm), 1)} mm ${leftMm < 0 ? 'tail-heavy' : 'nose-heavy'}.`
})
function doIt() {
  const by = new Map(moves.value.map(({ lineId, byMm }) => [lineId, byMm]))
  const pieces = balance.layout.pieces
    .filter(({ lineId }) => by.has(lineId))
    .map(piece => {
      const place = placeOfPiece(piece)
      return { ...place, xMm: Math.round(10 * (place.xMm + by.get(piece.lineId)!)) / 10 }
    })
  if (store.run({ type: 'places.put', pieces })) limits.value = {}
}
</script>

<template>
  <details
    class="other-moves"
    @toggle="isOpen = ($event.target as HTMLDetailsElement).open"
  >
    <summary>Move other things than the pack</summary>
    <p class="soft">
      Say how far each may go forward or back. The least moves that help are told; what is left empty stays.
    </p>
    <el-form
      v-if="isOpen"
      class="limits"
      @submit.prevent="doIt"
    >
      <FormField
        v-for="{ lineId, massG } in lines"
        :key="lineId"
        :label="`${nameOf(lineId)}, ${fixed(massG, 1)} g`"
        :problem="problemOf(lineId)"
      >
        <el-input
          v-model="limits[lineId]"
          class="figure"
          inputmode="decimal"
          placeholder="mm"
        />
      </FormField>
      <div
        v-if="moves.length > 0"
        class="told"
        role="status"
      >
        <p>
          <template
            v-for="({ lineId, byMm }, i) in moves"
            :key="lineId"
          >
            {{ i > 0 ? '; ' : '' }}{{ nameOf(lineId) }}
            <b class="figure">{{ fixed(Math.abs(byMm), 1) }} mm</b> {{ byMm > 0 ? 'forward' : 'back' }}
          </template>. {{ leftWords }}
        </p>
        <el-button
          type="primary"
          native-type="submit"
        >
          Move them
        </el-button>
      </div>
    </el-form>
  </details>
</template>

<style scoped>
.limits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
.told {
  grid-column: 1 / -1;
}
.told p {
  margin: 4px 0 8px;
}
</style>

<script setup lang="ts">
import { placeOfPiece, type Piece, type Vec3 } from '#core/aircraft/balance'
import type { PiecePlace } from '#core/model/ledger'
import { slotFacts } from '#core/model/ledger'
import { piecePlaceSchema } from '#core/slices/places'
import { fixed, signed } from '#core/text/display'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'

/** One piece: where it sits, how well that is known, and what it does to the balance. */
const { pieceKey: key } = defineProps<{ pieceKey: string }>()
const emit = defineEmits<{ put: [piece: Piece, atMm: Vec3, more: Partial<PiecePlace>]; free: [piece: Piece]; close: [] }>()
const { balance } = useBalance()
const centre = computed(() => balance.value?.centre ?? null)
/** It is here only where there is such a piece. */
const piece = computed(() => balance.value!.layout.pieces.find(one => one.key === key)!)
const problems = ref<Readonly<Record<string, string>>>({})
watch(
  () => key,
  () => {
    problems.value = {}
  },
)
const coordinates = [
  ['xMm', 'Forward', 0],
  ['yMm', 'Left', 1],
  ['zMm', 'Up', 2],
] as const
const shown = (mm: number) => Number(mm.toFixed(1))

/** A number typed into one of the fields: taken where the place it makes is one. */
function type(field: keyof PiecePlace, event: Event) {
  const read = readNumber(withoutUnit((event.target as HTMLInputElement).value.trim(), field.endsWith('Deg') ? '°' : 'mm'))
  if (isNotRead(read)) {
    problems.value = { ...problems.value, [field]: read.problem }
    return
  }
  const parsed = piecePlaceSchema.safeParse({ ...placeOfPiece(piece.value), [field]: read.value })
  problems.value = { ...problems.value, [field]: parsed.success ? '' : parsed.error.issues[0]!.message }
  if (parsed.success) {
    const { xMm, yMm, zMm, sigmaMm: sigma, turnDeg: turn, tiltDeg: tilt } = parsed.data
    emit('put', piece.value, [xMm, yMm, zMm], { sigmaMm: sigma, turnDeg: turn, tiltDeg: tilt })
  }
}
/** How far this piece alone pulls the centre of gravity along the nose, mm. */
const pull = computed(() => {
  const { mass, atMm } = piece.value
  return centre.value ? (mass.valueG * atMm[0]) / centre.value.massG : 0
})
const pullWords = computed(() =>
  Math.abs(pull.value) < 0.005 ? 'either way' : pull.value < 0 ? 'towards the tail' : 'towards the nose',
)
const perMm = computed(() => (centre.value ? piece.value.mass.valueG / centre.value.massG : 0))
</script>

<template>
  <div>
    <h2>{{ piece.name }}</h2>
    <p class="soft">
      {{ slotFacts[piece.slot].label }}, {{ fixed(piece.mass.valueG, 2) }} g
    </p>
    <div class="value figure">
      {{ fixed(Math.abs(pull), 2) }}<small> mm {{ pullWords }}</small>
    </div>
    <p>is what this piece alone pulls the balance. Every millimetre it moves takes {{ fixed(perMm, 3) }} mm.</p>
    <h3>Where it sits, mm</h3>
    <div class="places">
      <label
        v-for="[field, name, axis] in coordinates"
        :key="field"
        class="field"
      >{{ name }}<EditField
        :value="shown(piece.atMm[axis])"
        class="figure"
        :aria-invalid="Boolean(problems[field])"
        @change="type(field, $event)"
      /></label>
    </div>
    <div class="places two">
      <label class="field">Known to ±, one σ<EditField
        :value="shown(piece.sigmaMm[0])"
        class="figure"
        :aria-invalid="Boolean(problems.sigmaMm)"
        @change="type('sigmaMm', $event)"
      /></label>
      <label class="field">Turned, °<EditField
        :value="shown(piece.turnDeg)"
        class="figure"
        :aria-invalid="Boolean(problems.turnDeg)"
        @change="type('turnDeg', $event)"
      /></label>
      <label
        v-if="piece.slot === 'camera' || piece.slot === 'payload'"
        class="field"
      >Tilted up, °<EditField
        :value="shown(piece.tiltDeg)"
        class="figure"
        :aria-invalid="Boolean(problems.tiltDeg)"
        @change="type('tiltDeg', $event)"
      /></label>
    </div>
    <template
      v-for="(problem, field) in problems"
      :key="field"
    >
      <p
        v-if="problem"
        class="problem"
        role="alert"
      >
        {{ problem }}
      </p>
    </template>
    <p class="soft">
      <kbd>←</kbd> <kbd>→</kbd> by 0.5 mm, <kbd>Shift</kbd> by 5; <kbd>Page Up</kbd> and <kbd>Page Down</kbd> go to the other pieces.
    </p>
    <dl class="facts">
      <dt>Long, wide, high</dt><dd>{{ piece.sizeMm.map(mm => fixed(mm, 0)).join(' · ') }} mm</dd>
      <dt>Its size</dt><dd>
        {{ piece.isSizeAssumed ? 'assumed' : 'as said of the part' }}
      </dd>
      <dt>Its place</dt><dd>{{ piece.isAssumed ? 'assumed: as usual' : 'said by you' }}</dd>
      <dt>
        From the <TermTip word="Bob">
          bob
        </TermTip>
      </dt><dd>{{ centre ? signed(piece.atMm[0] - centre.atMm[0], 1) : '–' }} mm</dd>
    </dl>
    <p
      v-if="piece.isSizeAssumed"
      class="soft"
    >
      Sizes are properties of the part: say them under <NuxtLink :to="{ path: 'parts', query: { line: piece.lineId } }">Parts</NuxtLink>.
    </p>
    <div class="actions">
      <el-button
        :disabled="piece.isAssumed"
        @click="emit('free', piece)"
      >
        Where it usually sits
      </el-button>
      <el-button @click="emit('close')">
        All pieces
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.value {
  font-size: 30px;
  line-height: 1;
  margin: 8px 0 4px;
}
.value small {
  font-size: 14px;
  color: var(--ink-soft);
}
.places {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  margin-bottom: 8px;
}
.two {
  grid-template-columns: 1fr 1fr;
}
.actions {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  margin-top: 12px;
}
.actions :deep(.el-button) {
  margin: 0;
}
</style>

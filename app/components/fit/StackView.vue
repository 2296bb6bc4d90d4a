<script setup lang="ts">
import { figure, fixed } from '#core/text/display'
import {
  discsOf,
  frameWith,
  stackOf,
  stackUp,
  suggestStack,
  type Layer,
  type Stack,
} from '#core/aircraft/fit'
import { measureOf } from '#core/model/properties'

const store = useBuildStore()
const lines = computed(() => store.overview?.counted ?? [])
const stack = computed<Stack | null>(() => store.build!.fit?.stack ?? null)
const frame = computed(() => frameWith(lines.value, 'freeHeightMm'))
const discs = computed(() => discsOf(lines.value))
const sized = computed(() => (stack.value ? stackOf(stack.value, lines.value) : null))
const up = computed(() =>
  sized.value
    ? stackUp(sized.value, frame.value ? (measureOf(frame.value, 'freeHeightMm') ?? null) : null, discs.value)
    : null,
)
const chosen = ref<string | null>(null)

function save(layers: readonly Layer[]) {
  store.run({ type: 'fit.set', fields: { stack: { layers } } })
}
function begin() {
  save(suggestStack(lines.value, newId).layers)
}
const layers = computed(() => stack.value?.layers ?? [])
const sizedLayers = computed(() => sized.value?.layers ?? [])
const hasAerial = computed(() => up.value?.placed.some(p => p.layer.kind === 'aerial') ?? false)
</script>

<template>
  <div class="stack">
    <div
      v-if="!stack || layers.length === 0"
      class="empty"
    >
      <p>Nothing stacked yet. Begin with the boards of this build, then set what lies between them.</p><el-button
        type="primary"
        @click="begin"
      >
        Begin with the boards
      </el-button>
    </div>
    <template v-else-if="up">
      <div class="sums">
        <div>
          <small>Between the
            plates</small><b class="figure">{{ up.unknownBetween.length > 0 ? 'at least ' : '' }}{{ figure(up.neededMm, 2) }}
            mm</b>
        </div>
        <div>
          <small>Standoffs</small><b class="figure">{{
            up.standoffMm === null
              ? up.unknownBetween.length > 0
                ? 'not known yet'
                : 'none sold'
              : `${figure(up.standoffMm, 2)} mm`
          }}</b>
        </div>
        <div>
          <small>Free height still allows</small><b
            class="figure"
            :class="up.leftMm !== null && up.leftMm < 0 ? 'word-over' : ''"
          >{{
            up.leftMm === null
              ? 'not known'
              : `${up.unknownBetween.length > 0 && up.leftMm >= 0 ? 'at most ' : ''}${figure(up.leftMm, 2)} mm`
          }}</b>
        </div>
        <div>
          <small>Overall<template v-if="hasAerial"> with
            aerial</template></small><b class="figure">{{ up.unknown.length > 0 ? 'at least ' : '' }}{{ figure(up.overallMm, 1) }}
            mm</b>
        </div>
      </div>
      <p
        v-if="up.unknown.length > 0"
        class="soft"
        data-test="unknown-heights"
      >
        Nobody has said how high these are: {{ [...new Set(up.unknown.map(layer => layer.name))].join(', ') }}. They
        stand at no height until it is said, here or at the part itself.
      </p>
      <p
        v-for="t in up.touching"
        :key="t.below.id"
        class="problem"
      >
        {{ t.below.name }} and {{ t.above.name }} could touch: {{ figure(t.gapMm, 2) }} mm between bare metal.
      </p>
      <p
        v-for="c in up.crowded"
        :key="c.layer.id"
        class="problem"
      >
        {{ c.layer.name }} is {{ fixed(Math.abs(c.clearanceMm), 1) }} mm {{ c.clearanceMm < 0 ? 'inside' : 'from' }}
        the nearest prop or duct.
      </p>
      <StackDrawings
        v-model:chosen="chosen"
        :up="up"
        :layers="sizedLayers"
        :discs="discs"
      />
      <StackLayers
        v-model:chosen="chosen"
        :layers="layers"
        :sized="sizedLayers"
        @save="save"
      />
      <p class="soft">
        Outlines against
        {{ discs ? 'the props or ducts of this build' : 'props: say the frame’s diagonal and the prop’s diameter' }}.
        Carbon plates conduct: boards want at least 1 mm of air or tape between.
      </p>
    </template>
  </div>
</template>

<style scoped>
.sums {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  margin: 8px 0 4px;
}
.sums div {
  background: var(--paper);
  border-radius: 7px;
  padding: 6px 12px;
  min-width: 130px;
}
.sums small {
  display: block;
  color: var(--ink-soft);
}
.sums b {
  font-size: 17px;
}
.empty {
  padding: 30px;
  text-align: center;
}
</style>

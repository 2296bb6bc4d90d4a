<script setup lang="ts">
import { clearingWays, clearsAfterMm, coveredShare, mostTiltDeg, rimInPicture, smallestTilt, type CameraView } from '#core/aircraft/balance'
import { fixed } from '#core/text/display'

/** What a camera sees of the props at a tilt, and the tilts at which it sees none. */
const props = defineProps<{ view: CameraView }>()
const emit = defineEmits<{ keep: [tiltDeg: number] }>()
const store = useBuildStore()
const edgeId = useId()
const tilt = ref(props.view.tiltDeg)
watch(
  () => [props.view.piece.key, props.view.tiltDeg] as const,
  ([, deg]) => {
    tilt.value = deg
  },
)
const lens = computed(() => ('lens' in props.view.seen ? props.view.seen : null))
const askedWords = {
  viewDeg: 'its field of view',
  viewAlong: 'along what that is told',
  lens: 'how the lens draws',
  aspect: 'the shape of the picture',
} as const
const missing = computed(() => ('missing' in props.view.seen ? props.view.seen.missing.map(key => askedWords[key]) : []))

const high = 100
const wide = computed(() => high * (lens.value?.aspect ?? 4 / 3))
/** Rims of the discs in the picture, as paths. */
const rims = computed(() => {
  if (!lens.value) return []
  const { lens: of } = lens.value
  return props.view.discs.flatMap(disc =>
    rimInPicture(of, props.view.lensAtMm, tilt.value, disc).map(run =>
      run.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${(x * wide.value) / 2} ${(-y * high) / 2}`).join(''),
    ),
  )
})
const share = computed(() =>
  lens.value ? coveredShare(lens.value.lens, props.view.lensAtMm, tilt.value, props.view.discs) : 0,
)
const isClear = computed(
  () => lens.value?.clear.some(({ fromDeg, toDeg }) => tilt.value >= fromDeg && tilt.value <= toDeg) ?? false,
)
const least = computed(() => (lens.value ? smallestTilt(lens.value.clear) : null))
const clearWords = computed(() => {
  const upTo = (deg: number) => fixed(Math.floor(deg * 10) / 10, 1)
  const from = (deg: number) => fixed(Math.max(0, Math.ceil(deg * 10 - 1e-3)) / 10, 1)
  return (lens.value?.clear ?? []).map(({ fromDeg, toDeg }) => `${from(fromDeg)}° to ${upTo(toDeg)}°`).join(', ')
})
const shareWords = computed(() =>
  isClear.value
    ? { figure: 'no props', beside: ' in the picture' }
    : { figure: `${fixed(100 * share.value, 1)} %`, beside: ' of the picture is props' },
)
/** What else would clear the picture at this tilt, where it is no great change. */
const moves = computed(() => {
  if (!lens.value || isClear.value) return ''
  const { lens: of } = lens.value
  const ways = clearingWays.flatMap(way => {
    const mm = clearsAfterMm(of, props.view.lensAtMm, tilt.value, props.view.discs, way)
    return mm === null ? [] : [wayWords[way](`${fixed(Math.ceil(mm * 10) / 10, 1)} mm`)]
  })
  return ways.length === 0
    ? 'No small change clears it at this tilt.'
    : `At this tilt one of these would clear it: ${ways.join(', ')}.`
})
const wayWords: Readonly<Record<(typeof clearingWays)[number], (mm: string) => string>> = {
  forward: mm => `the lens ${mm} forward`,
  up: mm => `the lens ${mm} up`,
  smaller: mm => `props ${mm} smaller across`,
  lower: mm => `props ${mm} lower`,
  wider: mm => `arms ${mm} wider on each side`,
}
const partsOf = computed(() => ({ path: `/builds/${store.build!.id}/parts`, query: { line: props.view.piece.lineId } }))
</script>

<template>
  <section
    class="camera-view"
    :aria-label="`What ${view.piece.name} sees`"
  >
    <h2>{{ view.piece.name }}</h2>
    <p
      v-if="missing.length > 0"
      class="note"
    >
      What it sees is not known: say {{ missing.join(', ') }} under <NuxtLink :to="partsOf">Parts</NuxtLink>.
    </p>
    <p
      v-else-if="!lens"
      class="note"
    >
      No lens that keeps straight lines straight sees 180° or more: look at its field of view under
      <NuxtLink :to="partsOf">Parts</NuxtLink>.
    </p>
    <div
      v-else
      class="view"
    >
      <svg
        class="picture"
        :viewBox="`${-wide / 2 - 2} ${-high / 2 - 2} ${wide + 4} ${high + 4}`"
        role="img"
        :aria-label="`The picture at ${fixed(tilt, 0)}°: ${share > 0 || !isClear ? 'props are in it' : 'no props in it'}`"
      >
        <clipPath :id="edgeId"><rect
          :x="-wide / 2"
          :y="-high / 2"
          :width="wide"
          :height="high"
          rx="2"
        /></clipPath>
        <rect
          class="sky"
          :x="-wide / 2"
          :y="-high / 2"
          :width="wide"
          :height="high"
          rx="2"
        />
        <g :clip-path="`url(#${edgeId})`">
          <path
            v-for="(path, i) in rims"
            :key="i"
            class="rim"
            :d="path"
          />
        </g>
        <path
          class="aim"
          d="M-5 0H5M0 -5V5"
        />
      </svg>
      <div class="told">
        <div class="offset figure">
          {{ shareWords.figure }}<small>{{ shareWords.beside }}</small>
        </div>
        <label class="field tilt">Tilt, {{ fixed(tilt, 1) }}°<el-slider
          v-model="tilt"
          :min="0"
          :max="mostTiltDeg"
          :step="0.5"
          :aria-label="`Tilt of ${view.piece.name}`"
        /></label>
        <p data-test="smallest">
          <template v-if="least">
            No props from <b>{{ fixed(least.shownDeg, 1) }}°</b> of tilt.
          </template>
          <template v-else>
            There is no tilt up to {{ mostTiltDeg }}° without props.
          </template>
          <span
            v-if="lens.clear.length > 1"
            class="soft"
          > Clear: {{ clearWords }}.</span>
        </p>
        <p
          v-if="moves"
          class="soft"
        >
          {{ moves }}
        </p>
        <el-button
          :disabled="Math.abs(tilt - view.tiltDeg) < 0.05"
          @click="emit('keep', tilt)"
        >
          It is tilted so
        </el-button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.view {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(220px, 2fr);
  gap: 20px;
  align-items: start;
}
.picture {
  width: 100%;
}
.sky {
  fill: color-mix(in srgb, var(--g-boards) 14%, var(--card));
  stroke: var(--ink);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
.rim {
  fill: var(--g-drive);
  fill-opacity: 0.35;
  stroke: var(--g-drive);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
.aim {
  stroke: var(--ink-soft);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.offset {
  font-size: 26px;
}
.offset small {
  font-size: 13px;
  color: var(--ink-soft);
}
.tilt {
  display: block;
  padding-right: 10px;
}
@media screen and (max-width: 760px) {
  .view {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

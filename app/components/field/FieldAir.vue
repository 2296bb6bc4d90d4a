<script setup lang="ts">
import { scaleLinear } from 'd3'
import { fixed } from '#core/text/display'
import { flightTimeWords } from '#core/text/units'

/** In the air: the time, how much is left by the forecast, and two large buttons. */
const { seconds, minutes, warnedS, reserve } = defineProps<{
  seconds: number
  warnedS: number | null
  minutes: { readonly low: number; readonly middle: number; readonly high: number } | null
  reserve: number | null
  words: string
  title: string
}>()
const emit = defineEmits<{ press: [press: FieldPress] }>()
const leftS = computed(() => (minutes ? minutes.middle * 60 - seconds : null))
const untilWords = computed(() => (reserve === null ? 'it should land' : `${fixed(reserve, 0)} % is left`))
const width = 354
const mostMinutes = computed(() => Math.max(minutes ? minutes.high * 1.1 : 0, seconds / 60 + 0.5, 1))
const x = computed(() => scaleLinear([0, mostMinutes.value], [0, width]))
const ticks = computed(() => x.value.ticks(6).filter(Number.isInteger))
</script>

<template>
  <div
    v-if="warnedS !== null"
    class="warned"
  >
    <span>First warning at <b class="figure">{{ flightTimeWords(warnedS) }}</b></span><el-button @click="emit('press', 'not yet')">
      Not yet
    </el-button>
  </div>
  <p class="title soft">
    {{ title }}
  </p>
  <h1 :class="{ home: warnedS !== null }">
    {{ warnedS === null ? 'In the air' : 'Come home' }}
  </h1>
  <p
    class="clock figure"
    role="timer"
    data-test="field-clock"
  >
    {{ flightTimeWords(Math.floor(seconds)) }}
  </p>
  <p
    v-if="leftS !== null"
    class="left"
  >
    <template v-if="leftS > 0">
      about <b class="figure">{{ flightTimeWords(leftS) }}</b> until {{ untilWords }}
    </template>
    <template v-else>
      past what was to be expected: land
    </template>
  </p>
  <svg
    v-if="minutes"
    :viewBox="`0 0 ${width} 44`"
    role="img"
    :aria-label="words"
  >
    <rect
      class="rest"
      :width="width"
      y="4"
      height="20"
      rx="3"
    /><rect
      class="band"
      :x="x(minutes.low)"
      :width="x(minutes.high) - x(minutes.low)"
      y="4"
      height="20"
    /><rect
      class="flown"
      :width="x(seconds / 60)"
      y="4"
      height="20"
      rx="3"
    /><line
      class="post"
      :x1="x(minutes.middle)"
      :x2="x(minutes.middle)"
      y1="0"
      y2="28"
    />
    <text
      v-for="tick in ticks"
      :key="tick"
      :x="x(tick)"
      y="41"
      :text-anchor="tick === 0 ? 'start' : 'middle'"
    >{{ tick }}</text>
  </svg>
  <p
    v-if="words"
    class="left soft"
  >
    {{ words }}
  </p>
  <el-button
    v-if="warnedS === null"
    class="big warning"
    @click="emit('press', 'warning')"
  >
    <b>First warning</b><span>press when it beeps</span>
  </el-button>
  <el-button
    type="primary"
    class="big"
    @click="emit('press', 'landed')"
  >
    <b>Landed</b><span>press when it is down</span>
  </el-button>
</template>

<style scoped>
.warned {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin: -14px -18px 0;
  padding: 10px 18px;
  background: var(--brass);
  color: #2a2333;
  border-bottom: 2px solid #2a2333;
}
.warned b {
  font-size: 24px;
  margin-left: 6px;
}
.warned :deep(.el-button) {
  min-height: 48px;
}
.title {
  margin: 0;
  text-align: center;
}
h1 {
  margin: 0;
  text-align: center;
  color: var(--clear);
}
.home {
  color: var(--close);
}
.clock {
  margin: 0;
  text-align: center;
  font-size: clamp(88px, 30vw, 132px);
  line-height: 1;
  font-weight: 500;
}
.left {
  margin: 0;
  text-align: center;
}
svg {
  width: 100%;
}
.rest {
  fill: var(--line);
}
.band {
  fill: color-mix(in srgb, var(--g-pack) 38%, var(--card));
}
.flown {
  fill: var(--plum);
}
.post {
  stroke: var(--ink);
  stroke-width: 2.5;
}
text {
  font: 500 12px var(--mono);
  fill: var(--ink-soft);
}
.big {
  flex: 1;
  min-height: 130px;
  width: 100%;
  margin: 0;
  border-radius: 16px;
}
.big :deep(span) {
  flex-direction: column;
  gap: 6px;
}
.big b {
  font: 600 34px var(--serif);
}
.warning {
  --el-button-bg-color: #f0b35a;
  --el-button-text-color: #2a2333;
  --el-button-border-color: #2a2333;
  --el-button-hover-bg-color: #f0b35a;
  --el-button-hover-text-color: #2a2333;
  --el-button-hover-border-color: #2a2333;
  border-width: 2px;
}
</style>

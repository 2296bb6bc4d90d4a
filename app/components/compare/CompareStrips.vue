<script setup lang="ts">
import { scaleLinear } from 'd3'
import { stripSegments } from '#core/mass/report'
import { slotFacts } from '#core/model/ledger'
import { figure, fixed, gramsFigure, headroomWords, spreadFigure } from '#core/text/display'
import type { ComparedCraft } from '~/stores/compare'

/** Every craft as a strip, all on one scale of grams. */
const { crafts } = defineProps<{ crafts: readonly ComparedCraft[]; baseKey: string }>()
const emit = defineEmits<{ remove: [key: string] }>()

const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const isNarrow = computed(() => (measured.value || 1000) < 640)
const [rowHeight, barHeight] = [46, 24]
/** Names on the left and figures on the right take their own room, or none on a narrow screen. */
const edge = computed(() => (isNarrow.value ? { left: 0, right: 0 } : { left: 190, right: 246 }))
const width = computed(() => Math.max(200, (measured.value || 1000) - edge.value.left - edge.value.right))
const limits = computed(() => [...new Set(crafts.flatMap(({ figures }) => figures.limitG ?? []))].slice(0, 2))
const x = computed(() => {
  const most = Math.max(...crafts.map(({ figures }) => figures.massG + figures.spreadG), ...limits.value, 1)
  return scaleLinear([0, most * 1.04], [0, width.value])
})
interface Segment {
  readonly id: string
  readonly x: number
  readonly width: number
  readonly colour: string
  readonly texture: string | null
  readonly label: string
  readonly dark: boolean
  readonly title: string
}
function segmentsOf({ overview, compared }: ComparedCraft): Segment[] {
  if (!overview || !compared) return []
  return stripSegments(overview, compared.estimates).map(({ line, group, fromG, valueG }) => {
    const start = x.value(fromG)
    const tone = groupTone[group]
    const name = slotFacts[line.slot].label
    const wide = Math.max(x.value(fromG + valueG) - start - 1, 0.6)
    const { evidence } = line.mass!
    return {
      id: line.id,
      x: start,
      width: wide,
      colour: `var(--g-${tone.name})`,
      texture: evidence === 'weighed' ? null : `url(#texture-${evidenceTexture[evidence]})`,
      label: wide > name.length * 7 + 14 ? name : '',
      dark: tone.darkLabel,
      title: `${lineTitle(line)}: ${fixed(valueG, 2)} g`,
    }
  })
}
const whisker = ({ figures: { massG, spreadG } }: ComparedCraft, y: number) =>
  `M${x.value(massG - spreadG)},${y}v10m0,-5H${x.value(massG + spreadG)}m0,-5v10`
const rows = computed(() => crafts.map(craft => ({ craft, segments: segmentsOf(craft) })))
const height = computed(() => 22 + crafts.length * rowHeight + 20)
const rowTop = (i: number) => 22 + i * rowHeight + 4
const flag = (limit: number) => {
  const card = crafts.find(({ figures }) => figures.limitG === limit)?.overview?.binding?.card.limit
  return card && card.unit !== 'g' ? `${fixed(limit, 2)} g · ${figure(card.value, 4)} ${card.unit}` : `${figure(limit, 4)} g`
}
</script>

<template>
  <section
    ref="box"
    class="panel strips"
    aria-label="Crafts as strips, on one scale"
  >
    <div
      class="drawn"
      :style="{ marginLeft: `${edge.left}px` }"
    >
      <svg
        :width
        :height
        role="img"
        :aria-label="crafts.map(({ name, figures }) => `${name} ${gramsFigure(figures.massG, figures.spreadG)} g`).join(', ')"
      >
        <g
          v-for="({ craft, segments }, i) in rows"
          :key="craft.key"
        >
          <rect
            class="free"
            x="0"
            :y="rowTop(i)"
            :width="craft.figures.limitG === null ? width : x(craft.figures.limitG)"
            :height="barHeight"
            rx="2"
          /><rect
            v-if="craft.figures.limitG !== null"
            class="beyond"
            :x="x(craft.figures.limitG)"
            :y="rowTop(i)"
            :width="Math.max(0, width - x(craft.figures.limitG))"
            :height="barHeight"
          />
          <template
            v-for="one in segments"
            :key="one.id"
          >
            <rect
              :x="one.x"
              :y="rowTop(i)"
              :width="one.width"
              :height="barHeight"
              :fill="one.colour"
              rx="1.5"
            >
              <title>{{ one.title }}</title>
            </rect><rect
              v-if="one.texture"
              :x="one.x"
              :y="rowTop(i)"
              :width="one.width"
              :height="barHeight"
              :fill="one.texture"
              rx="1.5"
            /><text
              v-if="one.label"
              class="label"
              :class="{ dark: one.dark }"
              :x="one.x + 7"
              :y="rowTop(i) + 16"
            >{{ one.label }}</text>
          </template>
          <template v-if="craft.build.reference">
            <rect
              class="whole"
              x="0.5"
              :y="rowTop(i) + 0.5"
              :width="x(craft.figures.massG)"
              :height="barHeight - 1"
              rx="2"
            /><text
              class="soft-label"
              x="8"
              :y="rowTop(i) + 16"
            >known only as a whole</text>
          </template>
          <path
            v-if="craft.figures.spreadG > 0"
            class="whisker"
            :d="whisker(craft, rowTop(i) + 7)"
          />
        </g>
        <g
          v-for="limit in limits"
          :key="limit"
        >
          <line
            class="post"
            :x1="x(limit)"
            :x2="x(limit)"
            y1="16"
            :y2="rowTop(crafts.length - 1) + barHeight + 6"
          /><rect
            class="flag"
            :x="Math.min(Math.max(x(limit) - flag(limit).length * 6.6 - 12, 0), width)"
            y="0"
            :width="flag(limit).length * 6.6 + 12"
            height="16"
            rx="2"
          /><text
            class="flag-words"
            :x="Math.min(Math.max(x(limit) - flag(limit).length * 6.6 - 6, 6), width)"
            y="12"
          >{{ flag(limit) }}</text>
        </g>
        <g
          v-for="tick in x.ticks(6)"
          :key="tick"
          class="tick"
        >
          <line
            :x1="x(tick)"
            :x2="x(tick)"
            :y1="height - 18"
            :y2="height - 13"
          /><text
            :x="x(tick)"
            :y="height - 2"
            text-anchor="middle"
          >{{ tick }}</text>
        </g>
      </svg>
    </div>
    <div
      v-for="(craft, i) in crafts"
      :key="craft.key"
      class="said"
      :class="{ narrow: isNarrow }"
      :style="isNarrow ? {} : { top: `${rowTop(i) + 4}px` }"
    >
      <div class="who">
        <NuxtLink
          :to="`/builds/${craft.build.id}/parts`"
          class="name"
        >{{ craft.name }}</NuxtLink>
        <small class="soft">{{ craft.detail }}</small>
      </div>
      <div class="mass">
        <span class="figure value">{{ gramsFigure(craft.figures.massG, craft.figures.spreadG, craft.figures.limitG) }}<small>
          g<template v-if="craft.figures.spreadG > 0"> ± {{ spreadFigure(craft.figures.spreadG) }}</template></small></span>
        <span class="word"><VerdictMark
          v-if="craft.figures.word"
          :word="craft.figures.word"
        /><template v-if="craft.figures.headroomG !== null"> ·
          {{ headroomWords(craft.figures.headroomG, craft.figures.spreadG) }}</template><template v-if="craft.figures.openLines > 0">
          {{ craft.figures.openLines }} without grams</template></span>
      </div>
      <el-button
        link
        type="primary"
        size="small"
        class="no-print"
        :aria-label="`Take ${craft.name} out of the comparison`"
        @click="emit('remove', craft.key)"
      >
        Leave out
      </el-button>
    </div>
  </section>
</template>

<style scoped>
.strips {
  position: relative;
  padding: 12px 18px;
}
.drawn {
  position: relative;
}
svg {
  display: block;
  overflow: visible;
}
.free {
  fill: var(--free);
}
.beyond {
  fill: var(--beyond);
}
.whole {
  fill: var(--selection);
  stroke: var(--ink-soft);
}
.label {
  font: 600 11px var(--sans);
  fill: var(--on-dark);
}
.label.dark {
  fill: var(--on-light);
}
.soft-label {
  font: 500 11px var(--sans);
  fill: var(--ink-soft);
}
.whisker {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.post {
  stroke: var(--ink);
  stroke-width: 2;
}
.flag {
  fill: var(--ink);
}
.flag-words {
  font: 600 11px var(--mono);
  fill: var(--paper);
}
.tick line {
  stroke: var(--ink-soft);
}
.tick text {
  font: 500 10.5px var(--mono);
  fill: var(--ink-soft);
}
.said {
  position: absolute;
  left: 18px;
  right: 18px;
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  pointer-events: none;
}
.said > * {
  pointer-events: auto;
}
.said.narrow {
  position: static;
  flex-wrap: wrap;
  gap: 0 10px;
  border-top: 1px solid var(--line);
  padding: 8px 0;
}
.who {
  width: 178px;
  line-height: 1.2;
}
.name {
  display: block;
  font: 600 16px/1.2 var(--serif);
  color: var(--ink);
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.who small {
  display: block;
  font-size: 11.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.mass {
  margin-left: auto;
  width: 164px;
  line-height: 1.25;
}
.value {
  font-size: 18px;
  letter-spacing: -0.6px;
  white-space: nowrap;
}
.value small {
  font-size: 12px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.word {
  display: block;
  font-size: 12px;
  white-space: nowrap;
}
.said.narrow .who {
  width: 100%;
}
.said.narrow .mass {
  flex: 1;
  width: auto;
  text-align: left;
}
</style>

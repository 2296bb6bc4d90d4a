<script setup lang="ts">
import { csvFile } from '#shared/files/csv'

/** One thing a chart shows, to be read out; where it lies in the drawing, in its px. */
export interface ChartPoint {
  readonly words: string
  readonly x: number
  readonly y: number
}

/**
 * What every chart has around it: a title, its points by arrow keys, and the chart as picture, drawing or table.
 * `heads` and `rows` are the figures themselves, with the point and their units in the heads.
 */
const props = defineProps<{
  title: string
  heads: readonly string[]
  rows: readonly (readonly (string | number | null)[])[]
  points: readonly ChartPoint[]
  /** The title stands over it already. */
  untitled?: boolean
}>()
const store = useBuildStore()
const plot = useTemplateRef<HTMLElement>('plot')
const at = ref<number | null>(null)
const current = computed(() => (at.value === null ? null : (props.points[at.value] ?? null)))
const problem = ref('')

function step(by: number) {
  const { length } = props.points
  if (length > 0) at.value = at.value === null ? (by > 0 ? 0 : length - 1) : Math.min(Math.max(at.value + by, 0), length - 1)
}
function end(last: boolean) {
  if (props.points.length > 0) at.value = last ? props.points.length - 1 : 0
}
function leave(event: FocusEvent) {
  if (!plot.value?.contains(event.relatedTarget as Node | null)) at.value = null
}
const frame = useTemplateRef<HTMLElement>('frame')
const formats = ['PNG', 'SVG', 'CSV', 'Print'] as const
async function save(format: (typeof formats)[number]) {
  problem.value = ''
  if (format === 'Print') {
    printOne(frame.value)
    return
  }
  const name = [store.build?.name, props.title].filter(Boolean).join(', ')
  if (format === 'CSV') {
    const text = csvFile([props.heads, ...props.rows.map(row => row.map(value => value ?? ''))])
    saveFile(`${name}.csv`, text, 'text/csv')
    return
  }
  const drawing = plot.value?.querySelector('svg')
  if (!drawing) return
  try {
    await keepDrawing(drawing, name, format)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <figure
    ref="frame"
    class="chart-frame"
    :aria-label="title"
  >
    <figcaption>
      <b v-if="!untitled">{{ title }}</b><slot name="tools" /><span class="gap" />
      <el-dropdown
        class="no-print"
        trigger="click"
        popper-class="row-menu"
        :show-arrow="false"
        @command="save"
      >
        <el-button
          link
          type="primary"
          :aria-label="`Keep ${title} as a file`"
        >
          Keep as …
        </el-button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item
              v-for="format in formats"
              :key="format"
              :command="format"
            >
              {{ format }}
            </el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </figcaption>
    <div
      ref="plot"
      class="plot"
      role="group"
      tabindex="0"
      :aria-label="`Points of ${title}: arrow keys read them`"
      @keydown.right.prevent.stop="step(1)"
      @keydown.down.prevent.stop="step(1)"
      @keydown.left.prevent.stop="step(-1)"
      @keydown.up.prevent.stop="step(-1)"
      @keydown.home.prevent.stop="end(false)"
      @keydown.end.prevent.stop="end(true)"
      @focusout="leave"
    >
      <slot /><i
        v-if="current"
        class="ring"
        :style="{ left: `${current.x}px`, top: `${current.y}px` }"
      />
    </div>
    <p
      class="read"
      role="status"
    >
      <template v-if="current">
        {{ current.words }} <span class="soft">({{ at! + 1 }} of {{ points.length }})</span>
      </template>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </figure>
</template>

<style scoped>
.chart-frame {
  margin: 0;
  min-width: 0;
}
figcaption {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 8px;
  font-size: 13px;
}
.gap {
  flex: 1;
}
.plot {
  position: relative;
  border-radius: 5px;
}
.plot:focus-visible {
  outline: 2px solid var(--plum-text);
  outline-offset: 2px;
}
.ring {
  position: absolute;
  width: 17px;
  height: 17px;
  margin: -8.5px 0 0 -8.5px;
  border: 2px solid var(--plum-text);
  border-radius: 50%;
  pointer-events: none;
}
.read {
  min-height: 0;
  margin: 2px 0 0;
  font-size: 12.5px;
}
.read:empty {
  margin: 0;
}
</style>

<script setup lang="ts">
import { tapeOf, type SlideRow, type TapeMark } from '#core/aircraft/balance'
import { fixed } from '#core/text/display'

/** A strip of tape for the tray, as long on paper as on the craft: where the front of each pack goes. All in mm. */
const props = defineProps<{ rows: readonly SlideRow[]; tray: { readonly lengthMm: number; readonly isFrontAssumed: boolean } }>()
const store = useBuildStore()

/** Of a letter the width, of the tape and a row the height, the air around, the bar to check, and the longest words, mm. */
const [letterMm, tapeMm, rowMm, airMm, checkMm, textMm] = [1.6, 12, 4.6, 4, 50, 140]
const wordsOf = (mark: Omit<TapeMark, 'row'>) => `${mark.pack} ${fixed(mark.atMm, 1)} · ${mark.setups.join(', ')}`
const tape = computed(
  () =>
    tapeOf(props.rows, store.build!.setups, props.tray.lengthMm, mark => letterMm * wordsOf(mark).length + 4)!,
)
/** What a sheet of paper holds across, with the margins of the printed page, mm. */
const paperMm = 186
const width = computed(() =>
  Math.min(
    paperMm,
    2 * airMm +
      Math.max(
        textMm,
        tape.value.lengthMm,
        ...tape.value.marks.map(mark => mark.atMm + letterMm * wordsOf(mark).length + 3),
      ),
  ),
)
const isCut = computed(() => tape.value.lengthMm + 2 * airMm > paperMm)
const wordsTop = airMm + tapeMm
const checkTop = computed(() => wordsTop + rowMm * (tape.value.rows + 1))
const height = computed(() => checkTop.value + 8)
const ruler = computed(() => Array.from({ length: Math.floor(tape.value.lengthMm) + 1 }, (_, mm) => mm))
const tickMm = (mm: number) => (mm % 10 === 0 ? 3.4 : mm % 5 === 0 ? 2.4 : 1.4)

const figure = useTemplateRef<HTMLElement>('figure')
</script>

<template>
  <figure
    ref="figure"
    class="tape"
  >
    <figcaption>
      <h3>Tape for the tray</h3>
      <el-button
        class="no-print"
        @click="printOne(figure)"
      >
        Print it, 1 : 1
      </el-button>
    </figcaption>
    <svg
      :width="`${fixed(width, 2)}mm`"
      :height="`${fixed(height, 2)}mm`"
      :viewBox="`0 0 ${width} ${height}`"
      role="img"
      :aria-label="`Tape for the tray: ${tape.marks.map(wordsOf).join('; ')}`"
    >
      <rect
        class="ground"
        :x="airMm"
        :y="airMm"
        :width="tape.lengthMm"
        :height="tapeMm"
      />
      <line
        v-for="mm in ruler"
        :key="mm"
        class="tick"
        :x1="airMm + mm"
        :x2="airMm + mm"
        :y1="airMm"
        :y2="airMm + tickMm(mm)"
      />
      <text
        v-for="mm in ruler.filter(one => one % 10 === 0 && one > 0)"
        :key="`f${mm}`"
        :x="airMm + mm"
        :y="airMm + 6"
        text-anchor="middle"
      >
        {{ mm }}
      </text>
      <path
        class="edge"
        :d="`M${airMm} ${airMm - 2}V${airMm + tapeMm + 2}`"
      />
      <g
        v-for="mark in tape.marks"
        :key="`${mark.pack}${mark.atMm}`"
      >
        <line
          class="mark"
          :x1="airMm + mark.atMm"
          :x2="airMm + mark.atMm"
          :y1="airMm + 4"
          :y2="wordsTop + rowMm * (mark.row + 1) - 1"
        />
        <text
          class="words"
          :x="airMm + mark.atMm + 1.2"
          :y="wordsTop + rowMm * (mark.row + 1) - 1.2"
        >
          {{ wordsOf(mark) }}
        </text>
      </g>
      <rect
        class="check"
        data-test="check-bar"
        :x="airMm"
        :y="checkTop"
        :width="checkMm"
        height="1.6"
      />
      <text
        class="words"
        :x="airMm + checkMm + 2"
        :y="checkTop + 2"
      >
        This bar is {{ checkMm }} mm: measure it before you cut.
      </text>
      <text
        class="words"
        :x="airMm"
        :y="checkTop + 6"
      >
        The thick line is the front edge of the tray, nose to the left. Lay each pack’s front at its mark.
      </text>
    </svg>
    <p
      v-if="tape.beyond.length > 0"
      class="soft"
    >
      Not on it, since no place on the tray lets it hang true:
      {{ tape.beyond.map(one => `${one.pack} with ${one.setup}, by ${fixed(one.missesMm, 1)} mm`).join('; ') }}.
    </p>
    <p
      v-if="isCut"
      class="note"
    >
      The tray is longer than a sheet is wide: the tape’s end is not on the paper.
    </p>
    <p
      v-if="tray.isFrontAssumed"
      class="note on-paper"
    >
      The front edge of the tray was not measured: it is taken as if the tray lay in the middle.
    </p>
  </figure>
</template>

<style scoped>
.tape {
  margin: 0;
}
figcaption {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
}
svg {
  display: block;
}
/* On paper it is as long as it says; on a screen it only has to be seen. */
@media screen {
  .on-paper {
    display: none;
  }
  svg {
    max-width: 100%;
    height: auto;
  }
}
.ground {
  fill: var(--card);
  stroke: var(--edge);
  stroke-width: 0.25;
}
.tick {
  stroke: var(--ink-soft);
  stroke-width: 0.18;
}
.edge {
  stroke: var(--ink);
  stroke-width: 1;
}
.mark {
  stroke: var(--plum-text);
  stroke-width: 0.5;
}
text {
  font: 500 2.3px var(--mono);
  fill: var(--ink-soft);
}
.words {
  font: 500 2.9px var(--sans);
  fill: var(--ink);
}
.check {
  fill: var(--ink);
}
</style>

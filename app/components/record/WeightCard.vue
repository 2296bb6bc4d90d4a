<script setup lang="ts">
import { scaleLinear } from 'd3'
import { cardName, countingSentences, limitInWords } from '#core/limits/rules'
import { judgementWord, stripSegments, type CardJudgement } from '#core/mass/report'
import { saidOfCraft, slotFacts } from '#core/model/ledger'
import { evaluateCheck } from '#core/mass/scale'
import { paperColours } from '#shared/files/paper'
import { coverageFactor95 } from '#core/maths/numbers'
import { sigmaG } from '#core/maths/estimate'
import { clipped, figure, fixed, gramsFigure, headroomWords, percentFigure, spreadFigure } from '#core/text/display'
import { loadoutName } from '#core/mass/loadout'

/** One sheet that says what a craft weighs, under which rule, and how that is known; drawn in millimetres of paper. */
const { address, photo, shows } = defineProps<{
  address: string
  /** The photo of a weighing, as an address that needs no server; empty for none. */
  photo: string
  shows: { readonly strip: boolean; readonly cards: boolean; readonly code: boolean }
}>()
const store = useBuildStore()
const scales = useScalesStore()
const build = computed(() => store.build!)
const overview = computed(() => store.overview!)
const binding = computed(() => overview.value.binding)
const verdict = computed(() => binding.value?.verdict ?? null)
const [width, edge] = [186, 8]

const tone = { clear: '#2f6f43', close: '#a35a0c', over: '#b3243b' } as const
const allUp = computed(() => gramsFigure(overview.value.massG, overview.value.spreadG, binding.value?.limitG ?? null))
const spreadWords = computed(() => (overview.value.spreadG > 0 ? ` ± ${spreadFigure(overview.value.spreadG)}` : ''))
/** A total with lines that nobody has weighed is too low: that is said before anything else. */
const besideWords = computed(() => {
  const { openLines, spreadG: spread } = overview.value
  if (openLines > 0) return `${openLines === 1 ? 'one line has' : `${openLines} lines have`} no grams: it weighs more`
  return verdict.value ? headroomWords(verdict.value.headroomG, spread) : ''
})
const verdictColour = computed(() => (verdict.value ? tone[verdictTone[verdict.value.word]] : '#2a2333'))

const x = computed(() => {
  const limit = binding.value?.limitG ?? 0
  return scaleLinear([0, Math.max(limit * 1.05, (overview.value.massG + overview.value.spreadG) * 1.03, 1)], [edge, width - edge])
})
const segments = computed(() =>
  stripSegments(overview.value, store.estimates).map(({ line, group, fromG, valueG }) => {
    const [start, end] = [x.value(fromG), x.value(fromG + valueG)]
    const wide = Math.max(end - start - 0.3, 0.2)
    const label = slotFacts[line.slot].label
    return { id: line.id, x: start, width: wide, colour: paperColours[group], label: wide > label.length * 1.9 + 3 ? label : '' }
  }),
)
/** The last time it was on a scale: as a whole or a part of it. */
const last = computed(() => {
  const together = build.value.observations.filter(({ state, scaleId }) => state === 'taken in' && scaleId !== saidOfCraft)
  const single = build.value.lines.flatMap(({ mass }) => (mass?.weighing ? [mass.weighing] : []))
  return [...together, ...single].sort((a, b) => b.takenAt.localeCompare(a.takenAt))[0] ?? null
})
const check = computed(() => {
  const one = scales.checks.find(({ id }) => id === last.value?.checkId)
  const scale = scales.scales.find(({ id }) => id === last.value?.scaleId)
  return one && scale ? { at: one.takenAt, gain: evaluateCheck(scale, one.placings).gain } : null
})
const checkWords = ({ at, gain }: { readonly at: string; readonly gain: number }) =>
  `${dayOf(at, 'short')}, it read ${percentFigure(Math.abs(gain - 1))} % ${gain < 1 ? 'light' : 'heavy'}`
const pack = computed(() => build.value.lines.find(({ id }) => id === overview.value.choice.packLineId) ?? null)
const grams = (valueG: number, sigma: number) => gramsFigure(valueG, coverageFactor95 * sigma)
const facts = computed(() => {
  const { dry, weighedWhole, weighedLines, counted } = overview.value
  const packG = pack.value && store.estimates.of(pack.value)
  return [
    ['How it is known', weighedWhole ? 'everything on the pan at once' : `${weighedLines} of ${counted.length} lines weighed`],
    ['Scale', last.value ? `${last.value.scaleName}, ${dayOf(last.value.takenAt, 'short')}` : 'typed by hand'],
    [
      'Last check of it',
      check.value
        ? checkWords(check.value)
        : 'none on record',
    ],
    ['Dry mass', `${grams(dry.valueG, sigmaG(dry))} g`],
    ['Pack', pack.value && packG ? `${packWords(pack.value) || lineTitle(pack.value)}, ${grams(packG.valueG, sigmaG(packG))} g` : 'none'],
    ['Ledger', `revision ${store.revision}, ${build.value.lines.length} lines`],
  ] as const
})
const judgements = computed((): readonly CardJudgement[] =>
  shows.cards ? overview.value.judgements : binding.value ? [binding.value] : [],
)
const wordOf = (judgement: CardJudgement) =>
  [judgementWord(judgement), judgement.verdict && headroomWords(judgement.verdict.headroomG, coverageFactor95 * judgement.sigmaG)]
    .filter(Boolean)
    .join(', ')
const [cardsTop, cardStep] = [86, 9]
const factsTop = computed(() => cardsTop + judgements.value.length * cardStep + 7)
const height = computed(() => factsTop.value + 50)
/** A photo lies beside what is known, in millimetres. */
const picture = { width: 44, height: 33 }
const factsWide = computed(() => (photo ? 130 - picture.width - 4 : 130))
const limitWords = computed(() => {
  const limit = binding.value?.card.limit
  const at = binding.value?.limitG
  if (!limit || at == null) return ''
  return limit.unit === 'g' ? `${figure(limit.value, 4)} g` : `${fixed(at, 2)} g · ${figure(limit.value, 4)} ${limit.unit}`
})
/** Words shortened to a width of the drawing, by the width of their letters. */
const within = (text: string, mm: number, size: number) => clipped(text, Math.floor(mm / (size * 0.5)))
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${height}`"
    class="weight-card"
    role="img"
    :aria-label="`Weight card of ${build.name}: ${gramsFigure(overview.massG, overview.spreadG)} g`"
  >
    <rect
      x="0.4"
      y="0.4"
      :width="width - 0.8"
      :height="height - 0.8"
      rx="4"
      fill="#fff"
      stroke="#2a2333"
      stroke-width="0.5"
    />
    <text
      :x="edge"
      y="10"
      class="soft"
    >Weight card</text>
    <text
      :x="edge"
      y="20"
      class="name"
    >{{ within(build.name, 130, 9.5) }}</text>
    <text
      :x="edge"
      y="27"
      class="plain"
    >{{ within([build.craftClass, `flown as ${loadoutName(build, overview.choice)}`].filter(Boolean).join(', '), 135, 3.9) }}</text>
    <template v-if="shows.code">
      <QrCode
        :text="address"
        :x="width - edge - 25"
        :y="5"
        :size="25"
      /><text
        :x="width - edge - 12.5"
        y="34"
        class="soft"
        text-anchor="middle"
      >opens this build</text>
    </template>
    <line
      :x1="edge"
      :x2="width - edge"
      y1="37"
      y2="37"
    />
    <text
      :x="edge"
      y="53"
      class="grams"
    >{{ allUp }}<tspan class="unit"> g{{ spreadWords }}</tspan></text>
    <text
      x="98"
      y="46"
      class="word"
      :style="{ fill: verdictColour }"
    >{{ binding ? judgementWord(binding) : 'no rule card chosen' }}</text>
    <text
      x="98"
      y="52"
      class="plain"
    >{{ besideWords }}</text>
    <text
      :x="width - edge"
      y="46"
      class="strong"
      text-anchor="end"
    >{{ dayOf(new Date()) }}</text>
    <text
      :x="width - edge"
      y="52"
      class="soft"
      text-anchor="end"
    >counted to 95 %</text>
    <g v-if="shows.strip">
      <rect
        v-for="one in segments"
        :key="one.id"
        :x="one.x"
        y="63"
        :width="one.width"
        height="8"
        rx="0.5"
        :fill="one.colour"
      />
      <text
        v-for="one in segments.filter(({ label }) => label !== '')"
        :key="`${one.id} label`"
        :x="one.x + 1.5"
        y="68.2"
        class="label"
      >{{ one.label }}</text>
      <template v-if="binding?.limitG != null">
        <line
          class="post"
          :x1="x(binding.limitG)"
          :x2="x(binding.limitG)"
          y1="60"
          y2="73"
        /><rect
          :x="Math.max(edge, x(binding.limitG) - limitWords.length * 1.95 - 3)"
          y="56.4"
          :width="limitWords.length * 1.95 + 3"
          height="4.6"
          rx="0.6"
          fill="#2a2333"
        /><text
          :x="Math.max(edge, x(binding.limitG) - limitWords.length * 1.95 - 3) + 1.5"
          y="59.7"
          class="flag"
        >{{ limitWords }}</text>
      </template>
      <text
        v-for="tick in x.ticks(5)"
        :key="tick"
        :x="x(tick)"
        y="76"
        class="tick"
        :text-anchor="tick === 0 ? 'start' : 'middle'"
      >{{ tick }}</text>
    </g>
    <g v-if="judgements.length > 0">
      <text
        :x="edge"
        :y="cardsTop - 4"
        class="soft"
      >Rule card</text>
      <text
        x="68"
        :y="cardsTop - 4"
        class="soft"
      >as it is written, and what it counts</text>
      <text
        :x="width - edge"
        :y="cardsTop - 4"
        class="soft"
        text-anchor="end"
      >verdict at {{ percentFigure(build.aim.confidence) }} %</text>
      <g
        v-for="(judgement, i) in judgements"
        :key="judgement.card.id"
      >
        <line
          :x1="edge"
          :x2="width - edge"
          :y1="cardsTop + i * cardStep - 2.4"
          :y2="cardsTop + i * cardStep - 2.4"
          class="thin"
        />
        <text
          :x="edge"
          :y="cardsTop + i * cardStep + 1.6"
          class="strong"
        >{{ within(cardName(judgement.card), 57, 3.7) }}</text>
        <text
          x="68"
          :y="cardsTop + i * cardStep + 1.6"
          class="plain"
        >{{ within(limitInWords(judgement.card), 55, 3.9) }}</text>
        <text
          x="68"
          :y="cardsTop + i * cardStep + 5.2"
          class="soft small"
        >{{ within(countingSentences[judgement.card.counts], 78, 2.9) }}</text>
        <text
          :x="width - edge"
          :y="cardsTop + i * cardStep + 1.6"
          class="plain"
          text-anchor="end"
        >{{ wordOf(judgement) }}</text>
        <text
          :x="width - edge"
          :y="cardsTop + i * cardStep + 5.2"
          class="soft"
          text-anchor="end"
        >{{ fixed(judgement.massG, 2) }} g counted</text>
      </g>
    </g>
    <line
      :x1="edge"
      :x2="width - edge"
      :y1="factsTop - 5"
      :y2="factsTop - 5"
      class="thin"
    />
    <g
      v-for="([label, words], i) in facts"
      :key="label"
    >
      <text
        :x="edge"
        :y="factsTop + i * 5.4 + 1"
        class="soft"
      >{{ label }}</text>
      <text
        x="46"
        :y="factsTop + i * 5.4 + 1"
        class="mono"
      >{{ within(words, factsWide, 3.9) }}</text>
    </g>
    <image
      v-if="photo"
      :href="photo"
      :x="width - edge - picture.width"
      :y="factsTop - 3"
      :width="picture.width"
      :height="picture.height"
      preserveAspectRatio="xMidYMid slice"
    />
    <text
      :x="edge"
      :y="height - 11"
      class="soft"
    >Rules confirmed with the authority on</text>
    <line
      x1="62"
      x2="110"
      :y1="height - 10.6"
      :y2="height - 10.6"
    />
    <text
      :x="edge"
      :y="height - 4.5"
      class="soft"
    >A planning aid and not legal advice. Rules change: confirm with your aviation authority before you fly.</text>
  </svg>
</template>

<style scoped>
.weight-card {
  display: block;
  width: 100%;
  max-width: 186mm;
  background: #fff;
}
text {
  font: 400 3.9px var(--sans);
  fill: #2a2333;
}
.soft {
  font-size: 3.2px;
  fill: #5f566b;
}
.small {
  font-size: 2.9px;
}
.name {
  font: 600 9.5px var(--serif);
}
.grams {
  font: 500 14px var(--mono);
  letter-spacing: -0.5px;
}
.unit {
  font-size: 5.4px;
  letter-spacing: 0;
  fill: #5f566b;
}
.word {
  font-size: 5px;
  font-weight: 600;
}
.strong {
  font-size: 3.7px;
  font-weight: 600;
}
.mono {
  font: 500 3.5px var(--mono);
}
.label {
  font-size: 2.9px;
  font-weight: 600;
  fill: #fffdf8;
}
.flag {
  font: 600 2.9px var(--mono);
  fill: #fff;
}
.tick {
  font: 400 2.8px var(--mono);
  fill: #5f566b;
}
line {
  stroke: #2a2333;
  stroke-width: 0.35;
}
.thin {
  stroke: #cbbfae;
  stroke-width: 0.25;
}
.post {
  stroke-width: 0.7;
}
</style>

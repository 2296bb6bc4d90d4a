<script setup lang="ts">
import {
  fixed,
  gramsFigure,
  gramsWithSpread,
  headroomWords,
  reserveWords,
  spreadFigure,
  sureWords,
} from '#core/text/display'
import { spreadG } from '#core/maths/estimate'
import { lineGrams } from '#core/mass/evidence'
import { coverageFactor95, sumCompensated } from '#core/maths/numbers'
import { loadoutName } from '#core/mass/loadout'
import { judgementWord } from '#core/mass/report'
import { cardName, countingSentences, limitInWords } from '#core/limits/rules'
import { intoReserveG } from '#core/limits/verdict'

const store = useBuildStore()
const moving = ref(false)
const everMoved = ref(false)
const overview = computed(() => store.overview!)
const closeCall = computed(() => overview.value.binding?.verdict?.word === 'Too close to call')
/** The figures as typed, summed without corrections: what a pocket calculator says. */
const plainSumG = computed(() =>
  sumCompensated(overview.value.counted.map(line => (line.mass ? lineGrams(line.mass, line.quantity) : 0))),
)
/** Weighings of several lines that were taken in and hold a line that counts now. */
const carrying = computed(() => {
  const counted = new Set(overview.value.counted.map(line => line.id))
  return store.build!.observations.filter(
    o => o.state === 'taken in' && o.subjects.some(subject => counted.has(subject.id)),
  )
})
/** Names of the lines that count and have no grams, the first three. */
const openNames = computed(() => {
  const names = overview.value.counted.filter(line => !line.mass).map(line => line.name)
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')
})
const widest = computed(() => store.shares.slice(0, 5).filter(entry => entry.share > 0.01))
</script>

<template>
  <div>
    <h2>{{ store.build?.reference ? 'What is said of its parts' : 'What the total rests on' }}</h2>
    <div class="value figure">
      {{ gramsFigure(overview.massG, overview.spreadG) }}<small> g ± {{ spreadFigure(overview.spreadG) }}</small>
    </div>
    <dl class="facts">
      <dt>Plain sum of displays</dt><dd>{{ fixed(plainSumG, 2) }} g</dd>
      <dt>Dry, without pack and payload</dt><dd>{{ gramsWithSpread(overview.dry.valueG, spreadG(overview.dry)) }}</dd>
      <dt>Lines weighed</dt><dd>
        {{ overview.weighedLines }} of
        {{ overview.counted.length }}{{ overview.weighedWhole ? ', all together' : '' }}
      </dd>
    </dl>
    <div
      v-if="store.weighedElsewhere"
      class="note"
      data-test="copied"
    >
      <p>
        {{ store.weighedElsewhere.lineIds.length }}
        {{ store.weighedElsewhere.lineIds.length === 1 ? 'line' : 'lines' }} came weighed from
        {{ store.weighedElsewhere.from }} when this build was copied. Were these very pieces on a scale?
      </p>
      <el-button
        type="primary"
        @click="store.answerCopied('twins')"
      >
        No, they are twins
      </el-button> <el-button @click="store.answerCopied('weighed')">
        Yes, these too
      </el-button>
    </div>
    <p
      v-if="store.narrowing"
      class="note"
    >
      {{ narrowingWords(store.narrowing, closeCall) }}
    </p>
    <template v-if="widest.length > 0">
      <h3>Where the doubt comes from</h3>
      <div
        v-for="entry in widest"
        :key="entry.line.id"
        class="doubt"
      >
        <el-button
          link
          type="primary"
          @click="store.selectedId = entry.line.id"
        >
          {{ lineTitle(entry.line) }}
        </el-button><span class="figure">{{ fixed(100 * entry.share, 0) }} %</span>
      </div>
    </template>
    <template v-if="carrying.length > 0">
      <h3>Weighings that carry it</h3>
      <div
        v-for="observation in carrying"
        :key="observation.id"
        class="doubt"
      >
        <span>{{ observation.title }} <span class="soft">{{ dayOf(observation.takenAt, 'without year') }},
          {{ observation.scaleName }}</span></span><span class="figure">{{ fixed(observation.valueG, 2) }}</span>
      </div>
    </template>
    <h3>Under the chosen cards</h3>
    <p
      v-if="store.build!.reference"
      class="soft"
    >
      {{ referenceNotJudged }}
    </p>
    <p
      v-else-if="overview.judgements.length === 0"
      class="soft"
    >
      No rule card is chosen. <NuxtLink :to="`/builds/${store.build!.id}/aim`">Choose one in Aim</NuxtLink>
    </p>
    <div
      v-for="judgement in overview.judgements"
      :key="judgement.card.id"
      class="card"
    >
      <b>{{ cardName(judgement.card) }}</b> <span class="soft">{{ limitInWords(judgement.card) }}</span>
      <div v-if="judgement.verdict">
        <VerdictMark :word="judgement.verdict.word" /> <span class="soft">{{
          [
            headroomWords(judgement.verdict.headroomG, judgement.sigmaG * coverageFactor95),
            reserveWords(intoReserveG(judgement.verdict, store.build!.aim.reserveG)),
            sureWords(judgement.verdict, store.build!.aim.confidence),
          ]
            .filter(Boolean)
            .join(', ')
        }}</span>
      </div>
      <div
        v-else
        class="soft"
      >
        {{ judgementWord(judgement) }}
      </div>
      <div
        v-if="judgement.leftOut.length > 0"
        class="soft"
      >
        Counts {{ countingSentences[judgement.card.counts] }}: leaves out {{ judgement.leftOut.join(', ') }} and looks
        at {{ gramsFigure(judgement.massG, overview.spreadG) }} g.
      </div>
      <div
        v-if="judgement.heaviest"
        class="soft"
      >
        Decided by {{ loadoutName(store.build!, judgement.heaviest) }} among the loadouts you allow:
        {{ gramsFigure(judgement.massG, judgement.sigmaG * coverageFactor95, judgement.limitG) }}
        g<template v-if="judgement.openLines > 0">
          {{ ', and grams nobody has said' }}
        </template>.
      </div>
      <div
        v-if="judgement.verdict?.word === 'Clear' && judgement.verdict.headroomG < judgement.sigmaG * coverageFactor95"
        class="soft"
      >
        ± is two-sided. Clear is asked one-sided, at {{ fixed(100 * store.build!.aim.confidence, 0) }} %: that takes
        {{ fixed(judgement.verdict.guardG, 2) }} g of the headroom.
      </div>
      <div
        v-if="openNames !== '' && judgement.openLines > 0 && !judgement.heaviest"
        class="soft"
      >
        Cannot be called clear while nobody has said the grams of {{ openNames }}.
      </div>
      <div
        v-else-if="judgement.verdict?.word === 'Too close to call' && judgement.openLines === 0 && judgement.verdict.clearSpreadG !== null"
        class="soft"
      >
        Would be clear with ± {{ spreadFigure(judgement.verdict.clearSpreadG) }} or less.
      </div>
    </div>
    <SetupEditor />
    <p class="apart">
      <el-button @click="everMoved = moving = true">
        Take apart or move lines
      </el-button>
    </p>
    <LazyHandOver
      v-if="everMoved"
      v-model="moving"
      :first="[]"
    />
  </div>
</template>

<style scoped>
.value {
  font-size: 30px;
  line-height: 1;
  letter-spacing: -1px;
  margin: 8px 0 4px;
}
.value small {
  font-size: 14px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.doubt .figure {
  white-space: nowrap;
}
.doubt {
  display: flex;
  justify-content: space-between;
  border-top: 1px solid var(--line);
  padding: 3px 0;
  gap: 8px;
}
.doubt .is-link {
  text-align: left;
  white-space: normal;
  color: var(--ink);
  font-weight: 500;
  padding-left: 0;
  font-size: 12.5px;
}
.card {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
</style>

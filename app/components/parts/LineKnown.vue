<script setup lang="ts">
import { sigmaG, spreadG } from '#core/maths/estimate'
import { lineGrams } from '#core/mass/evidence'
import { withDisplays } from '#core/deciding/weigh'
import type { Line, Mass } from '#core/model/ledger'
import { fixed, gramsFigure, signed, spreadFigure } from '#core/text/display'

/** What a line weighs, how that is known, what moves it, and where its spread comes from. */
const props = defineProps<{ line: Line }>()
const store = useBuildStore()
const estimate = computed(() => store.estimates.of(props.line))
const spread = computed(() => spreadG(estimate.value))
const explanation = computed(() => evidenceWords(props.line, store.honesty.of(props.line.slot)))
const bookedG = computed(() => (props.line.mass ? lineGrams(props.line.mass, props.line.quantity) : 0))
/** What the honesty of listings adds, before any weighing together. */
const correctionG = computed(() => store.estimates.before(props.line).valueG - bookedG.value)
const causes = computed(() => toldCauses(estimate.value))
const moved = computed(() =>
  movedWords(props.line, store.build!, store.estimates.movedBy(props.line), causes.value),
)
const share = computed(() => store.shares.find(entry => entry.line.id === props.line.id)?.share ?? null)
const limit = computed(() => store.overview?.binding?.limitG ?? null)
const counted = computed(() => store.overview?.counted.some(line => line.id === props.line.id) ?? false)
const pieces = computed(() => props.line.mass?.pieceReadingsG ?? null)

function readOnAnother(mass: Mass) {
  const fields = { mass: { ...withDisplays(mass), versionId: newId() } }
  store.run({ type: 'lines.change', changes: [{ id: props.line.id, fields }] })
}
</script>

<template>
  <div class="value figure">
    {{ line.mass ? gramsFigure(estimate.valueG, spread) : 'open' }}<small v-if="line.mass">
      g{{ line.mass.evidence === 'weighed' ? '' : ' expected' }}</small> <InOunces :grams="line.mass ? estimate.valueG : null" />
  </div>
  <p>
    {{ explanation }} <el-button
      v-if="line.mass?.weighing?.method === 'typed'"
      link
      type="primary"
      @click="readOnAnother(line.mass)"
    >
      It was another scale
    </el-button>
  </p>
  <dl class="facts">
    <template v-if="line.listing">
      <dt>
        Listed<template v-if="line.quantity > 1">
          × {{ line.quantity }}
        </template>
      </dt><dd>{{ fixed(line.listing.valueG * line.quantity, 2) }} g</dd>
    </template>
    <template v-if="Math.abs(correctionG) > 0.004">
      <dt>Correction for listings</dt><dd>{{ signed(correctionG, 2) }} g</dd>
    </template>
    <template
      v-for="one in line.further.filter(w => !w.of)"
      :key="one.mass.versionId"
    >
      <dt>Weighed again, {{ one.mass.weighing?.scaleName ?? 'typed' }}</dt><dd>{{ fixed(lineGrams(one.mass, line.quantity), 2) }} g</dd>
    </template>
    <template
      v-for="one in moved"
      :key="one.id"
    >
      <dt>{{ one.words }}</dt><dd>{{ signed(one.shiftG, 2) }} g</dd>
    </template>
    <template v-if="line.mass">
      <dt>Spread (95 %)</dt><dd>± {{ spreadFigure(spread) }} g</dd>
    </template>
    <template v-if="limit && counted">
      <dt>Share of the limit</dt><dd>{{ fixed(100 * estimate.valueG / limit, 1) }} %</dd>
    </template>
    <template v-if="share !== null && counted">
      <dt>Share of the doubt</dt><dd>{{ fixed(100 * share, 0) }} %</dd>
    </template>
  </dl>
  <p
    v-if="pieces"
    class="soft"
  >
    Pieces <span class="figure">{{ pieces.map(p => fixed(p, 2)).join(' ') }}</span>
  </p>
  <details v-if="causes.length > 0">
    <summary>Why ± {{ spreadFigure(spread) }}?</summary>
    <dl class="facts">
      <template
        v-for="c in causes"
        :key="c.key"
      >
        <dt>{{ c.words }}{{ c.isShared ? ' (shared)' : '' }}</dt><dd>{{ fixed(Math.abs(c.grams), 3) }} g</dd>
      </template><dt>one standard uncertainty</dt><dd>{{ fixed(sigmaG(estimate), 3) }} g</dd>
    </dl>
  </details>
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
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
}
</style>

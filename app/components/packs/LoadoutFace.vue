<script setup lang="ts">
import type { LoadoutCell } from '#core/aircraft/flight'
import { loadoutName, sameLoadout } from '#core/mass/loadout'
import { coverageFactor95 } from '#core/maths/numbers'
import { gramsFigure, spreadFigure } from '#core/text/display'

/** What a loadout says of itself in the sheet: grams, verdict, the figure on view, and how it is flown. */
const props = defineProps<{ cell: LoadoutCell; figureWords: string; misfits: boolean }>()
const store = useBuildStore()
const spread = computed(() => props.cell.sigmaG * coverageFactor95)
const isFlown = computed(() => sameLoadout(props.cell.choice, store.build!.flies))
/** Where the binding card looks at the heaviest loadout allowed, and that is another one: which decides. */
const decidedBy = computed(() => {
  const { binding, choice } = props.cell
  if (!binding?.heaviest || sameLoadout(binding.heaviest, choice)) return ''
  return `by ${loadoutName(store.build!, binding.heaviest)}`
})
</script>

<template>
  <span
    class="auw figure"
    :class="{ never: cell.never }"
  >{{ gramsFigure(cell.massG, spread, cell.binding?.limitG) }}<small>
    ± {{ spreadFigure(spread) }}</small> <InOunces :grams="cell.massG" /></span>
  <span
    v-if="cell.binding?.verdict"
    class="word"
    :class="toneOf(cell.binding)"
  ><VerdictMark :word="cell.binding.verdict.word" /> <span
    v-if="cell.openLines === 0"
    class="figure"
  >{{ headroomTag(cell) }}</span><small
    v-if="decidedBy"
    class="soft"
  >{{ decidedBy }}</small></span>
  <span
    v-if="cell.openLines > 0"
    class="open"
  >{{ openWords(cell.openLines) }}</span>
  <span class="more figure">{{ figureWords }}</span>
  <span
    v-if="misfits"
    class="misfit"
  >does not fit</span>
  <span
    v-if="isFlown"
    class="flown"
  >as I fly it</span><span
    v-if="cell.onPurpose"
    class="flown"
  >over on purpose</span><span
    v-if="cell.never"
    class="flown"
  >never flown</span>
</template>

<style scoped>
.auw {
  font-size: 15px;
  grid-column: 1 / -1;
}
.auw small {
  font-size: 11px;
  color: var(--ink-soft);
}
.word {
  font-size: 11.5px;
  grid-column: 1 / -1;
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink);
}
.word :deep(.mark) {
  color: var(--ink);
}
.word :deep(.mark svg) {
  color: var(--close);
}
.more {
  font-size: 11.5px;
}
.open {
  font-size: 11px;
  color: var(--ink-soft);
  grid-column: 1;
}
.misfit {
  font-size: 11px;
  color: var(--over);
  font-weight: 600;
  grid-column: 1;
}
.flown {
  font-size: 11px;
  font-weight: 600;
  grid-column: 1;
}
.word.clear :deep(svg) {
  color: var(--clear);
}
.word.over :deep(svg) {
  color: var(--over);
}
.never {
  text-decoration: line-through;
}
@media screen and (max-width: 760px) {
  .auw {
    font-size: 18px;
    grid-column: 1;
  }
  .word,
  .more {
    font-size: 14px;
  }
  .more {
    grid-column: 2;
    grid-row: 1;
    align-self: center;
  }
}
</style>

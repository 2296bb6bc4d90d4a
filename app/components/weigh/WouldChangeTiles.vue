<script setup lang="ts">
import { fixed, signed, spreadFigure } from '#core/text/display'
import type { WouldChange } from '#core/deciding/weigh'

const props = defineProps<{ change: WouldChange | null }>()
const listing = computed(() => {
  const { change } = props
  if (!change) return null
  if (change.againstListing)
    return {
      head: 'against the listing',
      figure: `${signed(change.againstListing.differenceG, 2)} g`,
      words: `${fixed(Math.abs(change.againstListing.percent), 1)} % ${change.againstListing.percent >= 0 ? 'heavy' : 'light'}`,
    }
  return {
    head: 'against what was believed',
    figure: `${signed(change.lineAfterG - change.lineBeforeG, 2)} g`,
    words: 'the whole line',
  }
})
const headroom = computed(() => {
  const { change } = props
  if (!change || change.headroomAfterG === null || change.headroomBeforeG === null) return null
  const same = change.wordBefore === change.wordAfter
  return {
    figure: `${fixed(change.headroomBeforeG, 1)} → ${fixed(change.headroomAfterG, 1)} g`,
    words: `${same ? 'still ' : 'then '}${change.wordAfter!.toLowerCase()}`,
  }
})
</script>

<template>
  <div
    class="tiles"
    aria-label="If you take it"
  >
    <template v-if="change && listing">
      <div><small>{{ listing.head }}</small><b class="figure">{{ listing.figure }}</b><small>{{ listing.words }}</small></div>
      <div>
        <small>spread of the total</small><b class="figure">± {{ spreadFigure(change.spreadBeforeG) }} →
          {{ spreadFigure(change.spreadAfterG) }} g</b><small>if you take it</small>
      </div>
      <div v-if="headroom">
        <small>headroom</small><b class="figure">{{ headroom.figure }}</b><small>{{ headroom.words }}</small>
      </div>
    </template>
    <p
      v-else
      class="soft"
    >
      What taking it would change stands here as soon as something lies on the pan.
    </p>
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
  margin-top: 14px;
}
.tiles > div {
  background: var(--paper);
  border-radius: 7px;
  padding: 8px 11px;
  display: grid;
  gap: 1px;
  align-content: start;
  min-width: 0;
}
b {
  font-size: 15px;
  letter-spacing: -0.3px;
  white-space: nowrap;
}
small {
  font-size: 12px;
  color: var(--ink-soft);
}
p {
  grid-column: 1 / -1;
  text-align: center;
}
@media screen and (max-width: 760px) {
  .tiles {
    gap: 6px;
    margin-top: 8px;
  }
  .tiles > div {
    padding: 6px 8px;
  }
  b {
    font-size: 12px;
    letter-spacing: -0.6px;
  }
  small {
    font-size: 11px;
  }
}
</style>

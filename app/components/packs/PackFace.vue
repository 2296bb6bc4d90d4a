<script setup lang="ts">
import type { SheetPack } from '#core/aircraft/flight'
import { packLabel } from '#core/model/ledger'
import { textOf } from '#core/model/properties'
import { gramsFigure } from '#core/text/display'

/** What a pack says of itself at the head of its row: which it is, its state, and what it fits with in no set-up. */
const props = defineProps<{ row: LoadoutRow; misfits: readonly string[] }>()
const line = computed(() => props.row.pack.line)
const state = computed(() => textOf(line.value, 'packState'))
const sourceWords: Record<SheetPack['source'], string> = {
  'on the build': '',
  'on the list': 'candidate',
  'drawer': 'in the drawer',
  'typical': 'typical, not owned',
}
</script>

<template>
  <b>{{ packLabel(line) }}</b> <span v-if="line.pack">{{ line.pack.cells }}S {{ line.pack.chemistry }}</span><span
    v-else
    class="word-close"
  >which pack?</span>
  <small v-if="row.pack.source !== 'on the build'">{{ sourceWords[row.pack.source] }}</small><small
    v-else-if="state && state !== 'fine'"
    class="word-close"
  >{{ state }}</small>
  <small
    v-if="misfits.length > 0"
    class="word-over misfits"
  >Does not fit. {{ misfits[0] }}<template v-if="misfits.length > 1">, and {{ misfits.length - 1 }} more</template></small>
  <small class="narrow"><template v-if="line.pack">{{ line.pack.capacityMah }} mAh,
  </template>{{ gramsFigure(row.packG, row.packSpreadG) }} g</small>
</template>

<style scoped>
b {
  font-size: 14px;
}
span {
  color: var(--ink-soft);
  white-space: nowrap;
}
small {
  display: block;
  font-size: 11px;
  color: var(--ink-soft);
}
.word-close {
  color: var(--close);
}
.misfits {
  color: var(--over);
  max-width: 148px;
  line-height: 1.25;
}
.narrow {
  display: none !important;
}
@media screen and (max-width: 760px) {
  .misfits {
    max-width: none;
  }
  .narrow {
    display: block !important;
  }
  small {
    font-size: 14px;
  }
}
</style>

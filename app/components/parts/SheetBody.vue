<script setup lang="ts">
import type { Line } from '#core/model/ledger'

/** The rows of one group: they can be dragged into another order by their grip. */
const props = defineProps<{ lines: readonly Line[] }>()
const emit = defineEmits<{ moved: [line: Line, toward: Line, after: boolean] }>()
const body = useTemplateRef<HTMLElement>('body')
useReorder(body, {
  handle: '.grip',
  rows: 'tr[data-row]',
  moved: (from, to) => emit('moved', props.lines[from]!, props.lines[to]!, to > from),
})
</script>

<template>
  <tbody
    ref="body"
    role="rowgroup"
  >
    <slot />
  </tbody>
</template>

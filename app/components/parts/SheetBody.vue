<script setup lang="ts">
import type { Line } from '#core/model/ledger'
import type { Move } from '~/composables/useSheetKeys'
import type { SheetRowProps } from '~/utils/sheet-row'

/** The rows of one group: they can be dragged into another order by their grip. Its head is the slot. */
const props = defineProps<{ lines: readonly Line[]; rowOf: (line: Line) => SheetRowProps }>()
const emit = defineEmits<{
  moved: [line: Line, toward: Line, after: boolean]
  commit: [text: string, move: Move]
  become: [line: Line]
  cancel: []
}>()
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
    <SheetRow
      v-for="line in lines"
      :key="line.id"
      v-memo="Object.values(rowOf(line))"
      v-bind="rowOf(line)"
      @commit="(text, move) => emit('commit', text, move)"
      @become="emit('become', $event)"
      @cancel="emit('cancel')"
    />
  </tbody>
</template>

<script setup lang="ts">
/** The head of a column: a press sorts by it, with Shift as well by it; its edge is drawn, or moved by arrow keys. */
const props = defineProps<{ title: string; down: boolean | null; place: number; sorts: number }>()
const emit = defineEmits<{ sort: [further: boolean]; width: [px: number] }>()
const head = useTemplateRef<HTMLElement>('head')
const step = 8
const now = () => head.value!.getBoundingClientRect().width

function draw(event: PointerEvent) {
  event.preventDefault()
  const edge = event.currentTarget as HTMLElement
  const [startX, startWidth] = [event.clientX, now()]
  edge.setPointerCapture(event.pointerId)
  const move = (at: PointerEvent) => emit('width', startWidth + at.clientX - startX)
  edge.addEventListener('pointermove', move)
  edge.addEventListener('lostpointercapture', () => edge.removeEventListener('pointermove', move), { once: true })
}
const signs = computed(() => {
  if (props.down === null) return ''
  return `${props.down ? '▾' : '▴'}${props.sorts > 1 ? props.place : ''}`
})
</script>

<template>
  <span
    ref="head"
    role="columnheader"
    :aria-sort="down === null ? 'none' : down ? 'descending' : 'ascending'"
  ><button
    type="button"
    class="plain"
    :title="`Sort by ${title.toLowerCase()}; with Shift as well by it`"
    @click="emit('sort', $event.shiftKey)"
  >{{ title }}<i
    v-if="signs"
    aria-hidden="true"
  >{{ signs }}</i></button><b
    class="edge"
    role="slider"
    tabindex="0"
    aria-orientation="horizontal"
    :aria-label="`Width of ${title}`"
    aria-valuemin="44"
    aria-valuemax="640"
    :aria-valuenow="Math.round(head?.offsetWidth ?? 44)"
    @pointerdown="draw"
    @keydown.left.prevent.stop="emit('width', now() - step)"
    @keydown.right.prevent.stop="emit('width', now() + step)"
  /></span>
</template>

<style scoped>
[role='columnheader'] {
  position: relative;
}
i {
  font-style: normal;
  margin-left: 3px;
}
.plain {
  color: var(--ink-soft);
  font-weight: 500;
  font-size: 11.5px;
  padding: 0;
}
.edge {
  position: absolute;
  top: 3px;
  bottom: 3px;
  right: -1px;
  width: 7px;
  cursor: col-resize;
  touch-action: none;
  border-right: 1px solid var(--line);
}
.edge:hover,
.edge:focus-visible {
  border-right: 2px solid var(--plum-text);
  outline: none;
}
</style>

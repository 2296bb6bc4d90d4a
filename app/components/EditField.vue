<script setup lang="ts">
import { withMark } from '#core/text/display'
import type { InputInstance } from 'element-plus'

/**
 * A text field that keeps what is being typed: when the value behind it is drawn anew while the builder types, the
 * letters stay. It speaks only when the field is left or Enter is pressed; `change` carries the field's own event.
 */
const props = defineProps<{ value: string | number | null }>()
const emit = defineEmits<{ change: [event: Event] }>()

const input = useTemplateRef<InputInstance>('input')
defineExpose({ focus: () => input.value?.focus() })
const text = ref(shown())
let typing = false
function shown() {
  return props.value === null ? '' : typeof props.value === 'number' ? withMark(String(props.value)) : props.value
}
watch(
  () => props.value,
  () => {
    if (!typing) text.value = shown()
  },
)
function type(letters: string) {
  typing = true
  text.value = letters
}
function finish(event: Event) {
  typing = false
  emit('change', event)
}
/** Left as it was found: from here on it shows the value behind it again. */
function leave() {
  if (!typing) return
  typing = false
  text.value = shown()
}
</script>

<template>
  <el-input
    ref="input"
    :model-value="text"
    @update:model-value="type"
    @change="(_: string, event?: Event) => event && finish(event)"
    @blur="leave"
  />
</template>

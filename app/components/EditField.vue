<script setup lang="ts">
/**
 * A text field that keeps what is being typed: when the value behind it is drawn anew while the builder types, the
 * letters stay. It speaks only when the field is left or Enter is pressed; `change` carries the field's own event.
 */
const props = defineProps<{ value: string | number | null }>()
const emit = defineEmits<{ change: [event: Event] }>()

const text = ref(shown())
let typing = false
function shown() {
  return props.value === null ? '' : String(props.value)
}
watch(
  () => props.value,
  () => {
    if (!typing) text.value = shown()
  },
)
function type(event: Event) {
  typing = true
  text.value = (event.target as HTMLInputElement).value
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
  <input
    :value="text"
    @input="type"
    @change="finish"
    @blur="leave"
  >
</template>

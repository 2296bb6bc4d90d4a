<script setup lang="ts">
import type { FormItemInstance } from 'element-plus'

/** A field of a form with what is wrong with it under it, read out with the field. */
const props = defineProps<{ label: string; prop?: string; problem?: string }>()
const item = useTemplateRef<FormItemInstance>('item')
const problemId = `${useId()}-problem`
watch(
  () => item.value?.validateState,
  async state => {
    await nextTick()
    const field = (item.value?.$el as HTMLElement | undefined)?.querySelector('input, textarea')
    if (!field) return
    field.setAttribute('aria-invalid', String(state === 'error'))
    // What describes the field otherwise goes on doing so.
    const others = (field.getAttribute('aria-describedby') ?? '').split(' ').filter(id => id !== '' && id !== problemId)
    const described = state === 'error' ? [...others, problemId] : others
    if (described.length > 0) field.setAttribute('aria-describedby', described.join(' '))
    else field.removeAttribute('aria-describedby')
  },
  { immediate: true, flush: 'post' },
)
</script>

<template>
  <el-form-item
    ref="item"
    class="form-field"
    :label="label"
    :prop="props.prop"
    :error="problem"
  >
    <slot />
    <template #error="{ error }">
      <span
        :id="problemId"
        class="problem"
        role="alert"
      >{{ error }}</span>
    </template>
  </el-form-item>
</template>

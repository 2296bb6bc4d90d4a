<script setup lang="ts">
import type { InputInstance } from 'element-plus'

/** One question: a field, the button that sends it, and under the field what is wrong. The slot is for further buttons. */
const text = defineModel<string>({ required: true })
const {
  label,
  shown = false,
  maxlength = 2000,
  problem = '',
} = defineProps<{
  /** What is asked; `shown` writes it over the field. */
  label: string
  shown?: boolean
  placeholder?: string
  /** Words of the button. */
  words: string
  /** Nothing is sent while the field is empty. */
  needed?: boolean
  busy?: boolean
  maxlength?: number
  /** A sentence of several lines is expected. */
  tall?: boolean
  type?: 'text' | 'password'
  autocomplete?: string
  problem?: string
  /** How much the button weighs beside the others of the page. */
  button?: 'plain' | 'main' | 'link'
}>()
const emit = defineEmits<{ send: [] }>()
const field = useTemplateRef<InputInstance>('field')
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <el-form
    class="one-field"
    :class="{ tall, shown }"
    @submit.prevent="emit('send')"
  >
    <slot name="before" />
    <FormField
      :label="shown ? label : ''"
      :problem="problem"
    >
      <el-input
        ref="field"
        v-model="text"
        :type="tall ? 'textarea' : (type ?? 'text')"
        :rows="tall ? 2 : undefined"
        :aria-label="shown ? undefined : label"
        :placeholder="placeholder"
        :maxlength="maxlength"
        :autocomplete="autocomplete ?? 'off'"
      />
    </FormField>
    <el-button
      native-type="submit"
      :type="button === 'main' || button === 'link' ? 'primary' : undefined"
      :link="button === 'link'"
      :disabled="needed && text.trim() === ''"
      :loading="busy"
    >
      {{ words }}
    </el-button>
    <slot />
  </el-form>
</template>

<style scoped>
.one-field {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: start;
}
.one-field.shown {
  align-items: end;
}
.one-field > .form-field {
  flex: 1;
  min-width: 0;
}
.one-field.tall {
  display: grid;
  justify-items: start;
}
.one-field.tall > .form-field {
  width: 100%;
}
</style>

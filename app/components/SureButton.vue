<script setup lang="ts">
import type { ButtonInstance, PopconfirmInstance } from 'element-plus'
import type { Component } from 'vue'

/** A button for what does not come back: it asks once, in place, and gives the focus back. */
defineOptions({ inheritAttrs: false })
defineProps<{ words: string; question: string; icon?: Component }>()
const emit = defineEmits<{ sure: [] }>()
const button = useTemplateRef<ButtonInstance>('button')
const back = () => button.value?.ref?.focus()
const asking = useTemplateRef<PopconfirmInstance>('asking')
const isOpen = ref(false)
function leave(event: KeyboardEvent) {
  if (!isOpen.value) return
  event.stopPropagation()
  asking.value?.hide()
  back()
}
onKeyStroke('Escape', leave, { eventName: 'keydown', target: () => document.body })
</script>

<template>
  <el-popconfirm
    ref="asking"
    role="dialog"
    :aria-label="question"
    :title="question"
    :confirm-button-text="words"
    cancel-button-text="Keep it"
    confirm-button-type="danger"
    cancel-button-type="default"
    hide-icon
    width="250"
    :hide-after="0"
    :persistent="false"
    @show="isOpen = true"
    @hide="isOpen = false"
    @confirm="emit('sure')"
    @cancel="back"
  >
    <template #reference>
      <el-button
        v-bind="$attrs"
        ref="button"
        link
        type="primary"
        :icon
        :aria-label="($attrs['aria-label'] as string | undefined) ?? (icon && words)"
      >
        <template v-if="!icon">
          {{ words }}
        </template>
      </el-button>
    </template>
  </el-popconfirm>
</template>

<script setup lang="ts">
import { explain, type TermWord } from '#core/text/glossary'

/** A word of the trade that says what it is: to a pointer, to the keyboard, to a finger. */
defineProps<{
  word: TermWord
  /** What is in the slot is reached by itself, and does something when it is pressed. */
  on?: boolean
}>()
</script>

<template>
  <el-tooltip
    :content="explain(word)"
    :trigger="on ? ['hover', 'focus'] : ['hover', 'focus', 'click']"
    :show-after="200"
    :enterable="false"
    :persistent="false"
    popper-class="term-tip"
  >
    <slot v-if="on" />
    <span
      v-else
      class="term"
      tabindex="0"
    ><slot>{{ word }}</slot></span>
  </el-tooltip>
</template>

<style scoped>
.term {
  text-decoration: underline dotted var(--edge);
  text-underline-offset: 3px;
  cursor: help;
}
</style>

<script setup lang="ts">
import type { Component } from 'vue'

/** A small button that is an icon: its name is read out, and shown where one points at it or comes to it by keyboard. */
defineOptions({ inheritAttrs: false })
defineProps<{ icon: Component; label: string }>()
</script>

<template>
  <el-tooltip
    :content="label"
    :show-after="300"
    :enterable="false"
  >
    <el-button
      v-bind="$attrs"
      link
      type="primary"
      :icon="icon"
      :aria-label="label"
    />
  </el-tooltip>
</template>

<script setup lang="ts" generic="Way extends string">
/** One of a few ways, each in words, under what it is about. */
defineProps<{ modelValue: Way; about: string; ways: readonly (readonly [Way, string])[]; bare?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [way: Way] }>()
</script>

<template>
  <div class="way-choice">
    <span
      v-if="!bare"
      class="about"
      aria-hidden="true"
    >{{ about }}</span>
    <el-radio-group
      class="stacked"
      :model-value="modelValue"
      :aria-label="about"
      @change="emit('update:modelValue', $event as Way)"
    >
      <el-radio
        v-for="[way, words] in ways"
        :key="way"
        :value="way"
      >
        {{ words }}
      </el-radio>
    </el-radio-group>
  </div>
</template>

<style scoped>
.about {
  display: block;
  color: var(--soft);
  font-size: 13px;
}
</style>

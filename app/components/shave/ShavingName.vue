<script setup lang="ts">
/** What a shaving is, to be looked at; below it stands what else is to be said of it. */
defineProps<{ what: string }>()
const emit = defineEmits<{ look: [] }>()
</script>

<template>
  <div>
    <el-button
      link
      type="primary"
      class="name"
      @click="emit('look')"
    >
      {{ what }}
    </el-button><small v-if="$slots.default"><slot /></small>
  </div>
</template>

<style scoped>
.name {
  padding: 0;
  color: var(--ink);
  text-align: left;
  white-space: normal;
  font-size: 13.5px;
  font-weight: 500;
}
.planned .name {
  font-weight: 700;
}
small {
  display: block;
  font-size: 11.5px;
  color: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .name {
    font-size: 16px;
    min-height: 32px;
  }
  small {
    font-size: 14px;
  }
}
</style>

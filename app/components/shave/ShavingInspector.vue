<script setup lang="ts">
import type { Shaving } from '#core/deciding/shave'

const props = defineProps<{
  shaving: Shaving
  isInPlan: boolean
  /** Whether it can be asked what turning it would cost, whether it was, and the answer. */
  canBeTurned: boolean
  isTurned: boolean
  turnedWords: string
  busy: boolean
}>()
const emit = defineEmits<{ close: []; ask: [turn: 'in' | 'out'] }>()
const store = useBuildStore()
function put(fields: Partial<Shaving>) {
  store.run({ type: 'shaving.put', shaving: { ...props.shaving, ...fields } })
}
</script>

<template>
  <div>
    <h2>{{ shaving.what }}</h2>
    <ShavingFields
      :key="shaving.id"
      :shaving="shaving"
    />
    <template v-if="canBeTurned">
      <h3>{{ isInPlan ? 'Without it' : 'Why not this one?' }}</h3>
      <p data-test="turned">
        {{ turnedWords }} <el-button
          v-if="!busy && !isTurned"
          link
          type="primary"
          @click="emit('ask', isInPlan ? 'out' : 'in')"
        >
          Work it out
        </el-button>
      </p>
    </template>
    <p v-if="shaving.state === 'planned'">
      <el-button
        link
        type="primary"
        @click="put({ state: 'idea' })"
      >
        Not planned any more
      </el-button>
    </p>
    <p class="foot">
      <el-button @click="emit('close')">
        Back to the plan
      </el-button> <el-button
        link
        type="primary"
        @click="store.run({ type: 'shaving.delete', id: shaving.id })"
      >
        Delete
      </el-button>
    </p>
  </div>
</template>

<style scoped>
.foot {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
}
</style>

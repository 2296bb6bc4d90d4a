<script setup lang="ts">
import type { CostMeasure, ShownPlan } from '#core/deciding/shave'
import type { FrontierPoint } from '~/workers/shave.worker'

/** What stands beside a plan: others nearly as good, and the cheapest way to every weight. */
defineProps<{
  others: readonly ShownPlan[]
  frontier: readonly FrontierPoint[]
  neededG: number | null
  measure: CostMeasure
  progress: { readonly done: number; readonly of: number } | null
  currency: string
}>()
const emit = defineEmits<{ stop: [] }>()
const withFrontier = defineModel<boolean>('withFrontier', { required: true })
/** A point of the frontier somebody looks at in place of the plan. */
const chosen = defineModel<FrontierPoint | null>('chosen', { required: true })
</script>

<template>
  <div>
    <template v-if="others.length > 0">
      <h3>What else nearly works</h3><p
        v-for="(other, i) in others"
        :key="i"
      >
        {{ costWords(other, currency) }}: <span class="soft">{{ other.steps.map(s => s.shaving.what).join(', ') }}</span>
      </p>
    </template>
    <h3>What each gram costs</h3>
    <el-checkbox v-model="withFrontier">
      draw the cheapest way to every weight
    </el-checkbox>
    <template v-if="withFrontier">
      <FrontierChart
        v-if="frontier.length > 0"
        :points="frontier"
        :needed-g="neededG"
        :measure="measure"
        :label="measureNames[measure]"
        :chosen-g="chosen?.gramsG ?? null"
        @choose="chosen = $event"
      /><p
        v-if="progress"
        class="soft"
        role="status"
      >
        {{ progress.done }} of {{ progress.of }} points <el-button
          link
          type="primary"
          @click="emit('stop')"
        >
          Stop
        </el-button>
      </p><p v-if="chosen">
        <el-button
          link
          type="primary"
          @click="chosen = null"
        >
          Back to the plan
        </el-button>
      </p>
    </template>
  </div>
</template>

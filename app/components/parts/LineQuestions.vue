<script setup lang="ts">
import { classAnswered, classInDoubt } from '#core/parts/catalogue'
import { fixed } from '#core/text/display'
import type { Basis, Line } from '#core/model/ledger'
import { basisUnsaid, withBasis } from '#core/mass/listings'

/** What has to be asked of a line once: whether facts of a class still hold, and how it was on the scale. */
const props = defineProps<{ line: Line }>()
const store = useBuildStore()
const className = computed(() => classInDoubt(props.line))
const run = (fields: Partial<Line>, why: string) => {
  store.run({ type: 'lines.change', changes: [{ id: props.line.id, fields }] }, why)
}
function answer(holds: boolean) {
  run(
    classAnswered(props.line, className.value!, holds, newId()),
    holds ? `still a ${className.value}` : `no ${className.value} any more`,
  )
}
function said(basis: Basis) {
  run({ mass: withBasis(props.line.mass!, basis, newId()) }, '')
}
const weighedEachG = computed(() => (props.line.mass ? props.line.mass.valueG / props.line.mass.valueCount : 0))
</script>

<template>
  <div
    v-if="className"
    class="note"
    role="group"
    aria-label="Do its facts still hold?"
  >
    <p>It came as a typical “{{ className }}” and is called something else now. Do the facts of that class still hold of it?</p>
    <el-button @click="answer(true)">
      They hold
    </el-button> <el-button @click="answer(false)">
      Take them away
    </el-button>
  </div>
  <div
    v-if="basisUnsaid(line)"
    class="note"
    role="group"
    aria-label="How was it weighed?"
  >
    <p>
      Listed at {{ fixed(line.listing!.valueG, 2) }} g, weighed {{ fixed(weighedEachG, 2) }} g. Was it on the scale
      as it came, or as fitted: cut, stripped, soldered? Only as it came it teaches how its kind is listed.
    </p>
    <el-button @click="said('as supplied')">
      As it came
    </el-button> <el-button @click="said('as fitted')">
      As fitted
    </el-button>
  </div>
</template>

<style scoped>
.note p {
  margin: 0 0 6px;
}
</style>

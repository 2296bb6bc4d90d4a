<script setup lang="ts">
/** Over the sample build: that it is one, and the way to be rid of it. */
const store = useBuildStore()
const { sampleId, throwAway } = useSample()
const { touring } = useShell()
const problem = ref('')
async function away() {
  try {
    await throwAway()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <p
    v-if="store.build && sampleId === store.build.id"
    class="sample no-print"
    data-test="sample"
  >
    <span>A sample to look round in. Nothing you do here matters.</span>
    <el-button
      link
      type="primary"
      @click="touring = true"
    >
      Take the tour
    </el-button>
    <SureButton
      words="Throw it away"
      question="Delete the sample build for good?"
      @sure="away"
    />
    <span
      v-if="problem"
      role="alert"
    >{{ problem }}</span>
  </p>
</template>

<style scoped>
.sample {
  margin: 0;
  padding: 5px 18px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  background: var(--note);
  font-size: 13px;
}
</style>

<script setup lang="ts">
/** What an empty shelf offers: three ways to begin. */
const emit = defineEmits<{ start: []; file: [] }>()
const sample = useSample()
const opening = ref(false)
const problem = ref('')
async function look() {
  opening.value = true
  problem.value = ''
  try {
    await sample.open()
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    opening.value = false
  }
}
</script>

<template>
  <section
    class="ways-in"
    aria-labelledby="ways-head"
  >
    <h2 id="ways-head">
      Nothing on the shelf yet
    </h2>
    <p class="soft">
      A build is a list of parts with their grams. From the first line on it has a total, how sure that is, and a verdict
      under your limit. Three ways to begin:
    </p>
    <ol>
      <li class="panel">
        <h3>From a craft class</h3>
        <p>
          You have bought nothing yet, or know only what it shall become. The usual parts stand in with typical grams;
          replace them one by one.
        </p>
        <el-button
          type="primary"
          @click="emit('start')"
        >
          Start a build
        </el-button>
      </li>
      <li class="panel">
        <h3>Rows or a file</h3>
        <p>
          You have a list already. Drop it here, choose it, or paste rows of a spreadsheet onto this page: you see what
          each row becomes before it comes in. Build files come in whole.
        </p>
        <el-button @click="emit('file')">
          Choose a file
        </el-button>
      </li>
      <li class="panel">
        <h3>Look round first</h3>
        <p>
          A sample aircraft of 250 g, half built, too close to its limit to call. Change what you like and throw it away
          when you have seen it.
        </p>
        <el-button
          :loading="opening"
          @click="look"
        >
          Open the sample
        </el-button>
      </li>
    </ol>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </section>
</template>

<style scoped>
.ways-in {
  padding-top: 12px;
}
ol {
  list-style: none;
  margin: 18px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 14px;
}
li {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  margin: 0;
}
li p {
  flex: 1;
}
h3 {
  border: 0;
  margin: 0;
  font: 600 17px var(--serif);
}
</style>

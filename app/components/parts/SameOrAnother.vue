<script setup lang="ts">
import { fixed, gramsFigure } from '#core/text/display'

/** New grams that do not go with earlier weighings: asked once whether they are of the same piece. Nothing waits for the answer. */
const store = useBuildStore()
const question = computed(() => store.pieceQuestion)
const line = computed(() => (question.value ? (store.lineOf(question.value.lineId) ?? null) : null))
const why = computed(() => {
  if (!question.value) return ''
  const { contradicted, wordSame, wordAnother } = question.value
  return contradicted
    ? `that does not go with ` +
      `${contradicted.title === 'the weighings before' ? contradicted.title : `“${contradicted.title}”`} ` +
      `(${fixed(Math.abs(contradicted.z), 1)} times what both allow).`
    : wordSame === wordAnother
      ? 'as the same piece it would leave others with less than nothing.'
      : `as the same piece the build is “${wordSame ?? 'without a limit'}”, as another one “${wordAnother ?? 'without a limit'}”.`
})
</script>

<template>
  <div
    v-if="question && line"
    class="note question"
    role="status"
    data-test="same-or-another"
  >
    <span><b>{{ lineTitle(line) }}, {{ gramsFigure(question.newG, 0.02) }} g:</b> {{ why }}
      {{ question.until === 'another' ? 'It is taken for another piece. Is it?' : 'Is it still the same piece?' }}</span>
    <span class="answers">
      <el-button
        :type="question.until === 'same' ? 'primary' : 'default'"
        @click="store.answerPiece('same')"
      >The same, better known</el-button>
      <el-button
        :type="question.until === 'another' ? 'primary' : 'default'"
        @click="store.answerPiece('another')"
      >Another piece</el-button>
    </span>
  </div>
</template>

<style scoped>
.question {
  margin: 0 0 10px;
  display: flex;
  gap: 8px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.question > :first-child {
  flex: 1 1 280px;
}
.answers {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
@media screen and (max-width: 760px) {
  .answers button {
    min-height: 44px;
  }
}
</style>

<script setup lang="ts">
/** What is typed and not written yet, for which build and why; what could not be written, to try again or let go. */
const edits = useEditsStore()
const route = useRoute()
const open = ref(false)
/** What the page itself says it is saving. */
const openHere = computed(() =>
  typeof route.params.id === 'string' ? documentOfBuild(route.params.id) : route.path.slice(1),
)
/** What is on its way for something that is not open: said where it takes longer than a blink. */
const underway = computed(() => edits.states.filter(state => state.document !== openHere.value))
const longUnderway = refDebounced(underway, 800)
const waiting = computed(() =>
  edits.states.filter(
    state =>
      edits.waiting.includes(state) ||
      (underway.value.includes(state) && longUnderway.value.some(({ document }) => document === state.document)),
  ),
)
const label = computed(() => {
  const parts = waiting.value.map(
    state => `${state.waiting} of ${state.name} ${state.waiting === 1 ? 'waits' : 'wait'}`,
  )
  if (edits.asides.length > 0) parts.push(`${edits.asides.length} not written`)
  return parts.join(' · ')
})
const signedOut = computed(() => waiting.value.some(state => state.why === 'signed out'))
const pageOf = (document: string) =>
  document.startsWith('build:') ? `/builds/${document.slice('build:'.length)}/parts` : `/${document}`
watch(label, text => {
  if (text === '') open.value = false
})
</script>

<template>
  <el-button
    v-if="label"
    class="waiting"
    :title="waiting[0] ? whyWaiting(waiting[0]) : ''"
    @click="open = true"
  >
    {{ label }}
  </el-button>
  <el-dialog
    v-model="open"
    title="Not written yet"
    width="min(680px, 94vw)"
  >
    <p
      v-if="edits.onlyHere"
      class="note"
    >
      This browser keeps nothing: what waits is lost when this tab is closed.
    </p>
    <section
      v-for="state in waiting"
      :key="state.document"
    >
      <h3>
        <NuxtLink
          :to="pageOf(state.document)"
          @click="open = false"
        >{{ state.name }}</NuxtLink> <small class="soft">{{ whyWaiting(state) || 'on its way' }}</small>
      </h3>
      <ol>
        <li
          v-for="edit in edits.queue.pending(state.document)"
          :key="edit.key"
        >
          {{ edit.words }} <el-button
            link
            type="primary"
            @click="edits.queue.setAsideByHand(edit.key, 'Taken out of the line by hand.')"
          >
            Set aside
          </el-button>
        </li>
      </ol>
    </section>
    <p v-if="signedOut">
      <a
        :href="`/sign-in?then=${encodeURIComponent(route.fullPath)}`"
        class="button first"
      >Sign in again</a>
    </p>
    <section v-if="edits.asides.length > 0">
      <h3>Could not be written</h3>
      <ul>
        <li
          v-for="edit in edits.asides"
          :key="edit.key"
        >
          <b>{{ edit.documentName }}</b>: {{ edit.words }}<br><span class="soft">{{ edit.sentence }}</span><br>
          <el-button @click="edits.queue.tryAgain(edit.key)">
            Try again
          </el-button> <el-button
            link
            type="primary"
            @click="edits.queue.letGo(edit.key)"
          >
            Let it go
          </el-button>
        </li>
      </ul>
    </section>
    <p class="soft">
      They are kept in this browser and sent by themselves as soon as may be, also after the page was closed.
    </p>
    <template #footer>
      <el-button @click="edits.queue.wake()">
        Try now
      </el-button> <el-button
        type="primary"
        @click="open = false"
      >
        Close
      </el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.waiting {
  background: var(--brass);
  color: #2a2333;
  border: 0;
  border-radius: 6px;
  padding: 3px 9px;
  font: 600 12.5px var(--sans);
  min-height: 0;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 340px;
  flex: none;
}
li {
  margin: 6px 0;
}
ol,
ul {
  padding-left: 20px;
}
h3 small {
  font-weight: 400;
}
.el-dialog__footer button + button {
  margin-left: 8px;
}
@media screen and (max-width: 760px) {
  .waiting {
    order: 3;
    max-width: 100%;
    min-height: 36px;
  }
}
</style>

<script setup lang="ts">
import { maidenChecks } from '#core/making/assembly'
import type { AssemblyRun } from '~/composables/useAssembly'

const props = defineProps<{ run: AssemblyRun }>()
const store = useBuildStore()
const checks = computed(() => maidenChecks(store.build!, store.choice, store.overview!, props.run.steps.value))
const ticked = ref<ReadonlySet<string>>(new Set())
const today = dayOf(new Date())
function toggle(words: string) {
  const next = new Set(ticked.value)
  if (!next.delete(words)) next.add(words)
  ticked.value = next
}
const note = computed(() => props.run.assembly.value.records.find(record => record.stepId === 'maiden')?.note ?? '')
const flown = computed(
  () => props.run.assembly.value.records.find(record => record.stepId === 'maiden')?.doneAt ?? null,
)
const writing = ref(false)
const field = useTemplateRef<{ readonly focus: () => void }>('field')
async function open() {
  writing.value = true
  await nextTick()
  field.value?.focus()
}
function keep(event: Event) {
  props.run.put(
    { note: (event.target as HTMLTextAreaElement).value, doneAt: flown.value ?? new Date().toISOString() },
    'maiden',
  )
}
function printCard() {
  window.print()
}
</script>

<template>
  <section
    aria-label="Maiden"
    class="maiden"
  >
    <div class="station-head no-print">
      <p class="soft">
        Print it, or tick it on the phone at the field.
      </p><span class="gap" /><el-button @click="printCard">
        Print
      </el-button>
    </div>
    <h2>{{ store.build!.name }}: first flight, {{ today }} <InOunces :grams="store.overview!.massG" /></h2>
    <ul>
      <li
        v-for="check in checks"
        :key="check.words"
        :class="{ open: check.open }"
      >
        <el-checkbox
          :model-value="ticked.has(check.words)"
          @change="toggle(check.words)"
        >
          <span>{{ check.words }}</span>
        </el-checkbox>
      </li>
    </ul>
    <p class="soft">
      A planning aid, not legal advice. Rules change: confirm with your aviation authority.
    </p>
    <div class="no-print">
      <el-button
        v-if="!writing && note === ''"
        type="primary"
        @click="open"
      >
        It has flown: write the first note
      </el-button>
      <label
        v-else
        class="field"
      >The first flight<EditField
        ref="field"
        type="textarea"
        :value="note"
        :rows="5"
        maxlength="2000"
        placeholder="how it flew, what was warm, what was loose"
        @change="keep"
      /></label>
    </div>
  </section>
</template>

<style scoped>
.maiden {
  max-width: 720px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 10px 0;
}
li {
  border-bottom: 1px solid var(--line);
}
li .el-checkbox {
  padding: 8px 0;
  font-size: 15px;
}
.open span {
  font-weight: 700;
  color: var(--over);
}
@media screen and (max-width: 760px) {
  li .el-checkbox {
    min-height: 48px;
  }
  button {
    min-height: 48px;
    width: 100%;
    justify-content: center;
  }
}
</style>

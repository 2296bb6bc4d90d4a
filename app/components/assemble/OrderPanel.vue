<script setup lang="ts">
import { movedStep, phases, schools, type Assembly, type OwnStep } from '#core/making/assembly'
import { ownEntry } from '#core/basics/own'
import { nameSchema } from '#core/text/schemas'
import type { AssemblyRun } from '~/composables/useAssembly'

const props = defineProps<{ run: AssemblyRun }>()
const store = useBuildStore()
const kept = useAssemblyStore()
const problem = ref('')
kept.load().catch((error: unknown) => {
  problem.value = sentenceOf(error)
})
const assembly = computed(() => props.run.assembly.value)
const step = computed(() => props.run.step.value)

function set(fields: Partial<Omit<Assembly, 'records'>>): boolean {
  const taken = store.run({ type: 'assembly.set', fields })
  problem.value = taken ? '' : store.refusal
  if (!taken) store.refusal = ''
  return taken
}
const ways = computed(() => [
  ...Object.keys(schools).map(name => ({ value: name, label: name })),
  ...kept.templates.map(template => ({ value: template.id, label: template.name })),
  ...(isKnown.value ? [] : [{ value: assembly.value.school, label: 'a template since deleted' }]),
])
function choose(value: string) {
  const template = kept.templates.find(t => t.id === value)
  if (!template) {
    set({ school: value, order: [] })
    return
  }
  set({ school: template.id, order: [...template.order], own: [...template.own] })
}
function move(by: -1 | 1) {
  if (!step.value) return
  const moved = movedStep(props.run.steps.value, step.value.id, by)
  if ('problem' in moved) problem.value = moved.problem
  else set({ order: [...moved.order] })
}
const draft = reactive({ title: '' })
function addOwn() {
  const named = nameSchema('The step').safeParse(draft.title.trim())
  if (!named.success) {
    problem.value = named.error.issues[0]!.message
    return
  }
  const id = `own-${newId()}`
  const after = step.value ? [step.value.id] : []
  const own: OwnStep = { id, title: named.data, words: '', phase: step.value?.phase ?? phases[0], after, minutes: 10 }
  if (set({ own: [...assembly.value.own, own] })) {
    draft.title = ''
    props.run.goTo(id)
  }
}
const isKnown = computed(
  () => assembly.value.school in schools || kept.templates.some(t => t.id === assembly.value.school),
)
const ownStep = computed(() => assembly.value.own.find(own => own.id === step.value?.id) ?? null)
function changeOwn(fields: Partial<OwnStep>) {
  set({ own: assembly.value.own.map(own => (own.id === ownStep.value!.id ? { ...own, ...fields } : own)) })
}
function removeOwn(id: string) {
  set({
    own: assembly.value.own.filter(own => own.id !== id),
    order: assembly.value.order.filter(other => other !== id),
  })
}
const templateName = ref('')
async function keepTemplate() {
  const named = nameSchema('The template').safeParse(templateName.value.trim())
  if (!named.success) {
    problem.value = named.error.issues[0]!.message
    return
  }
  problem.value = ''
  const id = kept.templates.find(t => t.name === named.data)?.id ?? newId()
  try {
    await kept.putTemplate({
      id,
      name: named.data,
      order: props.run.steps.value.map(s => s.id),
      own: [...assembly.value.own],
    })
    templateName.value = ''
    set({ school: id })
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
async function removeTemplate(id: string) {
  try {
    await kept.removeTemplate(id)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <section aria-label="Order">
    <h2>Order</h2>
    <PickOne
      field="Way of building"
      :model-value="assembly.school"
      label="Way of building"
      :options="ways"
      @update:model-value="choose"
    />
    <p class="soft">
      {{ ownEntry(schools, assembly.school)?.words ?? 'Your own template.' }} What must come before comes before, in any order.
    </p>
    <p
      v-if="step"
      class="row"
    >
      <el-button @click="move(-1)">
        Step earlier
      </el-button><el-button @click="move(1)">
        Step later
      </el-button><el-button
        v-if="assembly.order.length > 0"
        link
        type="primary"
        @click="set({ order: [] })"
      >
        As it was
      </el-button>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <details>
      <summary>Steps of your own, templates</summary>
      <OneField
        v-model="draft.title"
        class="add"
        label="A step after this one"
        shown
        placeholder="weigh the bare frame"
        :maxlength="120"
        words="Add"
        @send="addOwn"
      />
      <ul v-if="assembly.own.length > 0">
        <li
          v-for="own in assembly.own"
          :key="own.id"
        >
          {{ own.title }} <el-button
            link
            type="primary"
            :aria-label="`Take out ${own.title}`"
            @click="removeOwn(own.id)"
          >
            Take out
          </el-button>
        </li>
      </ul>
      <template v-if="ownStep">
        <label class="field">Its words<EditField
          :value="ownStep.words"
          @change="changeOwn({ words: ($event.target as HTMLInputElement).value })"
        /></label>
        <PickOne
          field="It waits for"
          :model-value="ownStep.after[0] ?? ''"
          :options="run.steps.value.filter(s => s.id !== ownStep!.id).map((other) => ({ value: other.id, label: other.title }))"
          none="nothing"
          @update:model-value="changeOwn({ after: $event ? [$event] : [] })"
        />
      </template>
      <OneField
        v-model="templateName"
        class="add"
        label="Keep this order as a template"
        shown
        placeholder="my way"
        :maxlength="120"
        words="Keep"
        @send="keepTemplate"
      />
      <ul v-if="kept.templates.length > 0">
        <li
          v-for="template in kept.templates"
          :key="template.id"
        >
          {{ template.name }} <SureButton
            words="Delete"
            :aria-label="`Delete the template ${template.name}`"
            :question="`Delete the template “${template.name}”? Builds that follow it keep their order.`"
            @sure="removeTemplate(template.id)"
          />
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
.add {
  margin: 8px 0;
}
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
  margin: 6px 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
h2 {
  margin-bottom: 6px;
}
@media screen and (max-width: 760px) {
  button {
    min-height: 48px;
  }
}
</style>

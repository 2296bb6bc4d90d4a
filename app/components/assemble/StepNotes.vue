<script setup lang="ts">
import type { AssemblyRun } from '~/composables/useAssembly'
import { recordOf } from '#core/making/assembly'
import { readNumber, withoutUnit } from '#core/text/units'

const props = defineProps<{ run: AssemblyRun }>()
const store = useBuildStore()
const kept = useAssemblyStore()
const problem = ref('')
const record = computed(() => props.run.record.value!)
watch(
  () => record.value.stepId,
  () => {
    problem.value = ''
  },
)

/** A photo goes to the step it was taken for: the next one may be on view when it has come. */
function holdPhoto() {
  const [buildId, { stepId }] = [store.build!.id, record.value]
  return (id: string) => {
    if (store.build?.id !== buildId) throw new Error('The build of this photo is not open any more. It was not kept.')
    const { photoIds } = recordOf(props.run.assembly.value, stepId)
    if (!props.run.put({ photoIds: [...photoIds, id] }, stepId)) throw new Error(store.refusal)
  }
}
function photos(photoIds: readonly string[]) {
  problem.value = props.run.put({ photoIds: [...photoIds] }) ? '' : store.refusal
}
function minutes(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const read = text === '' ? { value: null } : readNumber(withoutUnit(text, 'min'))
  problem.value =
    'problem' in read
      ? read.problem
      : read.value !== null && (read.value < 0 || read.value > 6000)
        ? 'Minutes are from 0 to 6000.'
        : ''
  if ('value' in read && problem.value === '') props.run.put({ minutes: read.value })
}
</script>

<template>
  <section
    class="notes"
    aria-label="Notes of this step"
  >
    <label class="field">Note<EditField
      type="textarea"
      :value="record.note"
      :rows="3"
      maxlength="2000"
      @change="run.put({ note: ($event.target as HTMLInputElement).value })"
    /></label>
    <label class="field minutes">Minutes it took<EditField
      :value="record.minutes ?? ''"
      class="figure"
      inputmode="decimal"
      @change="minutes"
    /></label>
    <PictureRow
      :key="record.stepId"
      :of="run.step.value!.title"
      :ids="record.photoIds"
      :most="20"
      words="Add a photo"
      :path-of="id => kept.photoPath(store.build!.id, id)"
      :keep="(photo, signal) => kept.keepPhoto(store.build!.id, photo, signal)"
      :holder="holdPhoto"
      @change="photos"
    />
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
.notes {
  display: grid;
  gap: 10px;
}
.minutes {
  max-width: 140px;
}
</style>

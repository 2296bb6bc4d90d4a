<script setup lang="ts">
import type { AssemblyRun } from '~/composables/useAssembly'
import { readNumber, withoutUnit } from '#core/text/units'

const props = defineProps<{ run: AssemblyRun }>()
const store = useBuildStore()
const kept = useAssemblyStore()
const problem = ref('')
const sending = ref(false)
const record = computed(() => props.run.record.value!)
watch(
  () => record.value.stepId,
  () => {
    problem.value = ''
  },
)

async function addPhoto(event: Event) {
  const input = event.target as HTMLInputElement
  const photo = input.files?.[0]
  const stepId = record.value.stepId
  if (!photo) return
  problem.value = ''
  sending.value = true
  try {
    const id = await kept.keepPhoto(store.build!.id, photo)
    if (!props.run.put({ photoIds: [...record.value.photoIds, id] }, stepId)) problem.value = store.refusal
  } catch (error) {
    problem.value = sentenceOf(error)
  }
  sending.value = false
  input.value = ''
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
    <div class="photos">
      <figure
        v-for="id in record.photoIds"
        :key="id"
      >
        <a
          :href="kept.photoPath(store.build!.id, id)"
          target="_blank"
          rel="noopener"
        ><img
          :src="kept.photoPath(store.build!.id, id)"
          :alt="`Photo of ${run.step.value!.title}`"
          loading="lazy"
        ></a><el-button
          link
          type="primary"
          @click="run.put({ photoIds: record.photoIds.filter(other => other !== id) })"
        >
          Take out
        </el-button>
      </figure>
    </div>
    <label class="button photo">{{ sending ? 'Sending …' : 'Add a photo' }}<input
      type="file"
      accept="image/*"
      class="visually-hidden"
      :disabled="sending"
      @change="addPhoto"
    ></label>
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
.photos {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
figure {
  margin: 0;
  display: grid;
  justify-items: start;
}
img {
  width: 116px;
  height: 87px;
  object-fit: cover;
  border-radius: 6px;
  border: 1px solid var(--line);
}
.photo {
  justify-self: start;
  position: relative;
}
.photo:focus-within {
  outline: 2px solid var(--plum-text);
}
@media screen and (max-width: 760px) {
  .photo {
    min-height: 48px;
  }
}
</style>

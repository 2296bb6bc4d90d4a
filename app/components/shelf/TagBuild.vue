<script setup lang="ts">
import { mostTags } from '#core/model/data'

/** The builder's own words for a build, by which it is found. */
const { build, known } = defineProps<{
  build: { readonly id: string; readonly name: string; readonly tags: readonly string[] }
  known: readonly string[]
}>()
const emit = defineEmits<{ close: []; keep: [tags: string[]] }>()
const tags = ref([...build.tags])
const open = ref(true)
function keep() {
  emit('keep', tags.value.map(tag => tag.trim()).filter(tag => tag !== ''))
}
</script>

<template>
  <el-dialog
    v-model="open"
    :title="`Tags of ${build.name}`"
    width="min(460px, 94vw)"
    @closed="emit('close')"
  >
    <el-form @submit.prevent="keep">
      <FormField label="Tags">
        <el-select
          v-model="tags"
          multiple
          filterable
          allow-create
          default-first-option
          :multiple-limit="mostTags"
          :reserve-keyword="false"
          aria-label="Tags"
          placeholder="race, for sale"
        >
          <el-option
            v-for="tag in known"
            :key="tag"
            :value="tag"
            :label="tag"
          />
        </el-select>
      </FormField>
      <el-button
        native-type="submit"
        type="primary"
      >
        Keep
      </el-button>
    </el-form>
  </el-dialog>
</template>

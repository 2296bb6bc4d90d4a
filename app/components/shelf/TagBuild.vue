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
const others = computed(() => known.filter(tag => !tags.value.includes(tag)))
function keep() {
  emit('keep', [...new Set(tags.value)])
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
        <el-input-tag
          v-model="tags"
          :max="mostTags"
          delimiter=","
          aria-label="Tags"
          placeholder="race, for sale"
        />
      </FormField>
      <p
        v-if="others.length > 0"
        class="others"
      >
        <span class="muted">Used elsewhere:</span>
        <el-button
          v-for="tag in others"
          :key="tag"
          size="small"
          :disabled="tags.length >= mostTags"
          :aria-label="`Add ${tag}`"
          @click="tags = [...tags, tag]"
        >
          {{ tag }}
        </el-button>
      </p>
      <el-button
        native-type="submit"
        type="primary"
      >
        Keep
      </el-button>
    </el-form>
  </el-dialog>
</template>

<style scoped>
.others {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.4rem;
}
.others .el-button {
  margin: 0;
}
</style>

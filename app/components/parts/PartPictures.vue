<script setup lang="ts">
import { mostPictures } from '#core/slices/lines'

/** Pictures of a part, of a build or of the drawer. */
defineProps<{ of: string; ids: readonly string[]; holder: () => (id: string) => unknown }>()
const emit = defineEmits<{ change: [ids: readonly string[]] }>()
</script>

<template>
  <PictureRow
    :of="of"
    :ids="ids"
    :most="mostPictures"
    words="Add a picture"
    :path-of="id => `/api/pictures/${id}`"
    :keep="(file, signal) => keepPicture('/api/pictures', file, signal)"
    :holder="holder"
    @change="emit('change', $event)"
  />
</template>

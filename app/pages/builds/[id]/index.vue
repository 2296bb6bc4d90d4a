<script setup lang="ts">
const route = useRoute()
await navigateTo({ path: `/builds/${route.params.id}/parts`, query: route.query }, { replace: true })
</script>

<template>
  <main class="worksheet" />
</template>

<script setup lang="ts">
useHead({ title: 'Jolly Gram' })
</script>

<template>
  <main class="page lost">
    <h1>There is nothing at this address.</h1>
    <NuxtLink
      to="/"
      class="button first"
    >Back to the Shelf</NuxtLink>
  </main>
</template>

<style scoped>
.lost {
  padding-top: 18vh;
  text-align: center;
}
.lost h1 {
  margin-bottom: 14px;
}
</style>

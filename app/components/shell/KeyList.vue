<script setup lang="ts">
import { keyList } from '~/keys/list'

const { keysOpen } = useShell()
const tour = useTour()
const list = keyList()
</script>

<template>
  <el-dialog
    v-model="keysOpen"
    title="Keys"
    width="min(560px, 94vw)"
  >
    <p class="soft">
      Single keys act when no cell or field is being edited. They can be switched off in Settings.
      What the words mean stands in the <NuxtLink
        to="/glossary"
        @click="keysOpen = false"
      >Glossary</NuxtLink>.
      <el-button
        v-if="tour.canBegin.value"
        link
        type="primary"
        @click="keysOpen = false; tour.begin()"
      >
        Take the tour
      </el-button>
    </p>
    <template
      v-for="{ place, rows } in list"
      :key="place"
    >
      <h3>{{ place }}</h3>
      <dl>
        <template
          v-for="[key, what] in rows"
          :key="`${key} ${what}`"
        >
          <dt><kbd>{{ key }}</kbd></dt><dd>{{ what }}</dd>
        </template>
      </dl>
    </template>
  </el-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 148px 1fr;
  row-gap: 5px;
  margin: 4px 0;
}
dt {
  white-space: nowrap;
}
dd {
  margin: 0;
}
</style>

<script setup lang="ts">
import { connectors } from '#core/aircraft/power'
import { plugNamesId } from '~/utils/plug-names'
</script>

<template>
  <datalist :id="plugNamesId">
    <option
      v-for="one in connectors"
      :key="one.connector"
      :value="one.connector"
    >
      bears {{ one.continuousA }} A, {{ one.burstA }} A in bursts
    </option>
  </datalist>
</template>

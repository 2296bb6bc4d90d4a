<template>
  <tr>
    <th
      colspan="9"
      scope="rowgroup"
    >
      <slot />
    </th>
  </tr>
</template>

<style scoped>
th {
  background: var(--paper);
  font-size: 12px;
  padding: 5px 8px;
  text-align: left;
}
</style>

<script setup lang="ts">
import { fixedColumn, plainLayout, withHidden, type ColumnLayout } from '#shared/sheet/column-layout'
import { drawerColumns } from '#shared/sheet/drawer-cells'

/** Which columns the drawer shows. */
const layout = defineModel<ColumnLayout>({ required: true })
const isPlain = computed(
  () =>
    layout.value.hidden.length === 0 &&
    layout.value.sorts.length === 0 &&
    Object.keys(layout.value.widths).length === 0,
)
</script>

<template>
  <el-popover
    trigger="click"
    placement="bottom-end"
    :width="200"
    :show-arrow="false"
    popper-class="column-chooser"
  >
    <template #reference>
      <el-button>Columns</el-button>
    </template>
    <el-checkbox
      v-for="column in drawerColumns"
      :key="column"
      :model-value="!layout.hidden.includes(column)"
      :disabled="column === fixedColumn"
      @change="layout = withHidden(layout, column, !layout.hidden.includes(column))"
    >
      {{ drawerTitles[column] }}
    </el-checkbox>
    <el-button
      link
      type="primary"
      :disabled="isPlain"
      @click="layout = plainLayout"
    >
      As they were
    </el-button>
  </el-popover>
</template>

<style scoped>
.el-checkbox {
  display: flex;
  margin: 0;
}
.el-button.is-link {
  margin-top: 6px;
}
</style>

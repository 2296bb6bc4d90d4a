<script setup lang="ts">
const { keysOpen } = useShell()
const keys: [string, string][] = [
  [
    stations.map(station => station.key).join(' '),
    `${stations.map(station => station.name).join(', ')} of the open build`,
  ],
  ['W', 'weigh'],
  ['/', 'find a build, line, pack, card or station'],
  ['N', 'new line; on the Shelf: start a build'],
  ['Z', 'take back the last change'],
  ['Shift Z', 'do it again'],
  ['?', 'this list'],
]
const weighKeys: [string, string][] = [
  ['Space', 'take the reading'],
  ['T', 'zero the scale'],
  ['C', 'several pieces: one, all together, one after another'],
  ['→ ←', 'skip to the next line, back to the one before'],
  ['B', 'weigh the last one again'],
]
const sheetKeys: [string, string][] = [
  ['↑ ↓ ← →', 'move between cells'],
  ['Enter, typing', 'edit the cell'],
  ['Tab, Enter', 'keep what was typed and move on'],
  ['Esc', 'leave it as it was'],
  ['17.02 w', 'grams with how they are known: w weighed, l listed, o worked out, ~ guess'],
  ['6.91 6.88 6.97', 'several pieces weighed one by one, in “Each”'],
  ['Delete', 'take the line off, or bring it back'],
  ['Alt ↑ ↓', 'move the line'],
  ['Ctrl D', 'duplicate'],
  ['Ctrl V', 'paste rows from a spreadsheet'],
  ['Ctrl Z', 'take back'],
]
const stepKeys: [string, string][] = [
  ['→ ←', 'Assemble: next step, the one before'],
  ['D', 'Assemble: tick the step; Shave: do the next one'],
]
</script>

<template>
  <el-dialog
    v-model="keysOpen"
    title="Keys"
    width="min(560px, 94vw)"
  >
    <p class="soft">
      Single keys act when no cell or field is being edited. They can be switched off in Settings.
    </p>
    <h3>Everywhere</h3>
    <dl>
      <template
        v-for="[key, what] in keys"
        :key="key"
      >
        <dt><kbd>{{ key }}</kbd></dt><dd>{{ what }}</dd>
      </template>
    </dl>
    <h3>At the scale</h3>
    <dl>
      <template
        v-for="[key, what] in weighKeys"
        :key="key"
      >
        <dt><kbd>{{ key }}</kbd></dt><dd>{{ what }}</dd>
      </template>
    </dl>
    <h3>At a step</h3>
    <dl>
      <template
        v-for="[key, what] in stepKeys"
        :key="key"
      >
        <dt><kbd>{{ key }}</kbd></dt><dd>{{ what }}</dd>
      </template>
    </dl>
    <h3>In the sheet</h3>
    <dl>
      <template
        v-for="[key, what] in sheetKeys"
        :key="key"
      >
        <dt><kbd>{{ key }}</kbd></dt><dd>{{ what }}</dd>
      </template>
    </dl>
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

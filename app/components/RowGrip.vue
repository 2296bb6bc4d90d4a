<template>
  <i
    class="grip"
    title="Drag to another place; Alt ↑ ↓ does the same"
    aria-hidden="true"
  />
</template>

<style scoped>
.grip {
  display: inline-block;
  flex: none;
  width: 14px;
  height: 18px;
  cursor: grab;
  opacity: 0.55;
  background: radial-gradient(circle, var(--ink-soft) 1.2px, transparent 1.6px) 2px 1px / 5px 5px;
  touch-action: none;
}
.grip:hover {
  opacity: 1;
}
</style>

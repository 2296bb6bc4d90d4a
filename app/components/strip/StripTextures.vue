<template>
  <!-- Evidence as texture; weighed is solid. Shared by every strip on the page. -->
  <svg
    width="0"
    height="0"
    class="defs"
    aria-hidden="true"
  >
    <defs>
      <pattern
        id="texture-listed"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      ><rect
        width="2.2"
        height="6"
        class="ink"
      /></pattern>
      <pattern
        id="texture-worked"
        width="5"
        height="5"
        patternUnits="userSpaceOnUse"
      ><rect
        width="5"
        height="1.4"
        class="ink"
      /></pattern>
      <pattern
        id="texture-typical"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      ><rect
        width="1.5"
        height="6"
        class="ink"
      /><rect
        width="6"
        height="1.5"
        class="ink"
      /></pattern>
      <pattern
        id="texture-guess"
        width="5"
        height="5"
        patternUnits="userSpaceOnUse"
      ><circle
        cx="2.5"
        cy="2.5"
        r="1.4"
        class="ink"
      /></pattern>
      <pattern
        id="texture-twin"
        width="12"
        height="12"
        patternUnits="userSpaceOnUse"
      ><circle
        cx="3"
        cy="3"
        r="2.1"
        class="ring"
      /><circle
        cx="9"
        cy="9"
        r="2.1"
        class="ring"
      /></pattern>
      <pattern
        id="texture-guard"
        width="5"
        height="5"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      ><rect
        width="1.6"
        height="5"
        class="guard"
      /></pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs {
  position: absolute;
}
.ink {
  fill: var(--texture);
  opacity: 0.62;
}
.ring {
  fill: none;
  stroke: var(--texture);
  stroke-width: 1.1;
  opacity: 0.5;
}
.guard {
  fill: var(--close);
  opacity: 0.6;
}
</style>

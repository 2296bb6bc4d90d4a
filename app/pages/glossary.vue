<script setup lang="ts">
import { glossary, termId, type Term } from '#core/text/glossary'

useHead({ title: 'Glossary · Jolly Gram' })
// Nothing on the page can be clicked: by keyboard it is scrolled from its own focus.
const parts: readonly { about: string; terms: readonly Term[] }[] = glossary
</script>

<template>
  <main
    class="page narrow"
    tabindex="0"
  >
    <div class="page-head">
      <h1>Glossary</h1><span class="soft">the words of the trade, as they are meant here</span>
    </div>
    <section
      v-for="{ about, terms } in parts"
      :key="about"
      class="panel"
    >
      <h2>{{ about }}</h2>
      <dl>
        <div
          v-for="term in terms"
          :id="termId(term.word)"
          :key="term.word"
        >
          <dt>{{ term.word }}<small v-if="term.also">, {{ term.also.join(', ') }}</small></dt>
          <dd>{{ term.says }}</dd>
        </div>
      </dl>
    </section>
  </main>
</template>

<style scoped>
.narrow {
  max-width: 820px;
}
dl {
  margin: 4px 0 0;
}
dl > div {
  display: grid;
  grid-template-columns: 180px 1fr;
  gap: 4px 16px;
  padding: 7px 0;
  border-top: 1px solid var(--line);
}
dl > div:target {
  background: var(--selection);
  box-shadow: -8px 0 var(--selection), 8px 0 var(--selection);
}
dt {
  font-weight: 600;
}
dt small {
  font-weight: 400;
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
@media screen and (max-width: 760px) {
  dl > div {
    grid-template-columns: 1fr;
  }
}
</style>

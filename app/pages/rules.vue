<script setup lang="ts">
import { cardName, cardStanding, countingSentences, limitInWords, type RuleCard } from '#core/limits/rules'

const rules = useRulesStore()
const editing = ref(false)
const everEdited = ref(false)
watch(editing, () => {
  everEdited.value = true
})
const shown = shallowRef<RuleCard | null>(null)
const editedId = ref<string | null>(null)
const problem = ref('')
const today = localDay()
const route = useRoute()
useHead({ title: 'Rules · Jolly Gram' })

rules
  .load()
  .then(async () => {
    await nextTick()
    if (route.hash) document.getElementById(route.hash.slice(1))?.scrollIntoView({ block: 'center' })
  })
  .catch(error => {
    problem.value = sentenceOf(error)
  })

const due = computed(() => rules.cards.filter(card => cardStanding(card, today).reminder))
function edit(card: RuleCard | null, id: string | null) {
  shown.value = card
  editedId.value = id
  editing.value = true
}
async function tryTo(work: () => Promise<void>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
const verify = (id: string, day: string) => tryTo(() => rules.verify(id, day || null))
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>Rules</h1><span class="soft">every threshold with its exact wording</span><span class="gap" /><el-button
        type="primary"
        @click="edit(null, null)"
      >
        A card of your own
      </el-button>
    </div>
    <p class="note">
      A planning aid and not legal advice. The starting cards are from the published texts as remembered in November
      2026; rules change. Confirm each with your aviation authority and put the date on it.
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p
      v-for="card in due"
      :key="card.id"
      class="note"
      role="status"
    >
      <b>{{ cardName(card) }}</b>: {{ cardStanding(card, today).words }}.
    </p>
    <div class="cards">
      <article
        v-for="card in rules.cards"
        :id="card.id"
        :key="card.id"
        class="panel"
      >
        <header>
          <div>
            <h2>{{ card.place }}</h2><span class="soft">{{
              card.purpose === 'any' ? 'any purpose' : card.purpose
            }}</span>
          </div><div class="limit figure">
            {{ limitInWords(card) }}
          </div>
        </header>
        <p>
          Counts {{ countingSentences[card.counts] }}; {{ cardStanding(card, today).words }}.
          <span class="soft">{{ card.source }}</span>
        </p>
        <div class="lists">
          <div v-if="card.within.length">
            <h3>Within</h3><ul>
              <li
                v-for="p in card.within"
                :key="p"
              >
                {{ p }}
              </li>
            </ul>
          </div>
          <div v-if="card.beyond.length">
            <h3>Beyond</h3><ul>
              <li
                v-for="p in card.beyond"
                :key="p"
              >
                {{ p }}
              </li>
            </ul>
          </div>
          <div
            v-if="card.always.length || card.conditions.length"
            class="always"
          >
            <h3>Always</h3><ul>
              <li
                v-for="p in [...card.conditions, ...card.always]"
                :key="p"
              >
                {{ p }}
              </li>
            </ul>
          </div>
        </div>
        <footer>
          <DayField
            inline
            :field="card.verifiedOn ? 'Verified by you on' : 'Not verified by you yet'"
            :label="`${cardName(card)} verified on`"
            :model-value="card.verifiedOn ?? ''"
            :latest="today"
            @update:model-value="verify(card.id, $event)"
          />
          <span>
            <el-button
              v-if="!card.own"
              link
              type="primary"
              @click="edit({ ...card, place: `${card.place} (own copy)` }, null)"
            >Copy and edit</el-button>
            <template v-else><el-button
              link
              type="primary"
              @click="edit(card, card.id)"
            >Edit</el-button><SureButton
              words="Delete"
              :question="`Delete your card “${cardName(card)}”? It does not come back.`"
              @sure="tryTo(() => rules.remove(card.id))"
            /></template>
          </span>
        </footer>
      </article>
    </div>
    <LazyCardEditor
      v-if="everEdited"
      :id="editedId"
      v-model="editing"
      :card="shown"
    />
  </main>
</template>

<style scoped>
.cards {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  margin-top: 14px;
}
.panel {
  margin: 0;
  display: flex;
  flex-direction: column;
  scroll-margin: 60px;
}
.panel:target {
  border-color: var(--plum-text);
}
header {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
}
.limit {
  font-size: 14px;
  white-space: nowrap;
}
.lists {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  flex: 1;
}
.always {
  grid-column: 1 / -1;
}
.lists h3 {
  margin: 4px 0;
}
ul {
  margin: 0;
  padding-left: 16px;
  font-size: 12.5px;
}
footer {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  margin-top: 12px;
  font-size: 12.5px;
  color: var(--ink-soft);
}
@media screen and (max-width: 900px) {
  .cards {
    grid-template-columns: 1fr;
  }
  footer,
  header {
    flex-wrap: wrap;
  }
}
</style>

<script setup lang="ts">
import { gramsWithSpread, headroomWords, sureWords } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import { cardName, cardStanding, countingSentences, limitInWords, whateverItWeighs } from '#core/limits/rules'
import { judgementWord, judgeUnderCard, type CardJudgement } from '#core/mass/report'

const store = useBuildStore()
const today = localDay()
const rules = useRulesStore()
/** The chosen cards that count, and those of the answers that ask the same whatever it weighs, ticked or not. */
const judgements = computed(() => {
  const counted = store.overview!.judgements
  const also = whateverItWeighs(rules.cards, store.build!.aim).filter(card => !counted.some(j => j.card.id === card.id))
  return [...also.map(card => judgeUnderCard(store.build!, store.choice, card, store.estimates)), ...counted]
})
const binding = computed(() => store.overview!.binding)

function follows(judgement: CardJudgement): { heading: string; points: readonly string[] }[] {
  const word = judgement.verdict?.word
  if (judgement.limitG === null) return [{ heading: 'Asked whatever it weighs', points: judgement.card.beyond }]
  const within = { heading: 'Within the limit', points: judgement.card.within }
  const beyond = { heading: 'Beyond it', points: judgement.card.beyond }
  return word === 'Over' ? [beyond, within] : [within, beyond]
}
const why = computed(() => {
  if (!binding.value?.verdict || judgements.value.filter(j => j.verdict).length < 2) return ''
  const bound = binding.value.verdict
  const equal = judgements.value.some(
    j =>
      j !== binding.value && j.verdict?.word === bound.word && Math.abs(j.verdict.headroomG - bound.headroomG) < 1e-9,
  )
  if (equal) return 'More than one of the chosen cards leaves the same, least room.'
  return `${cardName(binding.value.card)} binds: of the chosen cards it leaves the least room for what it counts.`
})
</script>

<template>
  <section aria-label="What applies">
    <p
      v-if="judgements.length === 0"
      class="panel soft"
    >
      {{
        store.build!.reference
          ? referenceNotJudged
          : 'Choose at least one rule card, and this page says what applies to this build.'
      }}
    </p>
    <p v-if="why">
      <b>{{ why }}</b>
    </p>
    <article
      v-for="judgement in judgements"
      :key="judgement.card.id"
      class="path"
      :class="{ binding: judgement === binding, whatever: judgement.limitG === null }"
    >
      <ol>
        <li>
          <span class="soft">You fly in</span> <b>{{ judgement.card.place }}</b>{{
            judgement.card.purpose && judgement.card.purpose !== 'any' ? `, ${judgement.card.purpose}` : ''
          }}
          <small class="soft"> ({{ cardStanding(judgement.card, today).words }}; {{ judgement.card.source }})</small>
        </li>
        <li>
          <span class="soft">The card asks for</span> <b>{{ limitInWords(judgement.card) }}</b>, counting
          {{ countingSentences[judgement.card.counts] }}
        </li>
        <li v-if="judgement.verdict">
          <span class="soft">This build has</span> <b class="figure">{{
            gramsWithSpread(judgement.massG, judgement.sigmaG * coverageFactor95, judgement.limitG)
          }}</b> <VerdictMark :word="judgement.verdict.word" /> <span class="soft">{{
            headroomWords(judgement.verdict.headroomG, judgement.sigmaG * coverageFactor95)
          }},
            {{ sureWords(judgement.verdict, store.build!.aim.confidence) }}</span>
        </li>
        <li
          v-else-if="judgement.limitG !== null"
          class="soft"
        >
          {{ judgementWord(judgement) }}
        </li>
        <li
          v-for="condition in judgement.card.conditions"
          :key="condition"
        >
          <span class="soft">Also required:</span> {{ condition }}
        </li>
      </ol>
      <div class="follow">
        <div
          v-for="(part, i) in follows(judgement)"
          :key="part.heading"
          :class="{ 'other': judgement.limitG !== null && i === 1, 'word-over': judgement.limitG === null }"
        >
          <h3>{{ part.heading }}</h3><ul>
            <li
              v-for="point in part.points"
              :key="point"
            >
              {{ point }}
            </li><li
              v-if="part.points.length === 0"
              class="soft"
            >
              nothing noted
            </li>
          </ul>
        </div>
        <div>
          <h3>Always</h3><ul>
            <li
              v-for="point in judgement.card.always"
              :key="point"
            >
              {{ point }}
            </li>
          </ul>
        </div>
      </div>
      <p class="soft">
        {{
          judgement.card.verifiedOn
            ? `Verified by you on ${judgement.card.verifiedOn}.`
            : 'Not verified by you yet: confirm it with your aviation authority, then set the date in Rules.'
        }}
      </p>
    </article>
    <p class="note">
      This is a planning aid and not legal advice. Rules change: confirm with your aviation authority before you fly.
    </p>
  </section>
</template>

<style scoped>
.path {
  border: 1px solid var(--line);
  border-radius: 10px;
  padding: 10px 16px 6px;
  margin-bottom: 12px;
}
.path.binding {
  border-color: var(--plum-text);
}
.path.whatever {
  border-color: var(--over);
}
ol {
  margin: 0;
  padding-left: 18px;
}
ol li {
  padding: 2px 0;
}
ol .mark {
  margin: 0 4px;
}
ol li::marker {
  color: var(--ink-soft);
  font: 500 12px var(--mono);
}
.follow {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 18px;
}
.follow h3 {
  margin-top: 10px;
}
.follow ul {
  margin: 0;
  padding-left: 16px;
  font-size: 12.5px;
}
.other {
  color: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .follow {
    grid-template-columns: 1fr;
    gap: 0;
  }
  .follow ul {
    font-size: 15px;
  }
}
</style>

<script setup lang="ts">
import { gramsWithSpread } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import { allLoadouts, defaultLoadout, loadoutMasses, loadoutName, sameLoadout } from '#core/mass/loadout'
import { bindingJudgement, chosenCards, judgeUnderCard } from '#core/mass/report'
import type { LoadoutChoice } from '#core/model/ledger'

const emit = defineEmits<{ close: [] }>()
const store = useBuildStore()
const rules = useRulesStore()
const router = useRouter()
const route = useRoute()
const panel = useTemplateRef<HTMLDivElement>('panel')
onMounted(() => panel.value?.querySelector<HTMLInputElement>('input:checked')?.focus())
onClickOutside(panel, () => emit('close'), { ignore: ['.loadout'] })

const rows = computed(() => {
  const build = store.build!
  const cards = chosenCards(build, rules.cards)
  return loadoutMasses(build, allLoadouts(build), store.estimates).map(({ choice, massG, sigmaG }) => ({
    choice,
    key: `${choice.setupId}.${choice.packLineId ?? ''}`,
    name: loadoutName(build, choice),
    mass: gramsWithSpread(massG, sigmaG * coverageFactor95),
    word:
      bindingJudgement(cards.map(card => judgeUnderCard(build, choice, card, store.estimates)))?.verdict?.word ?? null,
    flown: sameLoadout(choice, defaultLoadout(build)),
    never: build.neverFlown.some(c => sameLoadout(c, choice)),
    viewed: sameLoadout(choice, store.choice),
  }))
})

function view(choice: LoadoutChoice) {
  store.viewed = choice
  router.replace({ query: { ...route.query, with: `${choice.setupId}.${choice.packLineId ?? ''}` } })
}
function fly() {
  if (store.run({ type: 'loadout.fly', choice: store.choice })) emit('close')
}
</script>

<template>
  <div
    ref="panel"
    class="chooser"
    @keydown.esc="emit('close')"
  >
    <table>
      <caption class="visually-hidden">
        Loadouts
      </caption>
      <thead>
        <tr>
          <th><TermTip word="Loadout" /></th><th class="right">
            <TermTip word="AUW">
              All-up
            </TermTip>
          </th><th><TermTip word="Verdict" /></th><th>Never flown</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.key"
          :class="{ viewed: row.viewed, never: row.never }"
        >
          <td>
            <el-radio
              :model-value="rows.find(one => one.viewed)?.key"
              :value="row.key"
              name="loadout"
              @change="view(row.choice)"
            >
              {{ row.name }}<span
                v-if="row.flown"
                class="soft"
              >&nbsp;· as I fly it</span>
            </el-radio>
          </td>
          <td class="right figure">
            {{ row.mass }}
          </td>
          <td>
            <VerdictMark
              v-if="row.word"
              :word="row.word"
            />
          </td>
          <td class="centre">
            <el-checkbox
              :model-value="row.never"
              :aria-label="`${row.name} is never flown`"
              @change="store.run({ type: 'loadout.never', choice: row.choice, never: !row.never })"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <div class="foot">
      <NuxtLink
        :to="`/builds/${store.build!.id}/packs`"
        @click="emit('close')"
      >Every way to fly it</NuxtLink>
      <el-button
        type="primary"
        :disabled="rows.some(r => r.viewed && r.flown)"
        @click="fly"
      >
        Make it the way I fly
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.chooser {
  position: absolute;
  top: calc(100% - 8px);
  left: 14px;
  z-index: 30;
  background: var(--card);
  border: 1px solid var(--edge);
  border-radius: 10px;
  padding: 10px 14px;
  box-shadow: 0 8px 28px #2a233333;
  max-width: calc(100% - 28px);
  max-height: 60vh;
  overflow: auto;
}
table {
  border-collapse: collapse;
}
th {
  font-weight: 500;
  font-size: 11.5px;
  color: var(--ink-soft);
  text-align: left;
}
td,
th {
  padding: 4px 12px 4px 4px;
}
.right {
  text-align: right;
  white-space: nowrap;
}
.centre {
  text-align: center;
}
tr.viewed td {
  background: var(--selection);
}
tr.never label {
  text-decoration: line-through;
  opacity: 0.7;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  margin-top: 10px;
  font-size: 12.5px;
}
</style>

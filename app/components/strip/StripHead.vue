<script setup lang="ts">
import { ArrowDown } from '@element-plus/icons-vue'
import { judgementWord } from '#core/mass/report'
import { decimalsFor, fixed, gramsFigure, headroomWords, reserveWords } from '#core/text/display'
import { cardName, whateverItWeighs } from '#core/limits/rules'
import { spreadG } from '#core/maths/estimate'
import { inNoSetup, isOnPurpose, loadoutName } from '#core/mass/loadout'

const store = useBuildStore()
const rules = useRulesStore()
const route = useRoute()
const choosing = ref(false)

const overview = computed(() => store.overview!)
const verdict = computed(() => overview.value.binding?.verdict ?? null)
/** The limit the whole weight is held against; another mass than the whole is said beside. */
const besideG = computed(() =>
  overview.value.binding && Math.abs(overview.value.binding.massG - overview.value.massG) < 1e-9
    ? overview.value.binding.limitG
    : null,
)
const reserveMissed = computed(() => reserveWords(overview.value.intoReserveG))
const onPurpose = computed(() => verdict.value?.word === 'Over' && isOnPurpose(store.build!, store.choice))
/** Which lines have no grams, the first two by name. */
const openNames = computed(() => {
  const open = overview.value.counted.filter(line => !line.mass).map(lineTitle)
  return `${open.slice(0, 2).join(' and ')}${open.length > 2 ? ` and ${open.length - 2} more` : ''}`
})
const action = computed(() => {
  if (overview.value.openLines > 0)
    return `${openNames.value} ${overview.value.openLines === 1 ? 'has' : 'have'} no grams yet: the total cannot be called clear.`
  if (!store.narrowing) return ''
  return verdict.value?.word === 'Too close to call' ? narrowingWords(store.narrowing, true) : ''
})

/** Duties that do not depend on weight: no headroom does away with them. */
const whatever = computed(() => whateverItWeighs(rules.cards, store.build!.aim))

/** What is fitted and flies in no set-up: counted nowhere. */
const left = computed(() => inNoSetup(store.build!))
const leftWords = computed(() => {
  const named = left.value
    .slice(0, 2)
    .map(
      line =>
        `${lineTitle(line)}${line.mass ? `, ${gramsFigure(store.estimates.of(line).valueG, spreadG(store.estimates.of(line)))} g,` : ''}`,
    )
  const more = left.value.length - named.length
  return `${named.join(' and ')}${more > 0 ? ` and ${more} more` : ''} ` +
    `${left.value.length === 1 ? 'flies' : 'fly'} in no set-up and ` +
    `${left.value.length === 1 ? 'is' : 'are'} not counted.`
})
const setupName = computed(() => store.build!.setups.find(s => s.id === store.choice.setupId)?.name ?? '')
function join() {
  const setup = store.build!.setups.find(s => s.id === store.choice.setupId)
  if (setup)
    store.run({
      type: 'setup.put',
      setup: { ...setup, lineIds: [...setup.lineIds, ...left.value.map(line => line.id)] },
    })
}

function pick(lineId: string) {
  store.selectedId = lineId
  const path = `/builds/${store.build!.id}/parts`
  if (route.path !== path) navigateTo({ path, query: { ...route.query, line: lineId } })
}
</script>

<template>
  <StripFrame
    :overview="overview"
    :beside-g="besideG"
    test="auw"
    aria-label="All-up weight"
  >
    <template #verdict>
      <VerdictMark
        v-if="verdict"
        :word="verdict.word"
        filled
        data-test="verdict"
      />
      <span
        v-else-if="overview.binding"
        class="soft"
        data-test="no-craft"
      >{{ judgementWord(overview.binding) }}</span>
      <NuxtLink
        v-else
        :to="`/builds/${store.build!.id}/aim`"
      >Choose a limit</NuxtLink>
      <span
        v-if="verdict"
        data-test="headroom"
      >{{ headroomWords(verdict.headroomG, overview.spreadG) }}{{ onPurpose ? ', on purpose' : '' }}</span>
    </template>
    <template #loadout>
      <el-button
        link
        type="primary"
        class="loadout"
        :aria-expanded="choosing"
        aria-controls="loadout-chooser"
        @click="choosing = !choosing"
      >
        {{ loadoutName(store.build!, store.choice) }}<el-icon><ArrowDown /></el-icon>
      </el-button>
    </template>
    <MassStrip
      :overview="overview"
      :estimates="store.estimates"
      :selected-id="store.selectedId"
      @pick="pick"
    />
    <p class="under">
      <span
        v-if="left.length > 0"
        class="action"
        data-test="in-no-setup"
      >{{ leftWords }} <el-button
        link
        type="primary"
        @click="join"
      >Put {{ left.length === 1 ? 'it' : 'them' }} into “{{ setupName }}”</el-button> <el-button
        link
        type="primary"
        @click="pick(left[0]!.id)"
      >Look at {{ left.length === 1 ? 'it' : 'the first' }}</el-button></span>
      <span
        v-for="card in whatever"
        :key="card.id"
        class="action word-over"
        data-test="whatever"
      >{{ cardName(card) }}: asked whatever it weighs. <NuxtLink :to="`/builds/${store.build!.id}/aim`">See Aim</NuxtLink></span>
      <span
        v-if="action"
        class="action"
        data-test="action"
      >{{ action }}</span>
      <span
        v-if="reserveMissed"
        class="soft"
        data-test="reserve"
      >Clear, {{ reserveMissed }}.</span>
      <InOunces :grams="overview.massG" />
      <span
        v-if="overview.binding && Math.abs(overview.binding.massG - overview.massG) > 0.005"
        class="soft"
        data-test="counted"
      ><template v-if="overview.binding.heaviest">The binding card looks at all you allow:
        {{ loadoutName(store.build!, overview.binding.heaviest) }} decides with</template><template v-else>The binding
        card counts</template> {{ fixed(overview.binding.massG, decimalsFor(overview.spreadG)) }} g.</span>
    </p>
    <template #over>
      <LoadoutChooser
        v-if="choosing"
        id="loadout-chooser"
        @close="choosing = false"
      />
    </template>
  </StripFrame>
</template>

<style scoped>
.loadout {
  font-size: 12px;
  font-weight: 500;
  margin: 2px 0 0 -4px;
  max-width: 200px;
  overflow: hidden;
  text-overflow: ellipsis;
  display: block;
  text-align: left;
  min-height: 0;
}
.action {
  font-weight: 600;
}
@media screen and (max-width: 760px) {
  .loadout {
    font-size: 14px;
    min-height: 32px;
    max-width: 100%;
  }
}
</style>

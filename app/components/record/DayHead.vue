<script setup lang="ts">
import { judgementWord } from '#core/mass/report'
import { gramsFigure, headroomWords } from '#core/text/display'
import { loadoutName } from '#core/mass/loadout'

/** The head of a build that is looked at as it was on another day: the same figures, on the ground of the past. */
const looking = useLookingBackStore()
const route = useRoute()
const router = useRouter()
const overview = computed(() => looking.overview!)
const verdict = computed(() => overview.value.binding?.verdict ?? null)
function back() {
  looking.leave()
  void router.replace({ query: { ...route.query, at: undefined } })
}
</script>

<template>
  <StripFrame
    :overview="overview"
    :beside-g="null"
    test="auw-then"
    past
    aria-label="All-up weight on another day"
  >
    <template #verdict>
      <VerdictMark
        v-if="verdict"
        :word="verdict.word"
        filled
      />
      <span
        v-else-if="overview.binding"
        class="soft"
      >{{ judgementWord(overview.binding) }}</span>
      <span v-if="verdict">{{ headroomWords(verdict.headroomG, overview.spreadG) }}</span>
    </template>
    <template #loadout>
      <div class="loadout soft">
        {{ loadoutName(looking.state!.build, overview.choice) }}
      </div>
    </template>
    <MassStrip
      :overview="overview"
      :estimates="looking.compared!.estimates"
      :selected-id="null"
    />
    <p class="under">
      <span>As it was on <b>{{ momentWords(looking.state!.at) }}</b></span>
      <el-button
        size="small"
        @click="back"
      >
        Back to today
      </el-button>
      <span
        v-if="looking.todayOverview"
        class="soft"
        data-test="auw-today"
      >today {{ gramsFigure(looking.todayOverview.massG, looking.todayOverview.spreadG) }} g</span>
    </p>
  </StripFrame>
</template>

<style scoped>
.loadout {
  font-size: 12px;
  margin-top: 3px;
}
</style>

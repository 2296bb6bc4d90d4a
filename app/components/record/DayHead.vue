<script setup lang="ts">
import { judgementWord } from '#core/mass/report'
import { gramsFigure, headroomWords, spreadFigure } from '#core/text/display'
import { loadoutName } from '#core/mass/loadout'

/** The head of a build that is looked at as it was on another day: the same figures, on the ground of the past. */
const looking = useLookingBackStore()
const store = useBuildStore()
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
  <section
    class="day-head"
    aria-label="All-up weight on another day"
  >
    <div class="block">
      <div
        class="value figure"
        data-test="auw-then"
      >
        {{ gramsFigure(overview.massG, overview.spreadG) }}<small> g<template v-if="overview.spreadG > 0"> ±
          {{ spreadFigure(overview.spreadG) }}</template></small>
      </div>
      <div class="verdict">
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
      </div>
      <div class="loadout soft">
        {{ loadoutName(looking.state!.build, overview.choice) }}
      </div>
    </div>
    <div class="chart">
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
          v-if="store.overview"
          class="soft"
        >today {{ gramsFigure(store.overview.massG, store.overview.spreadG) }} g</span>
      </p>
    </div>
  </section>
</template>

<style scoped>
.day-head {
  background: var(--note);
  border-bottom: 3px solid var(--brass);
  padding: 10px 18px 4px;
  display: flex;
  gap: 22px;
  min-height: 112px;
  flex: none;
}
.block {
  width: 192px;
  flex: none;
}
.value {
  font-size: 34px;
  line-height: 1;
  letter-spacing: -1.5px;
  white-space: nowrap;
}
.value small {
  font-size: 15px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.verdict {
  margin-top: 7px;
  font-size: 13px;
  display: flex;
  gap: 7px;
  align-items: center;
  white-space: nowrap;
}
.loadout {
  font-size: 12px;
  margin-top: 3px;
}
.chart {
  flex: 1;
  min-width: 0;
  padding-top: 2px;
}
.under {
  margin: 2px 0 0;
  font-size: 12.5px;
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
@media screen and (max-width: 760px) {
  .day-head {
    flex-direction: column;
    gap: 8px;
    padding: 10px 14px;
  }
  .block {
    width: auto;
  }
}
</style>

<script setup lang="ts">
import { fixed } from '#core/text/display'
import { ArrowDown, ArrowRight } from '@element-plus/icons-vue'
import { cardName } from '#core/limits/rules'
import { styles, usualCutOffV, type FlightPlan, type Style } from '#core/aircraft/power'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'
import { flyingShape } from '#core/slices/flying'

const store = useBuildStore()
const rules = useRulesStore()
const { plan, cards } = useLoadouts()
const problem = ref('')

type Measured = 'altitudeM' | 'temperatureC' | 'reservePercent' | 'endCellV' | 'warnCellV' | 'efficiency'
function set(fields: Partial<FlightPlan>) {
  return store.run({ type: 'flying.set', fields })
}
function measure(key: Measured, event: Event) {
  const text = withoutUnit((event.target as HTMLInputElement).value, 'm', '°C', 'C', '%', 'V')
  const read = text.trim() === '' ? null : readNumber(text)
  const checked =
    read && isNotRead(read)
      ? null
      : flyingShape[key].safeParse(
          read
            ? read.value
            : key === 'altitudeM' || key === 'temperatureC' || key === 'reservePercent'
              ? undefined
              : null,
        )
  problem.value = !checked
    ? (read as { problem: string }).problem
    : checked.success
      ? ''
      : checked.error.issues[0]!.message
  if (checked?.success) set({ [key]: checked.data })
}
const usualEnd = computed(() => {
  const pack = store.build!.lines.find(line => line.id === store.choice.packLineId)?.pack
  return pack ? fixed(usualCutOffV(pack.chemistry), 1) : 'usual'
})
const own = computed(() => new Set(store.build!.aim.cardIds))
const others = computed(() => rules.cards.filter(card => !own.value.has(card.id)))
function look(cardId: string) {
  const now = plan.value.alsoCardIds
  set({ alsoCardIds: now.includes(cardId) ? now.filter(id => id !== cardId) : [...now, cardId] })
}
/** What folds open closes again when something else is pressed. */
const bar = useTemplateRef<HTMLElement>('bar')
function fold(but: EventTarget | null) {
  for (const details of bar.value?.querySelectorAll('details') ?? [])
    if (!(but instanceof Node && details.contains(but))) details.open = false
}
useEventListener('pointerdown', (event: PointerEvent) => fold(event.target))
const isPhone = useMediaQuery('(max-width: 760px)')
const isOpen = ref(false)
const cardWords = computed(() =>
  cards.value.length === 0 ? 'no card chosen' : cards.value.map(cardName).join(' and '),
)
</script>

<template>
  <el-button
    v-if="isPhone"
    link
    type="primary"
    :icon="isOpen ? ArrowDown : ArrowRight"
    class="no-print"
    :aria-expanded="isOpen"
    @click="isOpen = !isOpen"
  >
    Flown as {{ plan.style }}, judged under {{ cardWords }}
  </el-button>
  <div
    v-if="isOpen || !isPhone"
    ref="bar"
    class="assume no-print"
    @keydown.esc="fold(null)"
  >
    <PickOne
      inline
      field="Flown as"
      :model-value="plan.style"
      label="Style"
      :options="styles"
      @update:model-value="set({ style: $event as Style })"
    />
    <label>at <EditField
      :value="plan.altitudeM"
      inputmode="decimal"
      class="figure short"
      aria-label="Altitude, m"
      @change="measure('altitudeM', $event)"
    /> m,</label>
    <label><EditField
      :value="plan.temperatureC"
      inputmode="decimal"
      class="figure short"
      aria-label="Temperature, °C"
      @change="measure('temperatureC', $event)"
    /> °C</label>
    <label>keep <EditField
      :value="plan.reservePercent"
      inputmode="decimal"
      class="figure short"
      aria-label="Reserve, % of the capacity"
      @change="measure('reservePercent', $event)"
    /> % in the pack</label>
    <label>land at <EditField
      :value="plan.endCellV"
      :placeholder="usualEnd"
      inputmode="decimal"
      class="figure short"
      aria-label="End of the flight, V a cell under load"
      @change="measure('endCellV', $event)"
    /> V a cell</label>
    <details>
      <summary>Judged under {{ cardWords }}</summary>
      <div class="cards">
        <p class="soft">
          The cards of <NuxtLink :to="`/builds/${store.build!.id}/aim`">Aim</NuxtLink> always count. Add those of a
          trip: a loadout is clear when it is clear under all.
        </p>
        <el-checkbox
          v-for="card in cards.filter(c => own.has(c.id))"
          :key="card.id"
          :model-value="true"
          disabled
        >
          {{ cardName(card) }}
        </el-checkbox>
        <el-checkbox
          v-for="card in others"
          :key="card.id"
          :model-value="plan.alsoCardIds.includes(card.id)"
          @change="look(card.id)"
        >
          {{ cardName(card) }}
        </el-checkbox>
      </div>
    </details>
    <details>
      <summary>More</summary>
      <div class="cards">
        <label class="field">Share of the power that lifts<EditField
          :value="plan.efficiency"
          placeholder="usual of the size"
          inputmode="decimal"
          class="figure"
          aria-label="Efficiency"
          @change="measure('efficiency', $event)"
        /></label>
        <label class="field">Warning, V a cell<EditField
          :value="plan.warnCellV"
          placeholder="none"
          inputmode="decimal"
          class="figure"
          aria-label="Warning, V a cell"
          @change="measure('warnCellV', $event)"
        /></label>
      </div>
    </details>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.assume {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  font-size: 12.5px;
  padding: 6px 0 8px;
  color: var(--ink-soft);
}
.assume > label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  white-space: nowrap;
}
select,
.short {
  padding: 2px 6px;
  font-size: 12.5px;
}
.short {
  width: 52px;
  text-align: right;
}
details {
  position: relative;
}
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
  padding: 2px 0;
  max-width: 320px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.cards {
  position: absolute;
  z-index: 20;
  top: 100%;
  left: 0;
  width: 300px;
  max-height: 320px;
  overflow: auto;
  background: var(--card);
  color: var(--ink);
  border: 1px solid var(--edge);
  border-radius: 8px;
  padding: 8px 12px;
  box-shadow: 0 8px 28px #2a233333;
  display: grid;
  gap: 4px;
}
.problem {
  flex-basis: 100%;
}
@media screen and (max-width: 760px) {
  .is-link {
    font-size: 15px;
    white-space: normal;
    text-align: left;
  }
  .assume {
    font-size: 15px;
  }
  .cards {
    position: static;
    width: auto;
    box-shadow: none;
  }
  .short,
  select {
    font-size: 16px;
  }
  .short {
    width: 64px;
  }
}
</style>

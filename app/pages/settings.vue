<script setup lang="ts">
import { percentFigure } from '#core/text/display'
import { isNotRead, readNumber } from '#core/text/units'
import { settingsSchema } from '#shared/schemas/settings'
import type { Hand } from '#core/deciding/shave'
import type { Settings } from '#shared/settings'

const store = useSettingsStore()
const problem = ref('')
useHead({ title: 'Settings · Jolly Gram' })
const hands: [Hand, string][] = [
  ['practised', 'practised: slips half as often'],
  ['usual', 'usual'],
  ['learning', 'learning: slips twice as often'],
]
const marks: [Settings['decimal'], string][] = [
  ['point', 'point, as in 248.70 g'],
  ['comma', 'comma, as in 248,70 g'],
]
const dayOrders: [Settings['days'], string][] = [
  ['day-month-year', 'day first, as in 3 November 2026'],
  ['month-day-year', 'month first, as in November 3, 2026'],
  ['year-month-day', 'year first, as in 2026-11-03'],
]
const weekdays: [Settings['firstWeekday'], string][] = [
  ['monday', 'Monday'],
  ['sunday', 'Sunday'],
  ['saturday', 'Saturday'],
]
const themes: [Settings['theme'], string][] = [
  ['system', 'as the system'],
  ['light', 'day'],
  ['dark', 'night bench'],
]

async function change(fields: Partial<Settings>) {
  const parsed = settingsSchema.safeParse({ ...store.settings, ...fields })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) await store.change(fields)
}
function confidence(event: Event) {
  const read = readNumber((event.target as HTMLInputElement).value.replace('%', ''))
  if (isNotRead(read)) problem.value = read.problem
  else change({ confidence: read.value / 100 })
}
</script>

<template>
  <main class="page narrow">
    <div class="page-head">
      <h1>Settings</h1><span class="soft">kept as you change them</span>
    </div>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <section
      id="looks"
      class="panel"
    >
      <h2>Looks</h2>
      <WayChoice
        :model-value="store.settings.theme"
        about="Looks"
        :ways="themes"
        bare
        @update:model-value="change({ theme: $event })"
      />
    </section>
    <section
      id="figures"
      class="panel"
    >
      <h2>Figures</h2>
      <div class="fields">
        <label class="field">Currency<EditField
          :value="store.settings.currency"
          maxlength="6"
          @change="change({ currency: ($event.target as HTMLInputElement).value })"
        /></label>
        <label class="field">Confidence for new builds, %<EditField
          :value="percentFigure(store.settings.confidence)"
          class="figure"
          inputmode="decimal"
          @change="confidence"
        /></label>
      </div>
      <div class="ways">
        <WayChoice
          :model-value="store.settings.decimal"
          about="Decimal mark"
          :ways="marks"
          @update:model-value="change({ decimal: $event })"
        />
        <WayChoice
          :model-value="store.settings.days"
          about="Days"
          :ways="dayOrders"
          @update:model-value="change({ days: $event })"
        />
        <WayChoice
          :model-value="store.settings.firstWeekday"
          about="A week begins on"
          :ways="weekdays"
          @update:model-value="change({ firstWeekday: $event })"
        />
      </div>
      <p class="soft">
        Both marks are read wherever a number is typed. Files always have the point and 2026-11-03.
      </p>
      <el-checkbox
        :model-value="store.settings.ounces"
        @change="change({ ounces: !store.settings.ounces })"
      >
        Show ounces beside grams
      </el-checkbox>
    </section>
    <section
      id="bench-scale"
      class="panel"
    >
      <h2>Bench scale</h2>
      <label class="field address">Address, host:port<EditField
        :value="store.settings.benchScale"
        class="figure"
        placeholder="127.0.0.1:4305"
        @change="change({ benchScale: ($event.target as HTMLInputElement).value.trim() })"
      /></label>
      <p class="soft">
        A scale on a serial-to-network adapter that sends lines all the time. Empty: none. A scale on a serial cable
        of this machine is opened in Weigh.
      </p>
    </section>
    <section
      id="hand"
      class="panel"
    >
      <h2>Your hand</h2>
      <WayChoice
        :model-value="store.settings.hand"
        about="Your hand"
        :ways="hands"
        bare
        @update:model-value="change({ hand: $event })"
      />
      <p class="soft">
        Shave counts what a slip with iron, knife or drill would cost by it.
      </p>
    </section>
    <GearPanel
      id="ground"
      :gear="store.settings.gear"
      @change="change({ gear: $event })"
    />
    <NetworkPanel id="network" />
    <ArchivePanel />
    <section
      id="keys"
      class="panel"
    >
      <h2>Keys</h2>
      <el-checkbox
        :model-value="store.settings.singleKeys"
        @change="change({ singleKeys: !store.settings.singleKeys })"
      >
        Single-key shortcuts
      </el-checkbox>
      <p class="soft">
        Keys with Ctrl and the keys of the sheet always work.
      </p>
    </section>
  </main>
</template>

<style scoped>
.narrow {
  max-width: 720px;
  width: 100%;
}
.address {
  max-width: 300px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 14px 36px;
  margin: 14px 0 4px;
}
</style>

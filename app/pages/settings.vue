<script setup lang="ts">
import { isNotRead, readNumber } from '#core/text/units'
import { settingsSchema } from '#shared/schemas/settings'
import type { Hand } from '#core/deciding/shave'
import type { Settings } from '#shared/settings'

const store = useSettingsStore()
const problem = ref('')
useHead({ title: 'Settings · Jolly Gram' })
const handWords: Record<Hand, string> = {
  practised: 'practised: slips half as often',
  usual: 'usual',
  learning: 'learning: slips twice as often',
}
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
      <el-radio-group
        class="stacked"
        :model-value="store.settings.theme"
        aria-label="Looks"
        @change="change({ theme: $event as typeof store.settings.theme })"
      >
        <el-radio
          v-for="[value, words] in themes"
          :key="value"
          :value="value"
        >
          {{ words }}
        </el-radio>
      </el-radio-group>
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
          :value="Number((store.settings.confidence * 100).toFixed(2))"
          class="figure"
          inputmode="decimal"
          @change="confidence"
        /></label>
      </div>
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
      <el-radio-group
        class="stacked"
        :model-value="store.settings.hand"
        aria-label="Your hand"
        @change="change({ hand: $event as typeof store.settings.hand })"
      >
        <el-radio
          v-for="(words, hand) in handWords"
          :key="hand"
          :value="hand"
        >
          {{ words }}
        </el-radio>
      </el-radio-group>
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
</style>

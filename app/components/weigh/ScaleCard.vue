<script setup lang="ts">
import dayjs from 'dayjs'
import { fixed, signed, figure, counted } from '#core/text/display'
import { sigmaG } from '#core/maths/estimate'
import { coverageFactor95 } from '#core/maths/numbers'
import { weighedEstimate } from '#core/mass/scale'
import { correctionsBy } from '#core/deciding/weigh'
import type { WeighRun } from '~/composables/useWeighRun'

const props = defineProps<{ run: WeighRun | null; loadG: number | null }>()
const store = useBuildStore()
const scales = useScalesStore()
const bench = useBenchScale()
const standing = computed(() => (scales.current ? (scales.standings.get(scales.current.id) ?? null) : null))
const onPanG = computed(() => Math.max(props.loadG ?? 0, 0))
const one = computed(() =>
  scales.ready
    ? weighedEstimate(scales.ready, { id: 'card', displaysG: [onPanG.value], tare: { id: 't', displayG: 0 } })
    : null,
)
const percentOff = computed(() => (standing.value?.result ? 100 * (standing.value.result.gain - 1) : null))
const trays = computed(() => scales.tares.filter(tare => tare.scaleId === scales.current?.id))
/** Weighings of this build on this scale that rest on an earlier check than the one in force. */
const outdated = computed(() => {
  const ready = scales.ready
  if (!ready?.check || !store.build) return []
  return correctionsBy(store.build, ready, newId)
})
function reapply() {
  store.run(
    { type: 'weighings.correct', corrections: outdated.value },
    `corrected by the check of ${dayOf(standing.value!.check!.takenAt)}`,
  )
}
const serialProblem = ref('')
const baud = ref(9600)
const trayName = ref('')
const trayProblem = ref('')

async function openSerial() {
  serialProblem.value = await bench.openSerial(baud.value)
}
async function keepTray() {
  trayProblem.value = ''
  const { massG, reason } = props.run!.display.value
  if (massG === null || reason) {
    trayProblem.value = reason || 'Nothing is on the pan.'
    return
  }
  try {
    await scales.addTare({
      name: trayName.value.trim(),
      scaleId: scales.current!.id,
      displayG: massG,
      takenAt: new Date().toISOString(),
    })
    trayName.value = ''
  } catch (error) {
    trayProblem.value = sentenceOf(error)
  }
}
const trayInUse = computed(() => trays.value.find(tray => tray.id === props.run?.tare.value.id) ?? null)
/** Past weighings keep what they were tared with; only the choice goes. */
async function removeTray() {
  try {
    await scales.removeTare(trayInUse.value!.id)
    props.run?.useTray(null)
  } catch (error) {
    trayProblem.value = sentenceOf(error)
  }
}
function chooseTray(id: string) {
  const tray = trays.value.find(t => t.id === id)
  props.run?.useTray(tray ? { id: tray.id, name: tray.name, displayG: tray.displayG } : null)
}
const lastCheck = computed(() => {
  const at = standing.value?.check?.takenAt
  return at ? `${dayOf(at, 'without year')}, ${dayjs(at).format('HH:mm')}` : 'never'
})
</script>

<template>
  <div>
    <div v-if="!scales.current">
      <h2>No scale yet</h2>
      <p>Say which scale lies on the bench: its step and what it carries. Then every weighing knows how sure it is.</p>
      <NuxtLink
        to="/scales"
        class="button first"
      >Add a scale</NuxtLink>
    </div>
    <template v-else>
      <PickOne
        v-if="scales.scales.length > 1"
        field="Scale at hand"
        :model-value="scales.current.id"
        :options="scales.scales.map((scale) => ({ value: scale.id, label: scale.name }))"
        @update:model-value="scales.currentId = $event"
      />
      <h2 class="name">
        {{ scales.current.name }}
      </h2>
      <p class="soft">
        {{ figure(scales.current.resolutionG, 4) }} g steps, {{ counted(scales.current.capacityG) }} g at most.
        {{ bench.state.value.sentence }}
      </p>
      <dl class="facts">
        <dt>Last check</dt><dd>{{ lastCheck }}</dd>
        <template v-if="percentOff !== null">
          <dt>Reads</dt><dd>
            {{
              Math.abs(percentOff) < 0.005
                ? 'true'
                : `${fixed(Math.abs(percentOff), 2)} % ${percentOff > 0 ? 'heavy' : 'light'}`
            }}
          </dd>
          <dt>Corrected for you</dt><dd>{{ one ? signed(one.valueG - onPanG, 2) : '' }} g</dd>
        </template>
        <dt>One reading ±</dt><dd>{{ one ? fixed(coverageFactor95 * sigmaG(one), 2) : '–' }} g</dd>
        <template v-if="bench.garbage.value > 0">
          <dt>Lines not understood</dt><dd>{{ bench.garbage.value }}</dd>
        </template>
      </dl>
      <div class="bar">
        <i :style="{ width: `${Math.min(100, 100 * onPanG / scales.current.capacityG)}%` }" />
      </div>
      <p class="soft">
        {{ fixed(onPanG, 0) }} of {{ scales.current.capacityG }} g in use.
      </p>
      <p
        v-if="!standing?.check"
        class="note"
      >
        Never checked: it may be wrong by {{ uncheckedWords() }}, and every weighing carries that.
      </p>
      <p
        v-else-if="standing.drift?.flagged"
        class="note"
      >
        It has drifted since the check before ({{ signed(100 * standing.drift.change, 2) }} %). Check it again before a run that matters.
      </p>
      <p
        v-else-if="standing.overdue"
        class="note"
      >
        The check is {{ standing.ageDays }} days old: overdue.
      </p>
      <p
        v-if="outdated.length > 0"
        class="note"
      >
        {{ outdated.length }} {{ outdated.length === 1 ? 'weighing rests' : 'weighings rest' }} on an earlier
        check of this scale. <el-button
          link
          type="primary"
          @click="reapply"
        >
          Correct by the new one
        </el-button>
      </p>
      <NuxtLink
        to="/scales"
        class="button"
      >Check with a reference mass</NuxtLink>
      <template v-if="run">
        <h3>Tray</h3>
        <PickOne
          label="Tray"
          :model-value="trays.some(t => t.id === run!.tare.value.id) ? run.tare.value.id : ''"
          :options="trays.map((tray) => ({ value: tray.id, label: `${tray.name}, ${fixed(tray.displayG, 2)} g` }))"
          none="none: zero key"
          @update:model-value="chooseTray"
        />
        <SureButton
          v-if="trayInUse"
          :words="`Take ${trayInUse.name} off the list`"
          :question="`Past weighings keep what they were tared with. “${trayInUse.name}” itself does not come back.`"
          @sure="removeTray"
        />
        <details>
          <summary>Keep what is on the pan as a tray</summary>
          <OneField
            v-model="trayName"
            class="inline"
            label="Name of the tray"
            placeholder="small tray"
            words="Keep"
            needed
            :problem="trayProblem"
            @send="keepTray"
          />
        </details>
        <template v-if="bench.canOpenSerial && !bench.onSerial.value">
          <details>
            <summary>A scale on a serial cable</summary>
            <el-form
              class="inline"
              @submit.prevent="openSerial"
            >
              <PickOne
                v-model="baud"
                label="Baud"
                :options="[1200, 2400, 4800, 9600, 19200, 38400].map((rate) => ({ value: rate, label: `${rate} baud` }))"
              /><el-button native-type="submit">
                Open
              </el-button>
            </el-form>
            <p
              v-if="serialProblem"
              class="problem"
              role="alert"
            >
              {{ serialProblem }}
            </p>
          </details>
        </template>
        <template v-if="run.taken.value.length > 0">
          <h3>Just taken</h3>
          <div
            v-for="entry in run.taken.value.slice(0, 8)"
            :key="entry.mass.versionId"
            class="taken"
          >
            <span>{{ entry.title }}</span><span class="figure">{{ fixed(entry.mass.valueG, 2) }}</span>
          </div>
        </template>
      </template>
    </template>
  </div>
</template>

<style scoped>
.name {
  margin-top: 8px;
}
.bar {
  height: 8px;
  border-radius: 4px;
  background: var(--free);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--plum-text);
}
select {
  width: 100%;
}
.inline {
  display: flex;
  gap: 6px;
  margin: 6px 0;
}
.inline .el-input,
.inline select {
  flex: 1;
  min-width: 0;
}
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
  margin-top: 8px;
}
.taken {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  border-top: 1px solid var(--line);
  padding: 5px 0;
}
.taken span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>

<script setup lang="ts">
import type { Flight } from '#core/aircraft/flown'
import { quantities, type Columns, type Quantity, type Stretch } from '#core/aircraft/telemetry'
import { counted, fixed } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import { flightTimeWords } from '#core/text/units'

/** The log of a flight: brought in, drawn, worked out, and its figures taken as evidence of the flight. */
const { flight, number } = defineProps<{ flight: Flight; number: number }>()
const { put } = useFlying()
const cells = () => flight.snapshot.pack?.cells ?? 1
const log = useTelemetry(cells)
const { read, progress, problem, stretch, figures, resistance, view, curves, whole } = log
const isMapping = ref(false)
const said = ref('')
const isKeeping = ref(false)

function bring(file: File) {
  said.value = ''
  isMapping.value = false
  log.open(file, file.name)
}
/** A log that is kept is opened at once. */
watch(
  () => [flight.id, flight.logId] as const,
  async ([, logId], before) => {
    if (logId === null || before?.[1] === logId || log.file.value) return
    try {
      const answer = await fetch(`/api/logs/${encodeURIComponent(logId)}`)
      if (!answer.ok) throw new Error('This log is not on this machine.')
      log.open(await unpacked(await answer.blob()), `The log of flight ${number}`)
    } catch (error) {
      problem.value = sentenceOf(error)
    }
  },
  { immediate: true },
)
const mapped = computed(() =>
  read.value
    ? (Object.keys(read.value.heads.columns) as Quantity[]).map(quantity => ({
        quantity,
        head: read.value!.heads.heads[read.value!.heads.columns[quantity]!.index] ?? '',
        unit: read.value!.heads.columns[quantity]!.unit,
      }))
    : [],
)
const asideWords = computed(() => {
  if (!read.value) return ''
  const { backwards, timeless, texts, firstText } = read.value.setAside
  return [
    backwards > 0 ? `${counted(backwards)} rows whose time runs backwards were set aside` : '',
    timeless > 0 ? `${counted(timeless)} rows without a time were set aside` : '',
    texts > 0 && firstText
      ? `${counted(texts)} fields hold a text where a figure belongs, the first “${firstText.text}” in row ` +
        `${counted(firstText.row)} (${quantities[firstText.quantity].name.toLowerCase()})`
      : '',
  ]
    .filter(Boolean)
    .join('; ')
})
const headWords = computed(() =>
  read.value
    ? `${counted(read.value.rows)} rows, ${flightTimeWords(read.value.endS)} of log.`
    : 'A CSV of a hand controller or of a log decoder: one row a moment, with heads.',
)
const ofWhatWords = computed(() => {
  const where =
    read.value?.stretches.length === 0
      ? '; no stretch in the air was found, so it is the whole log'
      : ', without the time on the ground'
  const { gaps, gapsS } = figures.value!
  const holes = gaps === 0 ? '' : ` ${gaps === 1 ? 'One gap' : `${gaps} gaps`} of ${fixed(gapsS, 1)} s in all not bridged.`
  return `Of the time logged${where}.${holes}`
})
const flownS = computed(() => (stretch.value ? stretch.value.toS - stretch.value.fromS : 0))
const whyNone = {
  'no volts or amps': 'The log has no volts, or no amps.',
  'too few rows': 'There are too few rows in the air for it.',
  'volts do not fall': 'The volts do not fall as the amps rise: nothing can be said of the resistance.',
  'amps hardly vary': 'The amps hardly vary: nothing can be said of the resistance.',
} as const
const told = computed(() => (resistance.value && 'mohm' in resistance.value ? resistance.value : null))
function chooseStretch(value: string) {
  const one = read.value!.stretches[Number(value)]
  if (one) log.choose(one)
}
const stretchChoices = computed(() =>
  (read.value?.stretches ?? []).map(({ fromS, toS }, i) => ({
    value: String(i),
    label: `${flightTimeWords(toS - fromS)} in the air, from ${flightTimeWords(fromS)}`,
  })),
)
const stretchKey = computed(() => {
  const at = read.value?.stretches.findIndex(one => sameStretch(one, stretch.value)) ?? -1
  return at < 0 ? '' : String(at)
})
const sameStretch = (one: Stretch, other: Stretch | null) => one.fromS === other?.fromS && one.toS === other.toS

/** Its figures become the flight's evidence, and the log is kept beside it. */
async function use() {
  if (!figures.value || !log.file.value) return
  isKeeping.value = true
  said.value = ''
  try {
    const logId = flight.logId ?? (await keepLog(log.file.value))
    const { problem: sentence } = await put({
      ...flight,
      logId,
      durationS: Math.round(flownS.value),
      stepS: 1,
      loggedMah: Number(figures.value.mah.toFixed(1)),
      resistance: told.value
        ? { mohm: Number(told.value.mohm.toFixed(2)), uMohm: Number(told.value.u.toFixed(3)) }
        : flight.resistance,
    })
    said.value = sentence || 'Taken: charge, time in the air and resistance are evidence of this flight now.'
  } catch (error) {
    said.value = sentenceOf(error)
  } finally {
    isKeeping.value = false
  }
}
function remap(columns: Columns) {
  isMapping.value = false
  log.correct(columns)
}
</script>

<template>
  <div class="log">
    <div class="head">
      <p class="soft">
        {{ headWords }}
      </p><span class="gap" />
      <FileChoose
        :words="read ? 'Another log' : 'Bring a log in'"
        accept=".csv,.txt,text/csv"
        @file="bring"
      />
    </div>
    <FileDrop
      :words="`Let go: it is read as the log of flight ${number}`"
      @files="bring($event[0]!)"
    />
    <WorkProgress
      v-if="progress"
      words="Bytes read"
      :done="progress.done"
      :of="progress.of"
      @stop="log.stop"
    />
    <p
      v-if="problem"
      class="note"
      role="alert"
    >
      {{ problem }}
    </p>
    <template v-if="read && view">
      <div class="mapped">
        <span
          v-for="one in mapped"
          :key="one.quantity"
        ><b class="figure">{{ one.head }}</b> → {{ quantities[one.quantity].name.toLowerCase() }}, {{ one.unit }}</span>
        <el-button
          link
          type="primary"
          :aria-expanded="isMapping"
          @click="isMapping = !isMapping"
        >
          Change the columns
        </el-button>
      </div>
      <LogColumns
        v-if="isMapping"
        :heads="read.heads"
        @columns="remap"
      />
      <p
        v-if="asideWords"
        class="note"
        data-test="set-aside"
      >
        {{ asideWords }}. The rest was read.
      </p>
      <LogCurves
        :curves
        :whole
        :view
        :end-s="read.endS"
        :stretch
        :gaps="read.gaps"
        :warned-s="flight.firstWarningS"
        :title="`Log of flight ${number}`"
        @look="log.look"
      />
      <div class="acts">
        <el-button
          v-if="stretch"
          @click="log.look(stretch)"
        >
          The flight
        </el-button><el-button @click="log.look({ fromS: 0, toS: read!.endS })">
          The whole log
        </el-button><PickOne
          v-if="stretchChoices.length > 1"
          :model-value="stretchKey"
          label="Which flight of the log"
          :options="stretchChoices"
          @update:model-value="chooseStretch"
        />
      </div>
      <section
        v-if="figures"
        class="worked"
        aria-labelledby="worked-head"
      >
        <h3 id="worked-head">
          What was worked out
        </h3>
        <p class="soft">
          {{ ofWhatWords }}
        </p>
        <dl class="facts">
          <dt>In the air</dt><dd>{{ flightTimeWords(flownS) }}</dd>
          <dt>Charge used</dt><dd data-test="log-mah">
            {{ fixed(figures.mah, 0) }} mAh
          </dd>
          <template v-if="figures.wh !== null">
            <dt>Energy</dt><dd>{{ fixed(figures.wh, 2) }} Wh</dd>
          </template>
          <template v-if="figures.meanA !== null">
            <dt>Amps, average and most</dt><dd>{{ fixed(figures.meanA, 1) }} · {{ fixed(figures.peakA ?? 0, 1) }} A</dd>
          </template>
          <template v-if="figures.meanW !== null">
            <dt>Power on average</dt><dd>{{ fixed(figures.meanW, 1) }} W</dd>
          </template>
          <template v-if="figures.leastV !== null">
            <dt>Lowest under load</dt><dd>{{ fixed(figures.leastV, 2) }} V</dd>
          </template>
          <dt>Resistance of the pack</dt><dd data-test="log-resistance">
            {{ told ? `${fixed(told.mohm, 1)} ± ${fixed(coverageFactor95 * told.u, 1)} mΩ` : '–' }}
          </dd>
        </dl>
        <p
          v-if="resistance && 'why' in resistance"
          class="soft"
        >
          {{ whyNone[resistance.why] }}
        </p>
        <p
          v-else-if="told?.isSlow"
          class="soft"
        >
          The throttle swung slowly: how well the resistance is known is itself unsure.
        </p>
        <el-button
          type="primary"
          :disabled="isKeeping"
          @click="use"
        >
          Use these for flight {{ number }}
        </el-button>
        <p
          v-if="said"
          role="status"
        >
          {{ said }}
        </p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 10px;
}
.gap {
  flex: 1;
}
.mapped {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  padding: 7px 12px;
  margin-bottom: 8px;
  border-radius: 8px;
  background: var(--aside);
  font-size: 13px;
}
.mapped b {
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px 0 14px;
}
.acts :deep(.el-button) {
  margin: 0;
}
.worked {
  max-width: 420px;
}
</style>

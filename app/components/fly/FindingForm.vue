<script setup lang="ts">
import { findingKinds, makeFinding, type FlightFinding, type Flight } from '#core/aircraft/flown'
import { countedLines } from '#core/mass/loadout'
import { findingSchema } from '#shared/schemas/flights'

/** Notes what was found on a flight, or at the bench. */
const { flight, number } = defineProps<{ flight: Flight | null; number: number }>()
const emit = defineEmits<{ noted: [finding: FlightFinding]; close: [] }>()
const store = useBuildStore()
const flights = useFlightsStore()

const kind = ref<FlightFinding['kind'] | ''>('')
const severity = ref(1)
const suspectLineId = ref('')
const damaged = ref<string[]>([])
const distance = ref('')
const note = ref('')
const lesson = ref('')
const problems = reactive({ kind: '', distance: '', note: '' })
const lines = computed(() => countedLines(store.build!, store.choice).map(line => ({ value: line.id, label: lineTitle(line) })))
const isFar = computed(() => kind.value === 'picture breaks up' || kind.value === 'lost link' || kind.value === 'failsafe')
const isCrash = computed(() => kind.value === 'crash' || kind.value === 'damage')
const severities = severityWords.map((label, value) => ({ label, value }))

async function keep() {
  const metres = isFar.value ? readOptional(distance.value, 'm') : { value: null }
  problems.kind = kind.value === '' ? 'Say what it was.' : ''
  problems.distance = 'problem' in metres ? metres.problem : ''
  if (kind.value === '' || 'problem' in metres) return
  const finding = makeFinding({
    id: newId(),
    buildId: store.build!.id,
    flightId: flight?.id ?? null,
    foundAt: flight?.flownAt ?? localMoment(),
    kind: kind.value,
    severity: severity.value,
    distanceM: metres.value,
    suspectLineId: suspectLineId.value || null,
    suspect: lines.value.find(({ value }) => value === suspectLineId.value)?.label ?? '',
    damagedLineIds: isCrash.value ? damaged.value : [],
    note: note.value,
    lesson: lesson.value,
  })
  const checked = findingSchema.safeParse(finding)
  const sentence = checked.success ? await flights.putFinding(finding) : checked.error.issues[0]!.message
  problems.note = sentence
  if (sentence === '') emit('noted', finding)
}
</script>

<template>
  <h2>What was found</h2>
  <p class="soft">
    {{ flight ? `On flight ${number}, ${flightDay(flight.flownAt)}.` : 'At the bench, on no flight in particular.' }}
  </p>
  <el-form
    label-position="top"
    aria-label="Finding"
    @submit.prevent="keep"
    @keydown.esc.stop="emit('close')"
  >
    <FormField
      label="What it was"
      :problem="problems.kind"
    >
      <PickOne
        v-model="kind"
        label="What it was"
        :options="findingKinds"
        placeholder="choose"
      />
    </FormField>
    <div class="field">
      <span class="label">How bad</span>
      <el-segmented
        v-model="severity"
        :options="severities"
        aria-label="How bad"
        block
      />
    </div>
    <FormField
      v-if="isFar"
      label="At a distance of, m"
      :problem="problems.distance"
    >
      <el-input
        v-model="distance"
        inputmode="decimal"
        class="figure"
        placeholder="90"
      />
    </FormField>
    <PickOne
      v-model="suspectLineId"
      field="Suspected part"
      :options="lines"
      none="not known"
    />
    <div
      v-if="isCrash"
      class="field"
    >
      <span class="label">Hurt in it</span>
      <el-checkbox-group
        v-model="damaged"
        aria-label="Hurt in it"
        class="hurt"
      >
        <el-checkbox
          v-for="line in lines"
          :key="line.value"
          :value="line.value"
        >
          {{ line.label }}
        </el-checkbox>
      </el-checkbox-group>
    </div>
    <FormField
      label="Note"
      :problem="problems.note"
    >
      <el-input
        v-model="note"
        type="textarea"
        autosize
      />
    </FormField>
    <FormField
      v-if="isCrash"
      label="What it taught"
    >
      <el-input
        v-model="lesson"
        type="textarea"
        autosize
        placeholder="stands in the record and on the build sheet"
      />
    </FormField>
    <div class="acts">
      <el-button
        type="primary"
        native-type="submit"
      >
        Note it
      </el-button><el-button @click="emit('close')">
        Leave it
      </el-button>
    </div>
  </el-form>
</template>

<style scoped>
.el-form {
  display: grid;
  gap: 10px;
}
.label {
  display: block;
  margin-bottom: 4px;
}
.hurt {
  display: grid;
  max-height: 220px;
  overflow: auto;
}
.acts {
  display: flex;
  gap: 6px;
}
.acts :deep(.el-button) {
  margin: 0;
}
</style>

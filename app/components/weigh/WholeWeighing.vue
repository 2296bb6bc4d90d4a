<script setup lang="ts">
import { fixed, gramsWithSpread, signed } from '#core/text/display'
import { addEstimates, spreadG } from '#core/maths/estimate'
import type { Line, Observation } from '#core/model/ledger'
import { countedLines, loadoutName } from '#core/mass/loadout'
import { reconcile } from '#core/mass/observation'
import type { WeighRun } from '~/composables/useWeighRun'

const props = defineProps<{ run: WeighRun }>()
const store = useBuildStore()
const scales = useScalesStore()
const build = computed(() => store.build!)
const fitted = computed(() => build.value.lines.filter(line => line.state === 'fitted'))
const ticked = ref(new Set<string>())
const title = ref('dry aircraft')
const lines = computed(() => fitted.value.filter(line => ticked.value.has(line.id)))
const expected = computed(() => addEstimates(lines.value.map(line => store.estimates.of(line))))
const tooHeavy = computed(() => scales.current !== null && expected.value.valueG > scales.current.capacityG)

function choose(what: 'dry' | 'loadout') {
  const counted = countedLines(build.value, store.choice)
  ticked.value = new Set(
    counted
      .filter(line => what === 'loadout' || (line.slot !== 'pack' && line.role !== 'payload'))
      .map(line => line.id),
  )
  title.value = what === 'dry' ? 'dry aircraft' : loadoutName(build.value, store.choice)
}
choose('dry')
function tick(line: Line) {
  const next = new Set(ticked.value)
  if (!next.delete(line.id)) next.add(line.id)
  ticked.value = next
  title.value = `${next.size} lines`
}

const { lifts, message, draft, compared, suspectWords, addLift, keep, enter, bookDifference } = useStageWeighing(
  props.run,
  lines,
  title,
)
const linesWords = ({ subjects: { length } }: Observation) => (length === 1 ? 'one line' : `${length} lines`)
/** Weighings without a picture that are about to get one. */
const withPictures = ref<ReadonlySet<string>>(new Set())
/** A picture goes to the weighing it was chosen for, as that stands when the picture has come. */
const holdPicture = (id: string) =>
  holderInBuild(
    'The weighing',
    ({ observations }) => observations.find(one => one.id === id),
    observation => ({ type: 'observation.put', observation }),
  )
function change(observation: Observation, state: Observation['state']) {
  if (state === 'taken in') {
    const [below] = reconcile(observation, store.build!, [], store.honesty).belowNothing.flatMap(
      id => store.lineOf(id) ?? [],
    )
    if (below) {
      message.value = `Taken in, ${lineTitle(below)} would weigh less than nothing: weigh it again, or leave it set aside.`
      return
    }
  }
  store.run({ type: 'observation.put', observation: { ...observation, state } })
}
</script>

<template>
  <div class="whole">
    <section
      class="subjects"
      aria-label="What is on the pan"
    >
      <div class="choose">
        <el-button @click="choose('dry')">
          Dry aircraft
        </el-button><el-button @click="choose('loadout')">
          This loadout
        </el-button>
      </div>
      <el-checkbox
        v-for="line in fitted"
        :key="line.id"
        :model-value="ticked.has(line.id)"
        @change="tick(line)"
      >
        <span>{{ lineTitle(line) }}<small
          v-if="line.quantity > 1"
          class="soft"
        > × {{ line.quantity }}</small></span>
      </el-checkbox>
    </section>
    <section class="centre">
      <div class="head">
        <label class="field">Name of the weighing<el-input
          v-model="title"
          maxlength="120"
        /></label>
      </div>
      <p class="expected">
        Expected <b class="figure">{{ gramsWithSpread(expected.valueG, spreadG(expected)) }}</b>
      </p>
      <div
        class="reading figure"
        data-test="pan"
      >
        {{ draft ? fixed(draft.valueG, 2) : '–' }}<small> g</small>
      </div>
      <p
        class="soft rest"
        role="status"
      >
        {{
          lifts.length > 0
            ? `${lifts.length} ${lifts.length === 1 ? 'lift' : 'lifts'}: ${lifts.map(g => fixed(g, 2)).join(' + ')}`
            : run.display.value.reason || 'corrected for the scale'
        }}
      </p>
      <p
        v-if="tooHeavy"
        class="note"
      >
        More than the pan carries: weigh it in two lifts, adding each.
      </p>
      <div
        v-if="compared"
        class="verdict"
        :class="compared.agrees ? 'agrees' : 'differs'"
        data-test="reconciled"
      >
        <b>{{
          compared.agrees
            ? 'Agrees'
            : compared.differenceG > 0
              ? 'More on the pan than is booked'
              : 'Less on the pan than is booked'
        }}</b>
        <span class="figure">{{ signed(compared.differenceG, 2) }}
          g</span><span class="soft">{{
          compared.agrees
            ? 'within what the ledger and the scale allow'
            : compared.differenceG > 0
              ? 'grams not booked: solder, tape, glue?'
              : 'booked twice, or a part missing?'
        }}</span>
        <ul v-if="!compared.agrees && suspectWords.length > 0">
          <li
            v-for="suspect in suspectWords"
            :key="suspect.name + suspect.words"
          >
            <b>{{ suspect.name }}</b> {{ suspect.words }}
          </li>
        </ul>
      </div>
      <p
        v-else-if="draft && lifts.length === 1"
        class="soft"
      >
        The first lift: compared when all of it was on.
      </p>
      <p
        v-else-if="draft"
        class="soft"
        data-test="not-compared"
      >
        Not compared: that is far less than these lines weigh.
      </p>
      <p
        v-if="message"
        class="said"
        role="status"
      >
        {{ message }}
      </p>
      <div class="actions">
        <el-button
          v-if="!compared || compared.agrees"
          type="primary"
          @click="keep('taken in')"
        >
          Take it in
        </el-button>
        <template v-else>
          <el-button
            type="primary"
            @click="keep('held')"
          >
            Hold it
          </el-button>
          <el-button
            v-if="compared.differenceG > 0"
            @click="bookDifference"
          >
            Book the difference as a line
          </el-button>
          <el-button @click="keep('taken in')">
            Take it in all the same
          </el-button>
        </template>
        <el-button @click="addLift">
          Add as a lift
        </el-button>
        <el-button
          v-if="lifts.length > 0"
          @click="lifts = []"
        >
          Start over
        </el-button>
        <label class="hand">or type it<el-input
          :model-value="run.typed.value"
          class="figure"
          inputmode="decimal"
          aria-label="Type what the scale shows"
          placeholder="g"
          @update:model-value="run.type($event)"
          @keydown.enter.prevent="enter"
        /></label>
      </div>
      <template v-if="build.observations.length > 0">
        <h3>Weighed together so far</h3>
        <table>
          <tbody>
            <tr
              v-for="observation in [...build.observations].reverse()"
              :key="observation.id"
            >
              <td>
                {{ observation.title }}<small class="soft"> · {{ linesWords(observation) }} ·
                  {{ observation.scaleName }}</small>
                <PartPictures
                  v-if="observation.pictureIds.length > 0 || withPictures.has(observation.id)"
                  class="pictures"
                  :of="observation.title"
                  :ids="observation.pictureIds"
                  :holder="() => holdPicture(observation.id)"
                  @change="store.run({ type: 'observation.put', observation: { ...observation, pictureIds: [...$event] } })"
                />
              </td>
              <td class="figure right nowrap">
                {{ fixed(observation.valueG, 2) }} g
              </td>
              <td class="nowrap">
                <span :class="{ soft: observation.state !== 'taken in' }">{{ observation.state }}</span>
              </td>
              <td class="right acts">
                <el-button
                  link
                  type="primary"
                  @click="change(observation, observation.state === 'taken in' ? 'set aside' : 'taken in')"
                >
                  {{ observation.state === 'taken in' ? 'Set aside' : 'Take in' }}
                </el-button><el-button
                  link
                  type="primary"
                  @click="store.run({ type: 'observation.delete', id: observation.id })"
                >
                  Delete
                </el-button><el-button
                  v-if="observation.pictureIds.length === 0 && !withPictures.has(observation.id)"
                  link
                  type="primary"
                  :aria-label="`Picture of ${observation.title}`"
                  @click="withPictures = new Set([...withPictures, observation.id])"
                >
                  Picture …
                </el-button>
              </td>
            </tr>
          </tbody>
        </table>
        <p
          v-if="store.estimates.contradictions.length > 0"
          class="note"
        >
          Two of these contradict each other exactly; the later one was left out of the sums.
        </p>
      </template>
      <PracticePan
        :lines="lines"
        :current="null"
        :pieces="1"
      />
    </section>
  </div>
</template>

<style scoped>
.pictures {
  margin: 4px 0 0;
}
@media screen and (min-width: 761px) {
  .acts {
    white-space: nowrap;
  }
}
.nowrap {
  white-space: nowrap;
}
.whole {
  display: grid;
  grid-template-columns: 262px minmax(0, 1fr);
  gap: 24px;
}
.subjects {
  max-height: calc(100vh - 240px);
  overflow: auto;
}
.choose {
  display: flex;
  gap: 6px;
  margin-bottom: 8px;
}
.choose button {
  padding: 4px 10px;
}
.expected {
  margin: 10px 0 0;
  text-align: center;
}
.reading {
  font-size: 68px;
  line-height: 1.1;
  letter-spacing: -3px;
  text-align: center;
}
.reading small {
  font-size: 24px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.rest {
  text-align: center;
}
.verdict {
  border-left: 3px solid;
  padding: 8px 12px;
  background: var(--paper);
  border-radius: 0 7px 7px 0;
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  align-items: baseline;
}
.agrees {
  border-color: var(--clear);
}
.agrees b {
  color: var(--clear);
}
.differs {
  border-color: var(--close);
}
ul {
  flex-basis: 100%;
  margin: 2px 0 0;
  padding-left: 18px;
}
li b,
.differs li b {
  color: var(--ink);
}
.said {
  font-weight: 600;
  margin: 10px 0 0;
}
.actions {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin: 12px 0;
  align-items: center;
}
.hand {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-soft);
  font-size: 12.5px;
}
.hand .el-input {
  width: 90px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
}
.right {
  text-align: right;
}
@media screen and (max-width: 760px) {
  .whole {
    grid-template-columns: minmax(0, 1fr);
  }
  .subjects {
    max-height: 220px;
  }
  .centre {
    order: -1;
  }
}
</style>

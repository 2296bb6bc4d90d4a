<script setup lang="ts">
import { bases, makeMass, roles, slotFacts, type Line } from '#core/model/ledger'
import { gramsWithSpread } from '#core/text/display'
import { isOptional } from '#core/mass/loadout'
import type { LineFields } from '#core/changes/commands'
import { sameAsPart } from '#core/parts/drawer'
import { confirmed, ListingBiasTable, listingDoubt, listingObservations } from '#core/mass/listings'
import { calculatorsFor } from '#core/mass/mass-calculators'
import { nameSchema } from '#core/text/schemas'

const props = defineProps<{ line: Line }>()
const route = useRoute()
const drawer = useDrawerStore()
const store = useBuildStore()
const fitted = computed(() => (props.line.insteadOf ? (store.lineOf(props.line.insteadOf) ?? null) : null))
const leavingOut = computed(() =>
  props.line.removable ? (store.overview?.judgements.filter(j => j.leftOut.includes(props.line.name)) ?? []) : [],
)
const working = ref(false)
const moving = ref(false)
const everMoved = ref(false)
const asked = computed(() => (route.query.asked ? [String(route.query.asked)] : []))
const part = computed(() => (props.line.partId ? (drawer.partOf(props.line.partId) ?? null) : null))
onMounted(() => {
  if (props.line.partId && !drawer.loaded) void drawer.load()
})
const { report: fit } = useFit()
const clashing = computed(
  () =>
    fit.value?.findings.filter(
      f => f.setAside === null && f.severity !== 'advice' && f.lineIds.includes(props.line.id),
    ) ?? [],
)
const tieProblem = ref('')

function useWorked({ grams, words, each }: { grams: number; words: string; each: boolean }) {
  const mass = makeMass({
    versionId: newId(),
    evidence: 'worked out',
    valueG: grams,
    valueCount: each ? 1 : props.line.quantity,
    resolutionG: 0.0001,
    origin: words.slice(0, 200),
  })
  if (store.run({ type: 'lines.change', changes: [{ id: props.line.id, fields: { mass } }] }, words))
    working.value = false
}
/** A listing and a weighing that cannot both be right, or hardly. */
const doubt = computed(() =>
  listingDoubt(
    props.line,
    new ListingBiasTable([
      ...store.honestyElsewhere,
      ...listingObservations(store.build!.lines.filter(line => line.id !== props.line.id)),
    ]),
  ),
)
function change(fields: LineFields) {
  store.run({ type: 'lines.change', changes: [{ id: props.line.id, fields }] })
}
function changeBasis(basis: (typeof bases)[number]) {
  if (props.line.mass) change({ mass: { ...props.line.mass, versionId: newId(), basis } })
}
function changeTie(event: Event) {
  const text = (event.target as HTMLInputElement).value.trim()
  const named = nameSchema('The tie').safeParse(text)
  tieProblem.value = text === '' || named.success ? '' : named.error.issues[0]!.message
  if (!tieProblem.value && text !== (props.line.tie ?? '')) change({ tie: text === '' ? null : text })
}
const workable = computed(() => {
  const offered = calculatorsFor(props.line.slot)
  if (offered.length === 0) return ''
  return offered.some(one => one.gives !== 'advice')
    ? 'Work its grams out'
    : `Work out: ${offered[0]!.title.toLowerCase()}`
})
/** Tied lines go into and out of a set-up together. */
function tick(setupId: string, on: boolean) {
  const setup = store.build!.setups.find(s => s.id === setupId)!
  const together = props.line.tie
    ? store.build!.lines.filter(l => l.tie === props.line.tie && isOptional(l)).map(l => l.id)
    : [props.line.id]
  const others = setup.lineIds.filter(id => !together.includes(id))
  store.run({ type: 'setup.put', setup: { ...setup, lineIds: on ? [...others, ...together] : others } })
}
function remove() {
  store.selectedId = null
  store.run({ type: 'lines.delete', ids: [props.line.id] })
}
/** A line that may stand for several things: parts of it can be named one by one. */
const canTakeApart = computed(() => props.line.slot === 'other' && props.line.quantity === 1 && props.line.mass !== null)
const takingApart = ref(false)
const everTakenApart = ref(false)
/** A picture goes to the line it was chosen for, whatever is on view when it has come. */
const holdPicture = () => {
  const { id } = props.line
  return holderInBuild(
    'The part',
    ({ lines }) => lines.find(line => line.id === id),
    ({ pictureIds }) => ({ type: 'lines.change', changes: [{ id, fields: { pictureIds } }] }),
  )
}
</script>

<template>
  <div>
    <h2>{{ slotFacts[line.slot].label }}</h2>
    <p class="soft">
      {{ lineTitle(line) }}
    </p>
    <LineKnown :line="line" />
    <LineQuestions :line="line" />
    <LineHistory :line="line" />
    <LazyWorkOut
      v-if="working"
      :line="line"
      use="Use it for this line"
      @worked="useWorked"
      @close="working = false"
    />
    <el-button
      v-else-if="workable"
      link
      type="primary"
      class="work-out"
      @click="working = true"
    >
      {{ workable }}
    </el-button>

    <template v-if="line.state === 'candidate'">
      <p v-if="fitted">
        Could go instead of {{ fitted.name }}.
      </p>
      <el-button
        type="primary"
        @click="store.run({ type: 'line.fit', id: line.id })"
      >
        Fit this instead
      </el-button>
    </template>
    <template v-else>
      <p v-if="canTakeApart">
        <el-button @click="everTakenApart = takingApart = true">
          Name a part of it …
        </el-button>
      </p>
      <LineInstead :line="line" />
    </template>

    <h3>This line</h3>
    <div class="fields">
      <PickOne
        field="Role"
        :model-value="line.role"
        :disabled="line.slot === 'pack'"
        :options="roles"
        @update:model-value="change({ role: $event as Line['role'] })"
      />
      <PickOne
        field="Mass is"
        :model-value="line.mass?.basis"
        :disabled="!line.mass"
        :options="bases"
        @update:model-value="changeBasis($event as (typeof bases)[number])"
      />
      <el-checkbox
        class="wide"
        :model-value="line.removable"
        @change="change({ removable: !line.removable })"
      >
        Removable without tools
      </el-checkbox>
      <label class="field wide">Tied with (same word travels together)<EditField
        :value="line.tie ?? ''"
        :aria-invalid="tieProblem !== ''"
        @change="changeTie"
      /></label>
      <p
        v-if="tieProblem"
        class="problem wide"
        role="alert"
      >
        {{ tieProblem }}
      </p>
      <label class="field wide">Note<EditField
        type="textarea"
        :rows="2"
        :value="line.note"
        maxlength="2000"
        @change="change({ note: ($event.target as HTMLInputElement).value })"
      /></label>
    </div>
    <p
      v-if="doubt"
      class="note"
      data-test="doubt"
    >
      {{ doubtWords(doubt) }} <el-button
        link
        type="primary"
        @click="change({ mass: confirmed(line.mass!, newId()) })"
      >
        Both are right
      </el-button>
    </p>
    <p
      v-for="judgement in leavingOut"
      :key="judgement.card.id"
      class="note"
    >
      {{ judgement.card.place }} leaves removable accessories out: this line does not count there
      ({{ gramsWithSpread(judgement.massG, 0) }} counted), but it does under cards that count everything on board.
    </p>
    <template v-if="isOptional(line) && line.state === 'fitted'">
      <h3>Flies in</h3>
      <el-checkbox
        v-for="setup in store.build!.setups"
        :key="setup.id"
        :model-value="setup.lineIds.includes(line.id)"
        @change="tick(setup.id, !setup.lineIds.includes(line.id))"
      >
        {{ setup.name }}
      </el-checkbox>
    </template>
    <template v-if="clashing.length > 0">
      <h3>What does not fit</h3>
      <p
        v-for="finding in clashing"
        :key="finding.id"
        class="note"
      >
        <NuxtLink :to="`/builds/${store.build!.id}/fit`">{{ finding.title }}</NuxtLink><br>{{ finding.sentence }}
      </p>
    </template>
    <details
      class="what"
      :open="asked.length > 0"
    >
      <summary>What it is{{ line.properties ? '' : ': nothing said yet' }}</summary>
      <PropertyFields
        :slot-name="line.slot"
        :properties="line.properties"
        :asked="asked"
        @change="change({ properties: $event })"
      />
    </details>
    <p
      v-if="part"
      class="soft"
    >
      A part of the
      <NuxtLink :to="{ path: '/drawer', query: { part: part.id } }">drawer</NuxtLink>{{
        sameAsPart(line, part)
          ? ': weighed here, it is weighed there.'
          : '; this piece was changed for itself since.'
      }}
    </p>
    <PackFields
      v-if="line.pack"
      :pack="line.pack"
      @change="change({ pack: $event })"
    />
    <PackQuestion
      v-else-if="line.slot === 'pack'"
      :key="line.id"
      :name="line.name"
      :so-far="line.packSoFar"
      @said="change({ pack: $event })"
    />
    <h3>Pictures</h3>
    <PartPictures
      :key="line.id"
      :of="lineTitle(line)"
      :ids="line.pictureIds"
      :holder="holdPicture"
      @change="change({ pictureIds: $event })"
    />
    <p class="soft">
      {{ slotFacts[line.slot].sentence }}
    </p>
    <div class="actions">
      <el-button
        v-if="line.state !== 'candidate'"
        @click="change({ state: line.state === 'off' ? 'fitted' : 'off' })"
      >
        {{ line.state === 'off' ? 'Bring back' : 'Take off' }}
      </el-button>
      <el-button @click="everMoved = moving = true">
        Move …
      </el-button>
      <el-button @click="remove">
        Delete
      </el-button>
      <el-button @click="store.selectedId = null">
        Back to the build
      </el-button>
    </div>
    <LazyTakeOut
      v-if="everTakenApart"
      v-model="takingApart"
      :whole="line"
    />
    <LazyHandOver
      v-if="everMoved"
      v-model="moving"
      :first="[line.id]"
    />
  </div>
</template>

<style scoped>
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
}
.what {
  margin: 10px 0;
}
.work-out {
  display: block;
  margin-top: 8px;
}
.actions {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  margin-top: 12px;
}
.actions button {
  font-size: 12.5px;
  padding: 5px 9px;
}
</style>

<script setup lang="ts">
import { bases, makeMass, roles, slotFacts, type Line } from '#core/model/ledger'
import { sigmaG, spreadG } from '#core/maths/estimate'
import { lineGrams } from '#core/mass/evidence'
import { fixed, gramsFigure, gramsWithSpread, signed, spreadFigure } from '#core/text/display'
import { isOptional } from '#core/mass/loadout'
import type { LineFields } from '#core/changes/commands'
import { sameAsPart } from '#core/parts/drawer'
import { confirmed, ListingBiasTable, listingDoubt, listingObservations } from '#core/mass/listings'
import { withDisplays } from '#core/deciding/weigh'
import { calculatorsFor } from '#core/mass/mass-calculators'
import { nameSchema } from '#core/text/schemas'

const props = defineProps<{ line: Line }>()
const route = useRoute()
const drawer = useDrawerStore()
const store = useBuildStore()
const estimate = computed(() => store.estimates.of(props.line))
const spread = computed(() => spreadG(estimate.value))
const honesty = computed(() => store.honesty.of(props.line.slot))
const bookedG = computed(() => (props.line.mass ? lineGrams(props.line.mass, props.line.quantity) : 0))
/** What the honesty of listings adds, before any weighing together. */
const correctionG = computed(() => store.estimates.before(props.line).valueG - bookedG.value)
/** The weighings that move it, by name, with how much; what they move through, where it was not on the pan itself. */
const moved = computed(() =>
  store.estimates
    .movedBy(props.line)
    .filter(m => Math.abs(m.shiftG) >= 0.005)
    .map(({ id, shiftG }) => {
      const again = store.build!.lines.find(line => line.further.some(one => one.mass.versionId === id))
      const together = store.build!.observations.find(o => o.id === id)
      const own = again?.id === props.line.id || together?.subjects.some(subject => subject.id === props.line.id)
      const name = together
        ? `“${together.title}”`
        : own
          ? 'weighing it again'
          : `weighing ${again ? lineTitle(again) : 'another line'} again`
      return { id, words: own ? `Moved by ${name}` : `Moved by ${name}, through ${sharedWords.value}`, shiftG }
    }),
)
const share = computed(() => store.shares.find(entry => entry.line.id === props.line.id)?.share ?? null)
const limit = computed(() => store.overview?.binding?.limitG ?? null)
const counted = computed(() => store.overview?.counted.some(line => line.id === props.line.id) ?? false)
const pieces = computed(() => props.line.mass?.pieceReadingsG ?? null)
const fitted = computed(() => (props.line.insteadOf ? (store.lineOf(props.line.insteadOf) ?? null) : null))
const candidates = computed(() =>
  store.build!.lines.filter(line => line.state === 'candidate' && line.insteadOf === props.line.id),
)
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
const explanation = computed(() => evidenceWords(props.line, honesty.value))
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
const doubtWords = computed(() => {
  if (!doubt.value) return ''
  const { why, weighedG, listedG } = doubt.value
  const said = `${fixed(weighedG, 2)} g weighed, ${fixed(listedG, 2)} g listed`
  return why === 'slip'
    ? `${said}: is that a slip of a digit? Until one of the two is mended it teaches nothing about how parts of its kind are listed.`
    : `${said}: far from how others of its kind turned out. Weigh it once more, or look its listing up again.`
})
/** Those that can be seen in the last digit told. */
const contributions = computed(() =>
  Object.entries(estimate.value.contributions)
    .filter(([, g]) => Math.abs(g) >= 0.0005)
    .map(([key, g]) => ({ key, words: causeWords(key), g }))
    .sort((a, b) => Math.abs(b.g) - Math.abs(a.g)),
)
function causeWords(key: string): string {
  if (key.startsWith('listing:')) return 'how this kind is listed (shared)'
  if (key.startsWith('gain:reference:')) return 'the reference mass (shared)'
  if (key.startsWith('gain:'))
    return key.endsWith('unchecked') ? 'the unchecked scale (shared)' : 'the check of the scale (shared)'
  const words: Record<string, string> = {
    product: 'the part itself',
    digit: 'last digit of the listing',
    weighing: 'a reading',
    reading: 'the reading',
    zero: 'its tare',
    tared: 'the tare (shared)',
    level: 'the scale’s zero (shared)',
    linearity: 'the scale is not straight',
    pieces: 'between pieces',
    twin: 'a piece that was never on a scale',
  }
  return words[key.split(':')[0]!] ?? key
}

/** What a line that was not on the pan has in common with what was. */
const sharedWords = computed(
  () =>
    contributions.value.find(c => c.words.includes('(shared)'))?.words.replace(' (shared)', '') ?? 'a cause they share',
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
function addCandidate() {
  const id = newId()
  const name = `Another ${slotFacts[props.line.slot].label.toLowerCase()}`
  if (
    store.run({
      type: 'lines.add',
      lines: [
        {
          ...props.line,
          id,
          name,
          mass: null,
          edition: 0,
          further: [],
          listing: null,
          pack: null,
          packSoFar: null,
          properties: null,
          partId: null,
          state: 'candidate',
          insteadOf: props.line.id,
          priceEachCents: null,
          note: '',
          tie: null,
        },
      ],
      beforeId: null,
    })
  )
    store.selectedId = id
}
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
    <div class="value figure">
      {{ line.mass ? gramsFigure(estimate.valueG, spread) : 'open' }}<small v-if="line.mass">
        g{{ line.mass.evidence === 'weighed' ? '' : ' expected' }}</small> <InOunces :grams="line.mass ? estimate.valueG : null" />
    </div>
    <p>
      {{ explanation }} <el-button
        v-if="line.mass?.weighing?.method === 'typed'"
        link
        type="primary"
        @click="change({ mass: { ...withDisplays(line.mass), versionId: newId() } })"
      >
        It was another scale
      </el-button>
    </p>
    <dl class="facts">
      <template v-if="line.listing">
        <dt>
          Listed<template v-if="line.quantity > 1">
            × {{ line.quantity }}
          </template>
        </dt><dd>{{ fixed(line.listing.valueG * line.quantity, 2) }} g</dd>
      </template>
      <template v-if="Math.abs(correctionG) > 0.004">
        <dt>Correction for listings</dt><dd>{{ signed(correctionG, 2) }} g</dd>
      </template>
      <template
        v-for="one in line.further.filter(w => !w.of)"
        :key="one.mass.versionId"
      >
        <dt>Weighed again, {{ one.mass.weighing?.scaleName ?? 'typed' }}</dt><dd>{{ fixed(lineGrams(one.mass, line.quantity), 2) }} g</dd>
      </template>
      <template
        v-for="one in moved"
        :key="one.id"
      >
        <dt>{{ one.words }}</dt><dd>{{ signed(one.shiftG, 2) }} g</dd>
      </template>
      <template v-if="line.mass">
        <dt>Spread (95 %)</dt><dd>± {{ spreadFigure(spread) }} g</dd>
      </template>
      <template v-if="limit && counted">
        <dt>Share of the limit</dt><dd>{{ fixed(100 * estimate.valueG / limit, 1) }} %</dd>
      </template>
      <template v-if="share !== null && counted">
        <dt>Share of the doubt</dt><dd>{{ fixed(100 * share, 0) }} %</dd>
      </template>
      <template v-if="pieces">
        <dt>Pieces</dt><dd>{{ pieces.map(p => fixed(p, 2)).join(' ') }}</dd>
      </template>
    </dl>
    <details v-if="contributions.length > 0">
      <summary>Why ± {{ spreadFigure(spread) }}?</summary>
      <dl class="facts">
        <template
          v-for="c in contributions"
          :key="c.key"
        >
          <dt>{{ c.words }}</dt><dd>{{ fixed(Math.abs(c.g), 3) }} g</dd>
        </template><dt>one standard uncertainty</dt><dd>{{ fixed(sigmaG(estimate), 3) }} g</dd>
      </dl>
    </details>
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
      <h3>Could go here instead</h3>
      <div
        v-for="candidate in candidates"
        :key="candidate.id"
        class="candidate"
      >
        <el-button
          link
          type="primary"
          @click="store.selectedId = candidate.id"
        >
          {{ candidate.name }}
        </el-button>
        <b
          v-if="candidate.mass"
          class="figure"
          :class="store.estimates.of(candidate).valueG <= estimate.valueG ? 'word-clear' : 'word-over'"
        >{{ signed(store.estimates.of(candidate).valueG - estimate.valueG, 1) }} g</b>
        <el-button
          :aria-label="`Fit ${candidate.name} instead`"
          @click="store.run({ type: 'line.fit', id: candidate.id })"
        >
          Fit
        </el-button>
      </div>
      <el-button
        link
        type="primary"
        @click="addCandidate"
      >
        Add a candidate
      </el-button>
      <NuxtLink
        class="compare"
        :to="{ path: `/builds/${store.build!.id}/choosing`, query: { line: line.id } }"
      >Compare all that could go here</NuxtLink>
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
      {{ doubtWords }} <el-button
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
.value {
  font-size: 30px;
  line-height: 1;
  letter-spacing: -1px;
  margin: 8px 0 4px;
}
.value small {
  font-size: 14px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
}
.candidate {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding: 4px 0;
}
.candidate .is-link {
  text-align: left;
  white-space: normal;
  font-weight: 500;
  color: var(--ink);
  padding-left: 0;
  font-size: 12.5px;
}
.candidate button:last-child {
  padding: 2px 9px;
  font-size: 12px;
}
.compare {
  display: block;
  margin: 4px 0 0 4px;
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

<script setup lang="ts">
import { priceEachCents, type Part } from '#core/parts/drawer'
import { slotFacts, type Slot } from '#core/model/ledger'
import { centsFigure, fixed } from '#core/text/display'
import { withDisplays } from '#core/deciding/weigh'
import { isNotRead, readCents, readGrams, readNumber } from '#core/text/units'
import { partSchema, type PartHistory } from '#shared/schemas/drawer'

const props = defineProps<{ part: Part }>()
const emit = defineEmits<{ close: []; remove: [part: Part] }>()
const drawer = useDrawerStore()
const scales = useScalesStore()
const shelf = useShelfStore()
const { settings } = storeToRefs(useSettingsStore())
const problem = ref('')
const versions = shallowRef<PartHistory['versions']>([])
const target = ref('')
const pieces = ref('1')
const placed = ref('')
const left = computed(() => drawer.left(props.part))
const on = computed(() => drawer.placementsOf.get(props.part.id) ?? [])
const kit = computed(() => drawer.kits.find(k => k.id === props.part.kitId))
onMounted(() => {
  if (shelf.entries.length === 0)
    shelf.load().catch(error => {
      problem.value = sentenceOf(error)
    })
})
const historyProblem = ref('')
watch(
  () => [props.part.id, props.part.mass?.versionId],
  async ([id]) => {
    historyProblem.value = ''
    try {
      const found = await drawer.history(id!)
      if (id === props.part.id) versions.value = found
    } catch (error) {
      if (id === props.part.id) historyProblem.value = `Its history could not be read: ${sentenceOf(error)}`
    }
  },
  { immediate: true },
)

async function change(fields: Partial<Part>) {
  const parsed = partSchema.safeParse({ ...props.part, ...fields })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (!parsed.success) return
  if (!(await drawer.change(props.part, fields))) {
    problem.value = drawer.problem
    drawer.problem = ''
  }
}
const textOf = (event: Event) => (event.target as HTMLInputElement).value
function count(key: 'owned' | 'lost' | 'scrapped' | 'missing' | 'soldIn', event: Event) {
  const read = readNumber(textOf(event) || '0')
  if (isNotRead(read)) problem.value = read.problem
  else void change({ [key]: read.value })
}
function price(event: Event) {
  const read = readCents(textOf(event))
  if (isNotRead(read)) problem.value = read.problem
  else void change({ priceCents: read.cents })
}
function grams(evidence: 'listed' | 'weighed', event: Event) {
  const read = readGrams(textOf(event))
  if (isNotRead(read)) {
    problem.value = read.problem
    return
  }
  const mass = {
    versionId: newId(),
    evidence,
    valueG: read.massG,
    valueCount: 1,
    resolutionG: read.stepG,
    pieceReadingsG: null,
    halfRangeG: null,
    ownSpreadG: null,
    basis: 'as supplied' as const,
    origin: 'typed in the drawer',
    weighing: null,
  }
  const taken = scales.typed(mass)
  if ('problem' in taken) {
    problem.value = taken.problem
    return
  }
  void change(
    evidence === 'listed'
      ? {
          listing: { valueG: read.massG, resolutionG: read.stepG },
          ...(props.part.mass?.evidence === 'weighed' ? {} : { mass }),
        }
      : { mass: taken.mass },
  )
}
const eachText = computed(() =>
  props.part.mass?.evidence === 'weighed'
    ? String(Number((withDisplays(props.part.mass).valueG / props.part.mass.valueCount).toFixed(4)))
    : '',
)
/** A part put into a build is a line that stays this part. */
async function place() {
  const quantity = Number(pieces.value)
  if (!Number.isInteger(quantity) || quantity < 1 || quantity > 999) {
    problem.value = 'How many: a whole number from 1 to 999.'
    return
  }
  const build = shelf.entries.find(b => b.id === target.value)
  if (!build) return
  const kept = await drawer.placeOn(build.id, props.part, quantity)
  problem.value = kept ? '' : drawer.problem
  placed.value = kept ? `${quantity} × on ${build.name} now.` : ''
  drawer.problem = ''
}
/** A picture goes to the part it was chosen for, whatever is on view when it has come. */
function holdPicture() {
  const { id: partId } = props.part
  return async (id: string) => {
    const part = drawer.partOf(partId)
    if (!part) throw new Error('The part of this picture is not in the drawer any more. The picture was not kept.')
    if (!(await drawer.change(part, { pictureIds: [...part.pictureIds, id] }))) throw new Error(drawer.problem)
  }
}
</script>

<template>
  <div>
    <h2>{{ part.name }}</h2>
    <p class="soft">
      {{ slotFacts[part.slot].label }}<template v-if="kit">
        from {{ kit.name }}
      </template>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <dl class="facts">
      <dt>Owned</dt><dd>{{ part.owned }}</dd>
      <template
        v-for="p in on"
        :key="p.lineId"
      >
        <dt>
          on <NuxtLink :to="{ path: `/builds/${p.buildId}/parts`, query: { line: p.lineId } }">{{ p.buildName }}</NuxtLink>{{
            p.state === 'fitted' ? '' : `, ${p.state}`
          }}
        </dt><dd>{{ p.quantity }}</dd>
      </template>
      <template v-if="part.lost">
        <dt>Lost</dt><dd>{{ part.lost }}</dd>
      </template><template v-if="part.scrapped">
        <dt>Scrapped</dt><dd>{{ part.scrapped }}</dd>
      </template><template v-if="part.missing">
        <dt>Missing from the bag</dt><dd>{{ part.missing }}</dd>
      </template>
      <dt><b>In the drawer</b></dt><dd :class="{ 'word-over': left < 0 }">
        <b>{{ left }}</b>
      </dd>
    </dl>
    <p
      v-if="left < 0"
      class="note"
    >
      Builds claim {{ -left }} more than you own.
    </p>
    <h3>Put on a build</h3>
    <el-form
      class="place"
      @submit.prevent="place"
    >
      <el-input
        v-model="pieces"
        class="figure"
        aria-label="How many"
        inputmode="numeric"
      /><PickOne
        v-model="target"
        label="Build"
        :options="shelf.entries.filter(e => !e.reference).map((b) => ({ value: b.id, label: b.name }))"
        placeholder="which build"
      /><el-button
        native-type="submit"
        :disabled="target === ''"
      >
        Put on
      </el-button>
    </el-form>
    <p
      v-if="placed"
      role="status"
    >
      {{ placed }}
    </p>
    <h3>Grams and money</h3>
    <div class="fields">
      <label class="field">Listed, g each<EditField
        :value="part.listing?.valueG ?? ''"
        class="figure"
        @change="grams('listed', $event)"
      /></label>
      <label class="field">Weighed, g each<EditField
        :value="eachText"
        class="figure"
        @change="grams('weighed', $event)"
      /></label>
      <label class="field">Price, {{ settings.currency }}<EditField
        :value="part.priceCents === null ? '' : centsFigure(part.priceCents)"
        class="figure"
        @change="price"
      /></label>
      <label class="field">for so many pieces<EditField
        :value="part.soldIn"
        class="figure"
        @change="count('soldIn', $event)"
      /></label>
    </div>
    <p
      v-if="part.soldIn > 1 && part.priceCents !== null"
      class="soft"
    >
      {{ centsFigure(priceEachCents(part)!) }} {{ settings.currency }} each; sold in {{ part.soldIn }}.
    </p>
    <p
      v-if="historyProblem"
      class="note"
    >
      {{ historyProblem }}
    </p>
    <details v-if="part.mass">
      <summary>How its grams were known{{ versions.length > 1 ? `, ${versions.length} versions` : '' }}</summary><dl class="facts">
        <template
          v-for="v in [...versions].reverse()"
          :key="v.mass.versionId"
        >
          <dt>
            {{ dayOf(v.madeAt, 'short') }}, {{ v.mass.evidence }},
            {{ v.came }}
          </dt><dd>{{ fixed(v.mass.valueG / v.mass.valueCount, 3) }}</dd>
        </template>
      </dl>
    </details>
    <h3>What it is</h3>
    <PropertyFields
      :slot-name="part.slot"
      :properties="part.properties"
      @change="change({ properties: $event })"
    />
    <h3>Pictures</h3>
    <PartPictures
      :key="part.id"
      :of="part.name"
      :ids="part.pictureIds"
      :holder="holdPicture"
      @change="change({ pictureIds: [...$event] })"
    />
    <h3>How many, where from</h3>
    <div class="fields">
      <label class="field wide">Name<EditField
        :value="part.name"
        @change="change({ name: textOf($event) })"
      /></label>
      <PickOne
        field="Kind"
        :model-value="part.slot"
        :options="slotChoices"
        @update:model-value="change({ slot: $event as Slot, properties: null, pack: null, packSoFar: null })"
      />
      <label class="field">Owned<EditField
        :value="part.owned"
        class="figure"
        @change="count('owned', $event)"
      /></label>
      <label class="field">Lost<EditField
        :value="part.lost"
        class="figure"
        @change="count('lost', $event)"
      /></label>
      <label class="field">Scrapped<EditField
        :value="part.scrapped"
        class="figure"
        @change="count('scrapped', $event)"
      /></label>
      <label class="field">Missing from the bag<EditField
        :value="part.missing"
        class="figure"
        @change="count('missing', $event)"
      /></label>
      <label class="field">Bag or box<EditField
        :value="part.bag"
        @change="change({ bag: textOf($event) })"
      /></label>
      <label class="field wide">Link or shop, in words<EditField
        :value="part.link"
        @change="change({ link: textOf($event) })"
      /></label>
      <label class="field wide">Tags, with commas<EditField
        :value="part.tags.join(', ')"
        @change="change({ tags: textOf($event).split(',').map(t => t.trim()).filter(t => t) })"
      /></label>
      <label class="field wide">Note<EditField
        type="textarea"
        :rows="2"
        :value="part.note"
        maxlength="2000"
        @change="change({ note: ($event.target as HTMLInputElement).value })"
      /></label>
    </div>
    <template v-if="part.slot === 'pack'">
      <PackFields
        v-if="part.pack"
        :pack="part.pack"
        @change="change({ pack: $event })"
      />
      <PackQuestion
        v-else
        :key="part.id"
        :name="part.name"
        :so-far="part.packSoFar"
        @said="change({ pack: $event, packSoFar: null })"
      />
    </template>
    <div class="actions">
      <el-button @click="emit('remove', part)">
        Delete
      </el-button><el-button @click="emit('close')">
        Back to the drawer
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  gap: 6px;
}
.place .el-input {
  width: 52px;
}
.place select {
  flex: 1;
}
.actions {
  display: flex;
  gap: 6px;
  margin-top: 14px;
}
summary {
  cursor: pointer;
  color: var(--plum-text);
  font-weight: 600;
}
</style>

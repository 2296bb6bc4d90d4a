<script setup lang="ts">
import { coverageFactor95 } from '#core/maths/numbers'
import { sigmaG } from '#core/maths/estimate'
import { figure, gramsFigure } from '#core/text/display'
import { packLines } from '#core/mass/loadout'
import type { Line } from '#core/model/ledger'
import type { NetworkReply } from '#shared/schemas/network'
import type { LabelTold } from './ThingLabel.vue'

/** The weight card and labels as they lie on paper, and what goes on the sheet. */
const store = useBuildStore()
const drawer = useDrawerStore()
const network = shallowRef<NetworkReply | null>(null)
const problem = ref('')
useSettingsStore()
  .network()
  .then(found => (network.value = found))
  .catch(() => undefined)
drawer.load().catch(() => undefined)
useScalesStore()
  .load()
  .catch(() => undefined)

/** A phone opens the first address of the network; without one the codes open on this machine only. */
const base = computed(() => network.value?.addresses[0]?.address ?? location.origin)
const buildAddress = computed(() => `${base.value}/builds/${store.build!.id}/parts`)

const shows = reactive({ card: true, strip: true, cards: true, code: true, photo: false, lines: false })
/** The newest picture of a weighing of this craft: on the card only where that is asked for. */
const pictureId = computed(
  () =>
    [...store.build!.observations]
      .sort((a, b) => b.takenAt.localeCompare(a.takenAt))
      .flatMap(({ pictureIds }) => pictureIds.slice(-1))[0] ?? null,
)
const photo = ref('')
watch(
  () => (shows.photo ? pictureId.value : null),
  async id => {
    photo.value = ''
    if (id === null) return
    try {
      const read = await embeddedPicture(id)
      if (shows.photo && pictureId.value === id) photo.value = read
    } catch (error) {
      problem.value = sentenceOf(error)
    }
  },
)
const papers = [
  { value: 'A4', label: 'A4' },
  { value: 'letter', label: 'Letter' },
] as const
const paper = ref<'A4' | 'letter'>('A4')
const sizes = [
  { value: '62x29', label: '62 × 29 mm' },
  { value: '50x25', label: '50 × 25 mm' },
  { value: '40x28', label: '40 × 28 mm' },
] as const
const size = ref<(typeof sizes)[number]['value']>('62x29')
const [widthMm, heightMm] = [computed(() => Number(size.value.split('x')[0])), computed(() => Number(size.value.split('x')[1]))]

const gramsOf = (line: Line) => {
  const estimate = store.estimates.of(line)
  return line.mass ? `${gramsFigure(estimate.valueG, coverageFactor95 * sigmaG(estimate))} g` : ''
}
const packLabels = computed(() =>
  packLines(store.build!).map((line): LabelTold => {
    const { pack } = line
    return {
      key: `pack ${line.id}`,
      name: pack?.label || line.name,
      facts: pack
        ? [`${pack.cells}S ${pack.chemistry}, ${figure(pack.capacityMah, 0)} mAh`, pack.plug, pack.cRating ? `${pack.cRating} C` : '']
            .filter(text => text !== '')
        : [line.name],
      grams: gramsOf(line),
      address: `${base.value}/builds/${store.build!.id}/parts?line=${line.id}`,
    }
  }),
)
const bagLabels = computed(() => {
  const bags = new Map<string, string[]>()
  for (const part of drawer.parts)
    if (part.bag.trim() !== '') bags.set(part.bag.trim(), [...(bags.get(part.bag.trim()) ?? []), part.name])
  return [...bags].map(([bag, names]): LabelTold => ({
    key: `bag ${bag}`,
    name: bag,
    facts: names.slice(0, 3),
    grams: '',
    address: `${base.value}/drawer?filter=${encodeURIComponent(bag)}`,
  }))
})
const chosen = ref<string[]>([])
watch(
  packLabels,
  (labels, before) => {
    if (!before) chosen.value = labels.map(({ key }) => key)
  },
  { immediate: true },
)
const labels = computed(() => [...packLabels.value, ...bagLabels.value].filter(({ key }) => chosen.value.includes(key)))

const sheet = useTemplateRef<HTMLElement>('sheet')
function print() {
  const style = document.createElement('style')
  style.textContent = `@page { size: ${paper.value} portrait; margin: 12mm }`
  document.head.append(style)
  window.addEventListener('afterprint', () => style.remove(), { once: true })
  printOne(sheet.value)
}
async function keep(format: 'PNG' | 'SVG') {
  problem.value = ''
  const drawing = sheet.value?.querySelector<SVGSVGElement>('svg.weight-card')
  if (!drawing) return
  const name = `Weight card of ${store.build!.name}`
  try {
    await keepDrawing(drawing, name, format)
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <main class="worksheet desk">
    <div class="station-head no-print">
      <slot name="head" />
    </div>
    <div
      ref="sheet"
      class="sheet"
      :class="paper"
    >
      <p v-if="store.overview!.counted.length === 0">
        There is nothing on this craft yet: a card is made from the first line on.
      </p>
      <WeightCard
        v-else-if="shows.card"
        :address="buildAddress"
        :photo="photo"
        :shows="shows"
      />
      <div
        v-if="labels.length > 0"
        class="labels"
      >
        <ThingLabel
          v-for="label in labels"
          :key="label.key"
          :label="label"
          :width-mm="widthMm"
          :height-mm="heightMm"
        />
      </div>
      <table
        v-if="shows.lines"
        class="lines"
      >
        <caption>Every line of {{ store.build!.name }}</caption>
        <tbody>
          <tr
            v-for="line in store.overview!.counted"
            :key="line.id"
          >
            <td>{{ lineTitle(line) }}</td><td>{{ line.mass?.evidence ?? 'open' }}</td><td class="right">
              {{ gramsOf(line) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </main>
  <aside
    class="inspector no-print"
    aria-label="What goes on the sheet"
  >
    <h2>What goes on the sheet</h2>
    <h3>Weight card</h3>
    <div class="ticks">
      <el-checkbox v-model="shows.card">
        the card itself
      </el-checkbox>
      <el-checkbox
        v-model="shows.strip"
        :disabled="!shows.card"
      >
        mass strip
      </el-checkbox>
      <el-checkbox
        v-model="shows.cards"
        :disabled="!shows.card"
      >
        every chosen rule card
      </el-checkbox>
      <el-checkbox
        v-model="shows.code"
        :disabled="!shows.card"
      >
        code to the build
      </el-checkbox>
      <el-checkbox
        v-if="pictureId !== null"
        v-model="shows.photo"
        :disabled="!shows.card"
      >
        photo of a weighing
      </el-checkbox>
      <el-checkbox v-model="shows.lines">
        every line
      </el-checkbox>
    </div>
    <h3>Labels</h3>
    <el-checkbox-group
      v-model="chosen"
      class="ticks"
      aria-label="Labels"
    >
      <el-checkbox
        v-for="label in [...packLabels, ...bagLabels]"
        :key="label.key"
        :value="label.key"
      >
        {{ label.key.startsWith('bag') ? `bag: ${label.name}` : label.name }} <span class="soft">{{ label.facts[0] }}</span>
      </el-checkbox>
    </el-checkbox-group>
    <div class="choices">
      <div>
        <PickOne
          v-model="paper"
          :options="papers"
          field="Paper"
        />
      </div>
      <div>
        <PickOne
          v-model="size"
          :options="sizes"
          field="Label size"
        />
      </div>
    </div>
    <p class="buttons">
      <el-button
        type="primary"
        @click="print"
      >
        Print the sheet
      </el-button>
      <el-button
        v-for="format in ['PNG', 'SVG'] as const"
        :key="format"
        :disabled="!shows.card"
        @click="keep(format)"
      >
        Card as {{ format }}
      </el-button>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p class="caution">
      {{ network?.on
        ? 'The codes open the build and the packs on a phone in your own network only. They hold an address and no figures.'
        : 'The application is not open to the network: the codes open on this machine only. See Settings, Home network.' }}
    </p>
  </aside>
</template>

<style scoped>
.desk {
  background: var(--paper);
}
.sheet {
  background: #fff;
  color: #2a2333;
  padding: 12mm;
  max-width: 210mm;
  box-shadow: 0 2px 14px rgb(42 35 51 / 14%);
}
.sheet.letter {
  max-width: 216mm;
}
.labels {
  display: flex;
  flex-wrap: wrap;
  margin-top: 6mm;
}
.lines {
  margin-top: 6mm;
  width: 100%;
  font-size: 11px;
  border-collapse: collapse;
}
.lines td {
  border-bottom: 1px solid #e2d7c1;
  padding: 2px 6px;
}
.lines caption {
  text-align: left;
  font-weight: 600;
}
.lines .right {
  text-align: right;
  font-family: var(--mono);
}
.ticks {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
.choices > * {
  flex: 1;
  min-width: 118px;
}
.choices,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
.caution {
  background: var(--note);
  border-left: 3px solid var(--close);
  padding: 8px 10px;
}
@media print {
  .lines {
    break-before: page;
  }
  .sheet {
    padding: 0;
    box-shadow: none;
    max-width: none;
  }
}
@media screen and (max-width: 760px) {
  .sheet {
    padding: 12px;
    overflow-x: auto;
  }
}
</style>

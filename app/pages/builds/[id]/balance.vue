<script setup lang="ts">
import { cameraViews, meetingsOf, slideTable, type Piece, type Vec3 } from '#core/aircraft/balance'
import type { LoadoutChoice, PiecePlace } from '#core/model/ledger'
import { fixed } from '#core/text/display'

const store = useBuildStore()
const route = useRoute()
const router = useRouter()
const { shown, movingKeys, balance: live, thrustToWeight, drag, nudge, put, free, keep } = useBalance()
/** What is read, not watched, follows a hand thirty times a second; the drawings follow with every frame. */
const balance = refThrottled(live, 30)
const pieceOf = (key: string) => balance.value?.layout.pieces.find(piece => piece.key === key) ?? null

const selectedKey = computed(() => (typeof route.query.piece === 'string' ? route.query.piece : null))
const selected = computed(() => (selectedKey.value === null ? null : pieceOf(selectedKey.value)))
/** What is chosen here is chosen on the strip too. */
function select(key: string | null) {
  if (key !== selectedKey.value) void router.replace({ query: { ...route.query, piece: key ?? undefined } })
  store.selectedId = key === null ? null : (pieceOf(key)?.lineId ?? null)
}
watch(
  () => store.selectedId,
  id => {
    if (id === null || selected.value?.lineId === id) return
    const piece = balance.value?.layout.pieces.find(one => one.lineId === id)
    if (piece) select(piece.key)
  },
)
onBeforeUnmount(() => {
  store.selectedId = null
})
const choose = (choice: LoadoutChoice) =>
  router.replace({ query: { ...route.query, with: `${choice.setupId}.${choice.packLineId ?? ''}` } })

const pieces = computed(() => balance.value?.layout.pieces ?? [])
/** Pieces by their lines, in the order of the ledger. */
const byLine = computed(() =>
  pieces.value
    .filter(piece => piece.number === 0)
    .map(piece => {
      const all = pieces.value.filter(one => one.lineId === piece.lineId)
      return { piece, count: all.length, isAssumed: all.some(one => one.isAssumed) }
    }),
)
const placedWords = computed(() => {
  const own = pieces.value.length - (balance.value?.assumed ?? 0)
  return `${pieces.value.length} pieces, ${own === 0 ? 'none' : own} placed by you`
})
const meetings = computed(() => (balance.value ? meetingsOf(balance.value.layout) : []))
/** Pieces that are in the way of others: marked in the drawings, and said. */
const inTheWay = computed((before?: ReadonlySet<string>): ReadonlySet<string> => {
  const now = new Set(meetings.value.flatMap(({ pieces: two }) => two.map(({ key }) => key)))
  return before?.size === now.size && [...now].every(key => before.has(key)) ? before : now
})
const meetingWords = computed(() => [
  ...new Set(
    meetings.value.map(({ kind, pieces: [a, b] }) =>
      kind === 'in the props' ? `${a.name} is in the props.` : `${a.name} and ${b.name} are in one place.`,
    ),
  ),
])
const bob = computed(() => (balance.value?.centre ? bobWords(balance.value) : null))
const slide = computed(() => balance.value?.slide ?? null)
const hover = computed(() => balance.value?.hover ?? null)
const isUncertain = computed(
  () => balance.value?.centre && balance.value.spreadMm[0] > Math.max(0.5, Math.abs(balance.value.centre.atMm[0])),
)
/** The heaviest piece that nobody has placed: saying where it sits narrows most. */
const toPlace = computed(() => {
  const reach = ({ mass, sigmaMm }: Piece) => mass.valueG * sigmaMm[0]
  return pieces.value.filter(piece => piece.isAssumed).sort((a, b) => reach(b) - reach(a))[0] ?? null
})
function slidePack() {
  const { pack, slide: by } = balance.value!
  if (pack && by) put(pack, [by.toMm, pack.atMm[1], pack.atMm[2]])
}
function place(piece: Piece, atMm: Vec3, more: Partial<PiecePlace>) {
  put(piece, atMm, more)
}
const packSides = [
  { value: 'above', label: 'Pack above' },
  { value: 'below', label: 'Pack below' },
]
const packSide = computed({
  get: () => store.build!.places?.packSide ?? 'above',
  set: side => void store.run({ type: 'places.pack', side }),
})
const stationViews = [
  ['layout', 'Layout'],
  ['camera', 'Camera view'],
] as const
const view = computed(() => (route.query.view === 'camera' ? 'camera' : 'layout'))
const show = (key: string) => router.replace({ query: { ...route.query, view: key === 'layout' ? undefined : key } })
/** Where each pack sits with each set-up, and what else would help: counted anew when a hand that moves a piece pauses. */
const paused = refDebounced(shown, 150)
const pausedBalance = refDebounced(balance, 150)
const slides = computed(() => (paused.value ? slideTable(paused.value, store.estimates) : []))
const cameras = computed(() =>
  view.value === 'camera' && balance.value ? cameraViews(store.build!, balance.value.layout) : [],
)
const views = [
  ['above', 'From above'],
  ['side', 'From the left side'],
  ['front', 'From the front'],
] as const
</script>

<template>
  <div class="station">
    <main class="worksheet">
      <div class="station-head">
        <h1>Balance</h1><span class="soft say">{{ placedWords }}; dashed: as usual</span><span class="gap" />
        <el-segmented
          v-if="balance?.pack && view === 'layout'"
          v-model="packSide"
          :options="packSides"
          aria-label="Where the pack sits"
        />
        <ViewTabs
          :views="stationViews"
          :view="view"
          label="Views of Balance"
          class="no-print"
          @show="show"
        />
      </div>
      <StationSays page="balance" />
      <p
        v-if="!balance?.centre"
        class="empty"
      >
        Nothing here weighs anything yet: add parts with their grams, and the craft is hung by itself.
        <NuxtLink
          class="button"
          :to="`/builds/${store.build!.id}/parts`"
        >
          Add parts
        </NuxtLink>
      </p>
      <template v-else-if="view === 'camera'">
        <CameraPicture
          v-for="one in cameras"
          :key="one.piece.key"
          :view="one"
          @keep="place(one.piece, one.piece.atMm, { tiltDeg: $event })"
        />
        <p
          v-if="cameras.length === 0"
          class="empty"
        >
          No camera flies in this loadout. A payload is looked through too, once its field of view is said.
        </p>
      </template>
      <div
        v-else
        class="desk"
      >
        <div class="drawings">
          <figure
            v-for="[from, title] in views"
            :key="from"
            :class="from"
          >
            <figcaption class="soft">
              {{ title }}{{ from === 'front' ? '' : ', nose left' }}
            </figcaption>
            <CraftView
              v-if="live"
              :balance="live"
              :from="from"
              :title="title"
              :selected-key="selectedKey"
              :in-the-way="inTheWay"
              :moving="movingKeys"
              @select="select"
              @drag="drag"
              @drop="keep"
              @nudge="nudge"
            />
          </figure>
        </div>
        <div class="answers">
          <div class="answer">
            <HangLoupe :balance="balance" />
            <div>
              <div class="offset figure">
                {{ fixed(Math.abs(balance.centre.atMm[0]), 1) }}<small> mm ± {{ fixed(balance.spreadMm[0], 1) }}</small>
              </div>
              <b :class="`word-${bob!.tone}`">{{ bob!.word }}</b>
              <p data-test="hangs">
                {{ hangsSentence(balance) }}
                <b>{{ slideSentence(balance) }}</b>
              </p>
              <el-button
                v-if="slide && isWorthSliding(balance)"
                type="primary"
                @click="slidePack"
              >
                Slide it {{ slide.byMm > 0 ? 'forward' : 'back' }}
              </el-button>
            </div>
          </div>
          <p
            v-if="isUncertain && toPlace"
            class="note"
          >
            The places are not known well enough to tell which way it hangs. What narrows it most:
            <el-button
              link
              type="primary"
              @click="select(toPlace.key)"
            >
              say where {{ toPlace.name }} sits
            </el-button>
          </p>
          <p
            v-if="meetingWords.length > 0"
            class="note"
            data-test="meetings"
          >
            {{ meetingWords.join(' ') }}
          </p>
          <div class="tiles">
            <div class="tile">
              <small>Left and right</small>
              <b class="figure">{{ fixed(Math.abs(balance.centre.atMm[1]), 1) }} ± {{ fixed(balance.spreadMm[1], 1) }} mm</b>
              <small>{{ sideWords(balance.centre.atMm[1]) }}</small>
            </div>
            <div
              v-if="balance.abovePropsMm !== null"
              class="tile"
            >
              <small>{{ balance.abovePropsMm < 0 ? 'Below the prop plane' : 'Above the prop plane' }}</small>
              <b class="figure">{{ fixed(Math.abs(balance.abovePropsMm), 1) }} ± {{ fixed(balance.spreadMm[2], 1) }} mm</b>
              <small>pack {{ packSide }}</small>
            </div>
            <div
              v-if="hover && !('problem' in hover)"
              class="tile"
            >
              <small><TermTip word="Hover load">Hardest motor at hover</TermTip></small>
              <b class="figure">{{ fixed(hover.greatestG, 1) }} g</b>
              <small>{{ levelWords(hover, thrustToWeight) }}</small>
            </div>
            <div
              v-if="balance.gyrationMm"
              class="tile"
            >
              <small><TermTip word="Radius of gyration">How far out the mass sits</TermTip></small>
              <b class="figure">{{ balance.gyrationMm.map(mm => fixed(mm, 0)).join(' · ') }} mm</b>
              <small>roll, pitch, yaw</small>
            </div>
          </div>
          <p
            v-if="hover && 'problem' in hover"
            class="note"
          >
            {{ hoverProblemWords(hover) }}
          </p>
          <SlideTable
            :rows="slides"
            @choose="choose"
          />
          <OtherMoves
            v-if="bob!.tone !== 'clear' && pausedBalance"
            :balance="pausedBalance"
          />
          <OtherArrangements />
          <TurningBeside
            v-if="pausedBalance"
            :balance="pausedBalance"
          />
          <TapeStrip
            v-if="balance.layout.tray && slides.length > 0"
            :rows="slides"
            :tray="balance.layout.tray"
          />
          <p
            v-if="balance.layout.tray?.isFrontAssumed && balance.pack"
            class="soft"
          >
            Nobody has said where the tray begins: it is taken to lie in the middle. Its front edge is a property of the
            frame, under <NuxtLink :to="`/builds/${store.build!.id}/parts`">Parts</NuxtLink>.
          </p>
        </div>
      </div>
    </main>
    <aside
      class="inspector"
      aria-label="Inspector"
    >
      <PieceInspector
        v-if="selected && balance"
        :piece="selected"
        :balance="balance"
        @put="(at, more) => place(selected!, at, more)"
        @free="free(selected)"
        @close="select(null)"
      />
      <template v-else>
        <h2>Pieces</h2>
        <p class="soft">
          Choose one here or in a drawing, then drag it, nudge it with the arrows, or type where it sits.
        </p>
        <ul class="pieces">
          <li
            v-for="{ piece, count, isAssumed } in byLine"
            :key="piece.key"
          >
            <el-button
              link
              type="primary"
              :title="piece.name"
              @click="select(piece.key)"
            >
              {{ piece.name }}
            </el-button>
            <span class="figure">{{ count > 1 ? `${count} × ` : '' }}{{ fixed(piece.mass.valueG, 2) }}</span>
            <small>{{ isAssumed ? 'assumed' : 'placed' }}</small>
          </li>
        </ul>
        <p
          v-if="balance && balance.layout.spread.length > 0"
          class="soft"
        >
          Spread over the craft: {{ balance.layout.spread.map(line => line.name).join(', ') }}.
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.say {
  font-size: 12.5px;
}
.empty {
  padding: 40px;
  text-align: center;
}
.desk {
  display: grid;
  grid-template-columns: minmax(260px, 5fr) 7fr;
  gap: 18px;
  align-items: start;
}
.drawings {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}
figure {
  margin: 0;
}
figcaption {
  font-size: 12px;
}
.above :deep(.craft) {
  height: 290px;
}
.side :deep(.craft),
.front :deep(.craft) {
  height: 130px;
}
.answers {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  min-width: 0;
}
.answers > * {
  contain: layout;
}
.answer {
  display: flex;
  gap: 14px;
  align-items: start;
}
.answer p {
  margin: 6px 0 8px;
}
.offset {
  font-size: 30px;
  line-height: 1.1;
}
.offset small {
  font-size: 14px;
  color: var(--ink-soft);
}
.tiles {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.tile {
  background: var(--paper);
  border-radius: 6px;
  padding: 8px 12px;
  display: grid;
  gap: 2px;
}
.tile b {
  font-size: 16px;
}
.tile small {
  color: var(--ink-soft);
}
.pieces {
  list-style: none;
  padding: 0;
  margin: 0;
}
.pieces li {
  display: grid;
  grid-template-columns: 1fr auto 58px;
  gap: 8px;
  align-items: baseline;
  border-bottom: 1px solid var(--line);
  padding: 2px 0;
}
.pieces :deep(.el-button) {
  justify-content: start;
  min-width: 0;
  margin: 0;
}
.pieces :deep(.el-button > span) {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.pieces small {
  color: var(--ink-soft);
}
@media screen and (max-width: 760px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .answers {
    order: -1;
  }
  .answer {
    flex-wrap: wrap;
  }
  .loupe {
    width: 120px;
  }
  .station-head .gap {
    display: none;
  }
  .say {
    flex-basis: 100%;
  }
  .pieces :deep(.el-button) {
    min-height: 44px;
  }
}
</style>

<script setup lang="ts">
import { slideTable, type Piece } from '#core/aircraft/balance'
import type { LoadoutChoice } from '#core/model/ledger'
import { fixed } from '#core/text/display'

/** How the loadout on view hangs, in a sentence and in figures, and what would help. */
const { packSide } = defineProps<{ packSide: string }>()
const emit = defineEmits<{ select: [key: string]; choose: [choice: LoadoutChoice] }>()
const store = useBuildStore()
const { balance, paused, pausedBalance, meetings, thrustToWeight, put } = useBalance()
/** It is here only where something weighs something. */
const hanging = computed(() => balance.value!)
const centre = computed(() => hanging.value.centre!)
const meetingWords = computed(() => [
  ...new Set(
    meetings.value.map(({ kind, pieces: [a, b] }) =>
      kind === 'in the props' ? `${a.name} is in the props.` : `${a.name} and ${b.name} are in one place.`,
    ),
  ),
])
const bob = computed(() => bobWords(hanging.value))
const slide = computed(() => hanging.value.slide)
const hover = computed(() => hanging.value.hover)
const isUncertain = computed(() => hanging.value.spreadMm[0] > Math.max(0.5, Math.abs(centre.value.atMm[0])))
/** The heaviest piece that nobody has placed: saying where it sits narrows most. */
const toPlace = computed(() => {
  const reach = ({ mass, sigmaMm }: Piece) => mass.valueG * sigmaMm[0]
  return hanging.value.layout.pieces.filter(piece => piece.isAssumed).sort((a, b) => reach(b) - reach(a))[0] ?? null
})
function slidePack() {
  const { pack, slide: by } = hanging.value
  if (pack && by) put(pack, [by.toMm, pack.atMm[1], pack.atMm[2]])
}
const slides = computed(() => (paused.value ? slideTable(paused.value, store.estimates) : []))
</script>

<template>
  <div class="answers">
    <div class="answer">
      <HangLoupe :balance="hanging" />
      <div>
        <div class="offset figure">
          {{ fixed(Math.abs(centre.atMm[0]), 1) }}<small> mm ± {{ fixed(hanging.spreadMm[0], 1) }}</small>
        </div>
        <b :class="`word-${bob.tone}`">{{ bob.word }}</b>
        <p data-test="hangs">
          {{ hangsSentence(hanging) }}
          <b>{{ slideSentence(hanging) }}</b>
        </p>
        <el-button
          v-if="slide && isWorthSliding(hanging)"
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
        @click="emit('select', toPlace.key)"
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
        <b class="figure">{{ fixed(Math.abs(centre.atMm[1]), 1) }} ± {{ fixed(hanging.spreadMm[1], 1) }} mm</b>
        <small>{{ sideWords(centre.atMm[1]) }}</small>
      </div>
      <div
        v-if="hanging.abovePropsMm !== null"
        class="tile"
      >
        <small>{{ hanging.abovePropsMm < 0 ? 'Below the prop plane' : 'Above the prop plane' }}</small>
        <b class="figure">{{ fixed(Math.abs(hanging.abovePropsMm), 1) }} ± {{ fixed(hanging.spreadMm[2], 1) }} mm</b>
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
        v-if="hanging.gyrationMm"
        class="tile"
      >
        <small><TermTip word="Radius of gyration">How far out the mass sits</TermTip></small>
        <b class="figure">{{ hanging.gyrationMm.map(mm => fixed(mm, 0)).join(' · ') }} mm</b>
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
      @choose="emit('choose', $event)"
    />
    <OtherMoves
      v-if="bob.tone !== 'clear' && pausedBalance"
      :balance="pausedBalance"
    />
    <OtherArrangements />
    <TurningBeside
      v-if="pausedBalance"
      :balance="pausedBalance"
    />
    <TapeStrip
      v-if="hanging.layout.tray && slides.length > 0"
      :rows="slides"
      :tray="hanging.layout.tray"
    />
    <p
      v-if="hanging.layout.tray?.isFrontAssumed && hanging.pack"
      class="soft"
    >
      Nobody has said where the tray begins: it is taken to lie in the middle. Its front edge is a property of the
      frame, under <NuxtLink :to="`/builds/${store.build!.id}/parts`">Parts</NuxtLink>.
    </p>
  </div>
</template>

<style scoped>
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
@media screen and (max-width: 760px) {
  .answer {
    flex-wrap: wrap;
  }
  .loupe {
    width: 120px;
  }
}
</style>

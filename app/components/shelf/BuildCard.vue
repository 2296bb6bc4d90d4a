<script setup lang="ts">
import type { VerdictWord } from '#core/limits/verdict'
import { centsFigure, fixed, gramsFigure, headroomWords, reserveWords, spreadFigure } from '#core/text/display'
import { coverageFactor95 } from '#core/maths/numbers'
import type { ShelvedBuild } from '#shared/schemas/api'

/** Whether it is ticked to be compared; full when no more can be. */
const ticked = defineModel<boolean>('ticked', { default: false })
const props = defineProps<{ entry: ShelvedBuild; isFull?: boolean }>()
const emit = defineEmits<{ putAway: [archived: boolean]; remove: []; pin: [pinned: boolean]; tag: [] }>()
const { settings } = storeToRefs(useSettingsStore())
const spread = computed(() =>
  props.entry.reference ? props.entry.reference.spreadG : props.entry.sigmaG * coverageFactor95,
)
const massG = computed(() => props.entry.reference?.massG ?? props.entry.massG)
const sharesWords = computed(() => {
  const { shares } = props.entry
  return `${shares.slice(0, 2).join(' and ')}${shares.length > 2 ? ` and ${shares.length - 2} more` : ''}`
})
const facts = computed(() => {
  const { entry } = props
  if (entry.reference) {
    const { thrustG, minutes, priceCents } = entry.reference
    return [
      thrustG === null ? '' : `${thrustG} g thrust`,
      minutes === null ? '' : `${minutes} min`,
      priceCents === null ? '' : `${centsFigure(priceCents)} ${settings.value.currency}`,
    ].filter(Boolean)
  }
  const goal = entry.goalDryG === null ? '' : `own goal: dry ${fixed(entry.dryG, 1)} of ${fixed(entry.goalDryG, 1)} g`
  const reserve = reserveWords(entry.intoReserveG)
  const weighed = weighedShareWords(entry, entry.lines)
  const { assembled } = entry
  const built =
    !assembled || assembled.done === assembled.of
      ? ''
      : assembled.failed > 0
        ? `, a test failed at ${assembled.done} of ${assembled.of} steps`
        : `, ${assembled.done} of ${assembled.of} steps built`
  return [
    entry.headroomG === null
      ? entry.limitG === null
        ? 'no limit chosen'
        : 'nothing that flies yet'
      : headroomWords(entry.headroomG, spread.value) +
        (entry.decidedBy === null ? '' : ` with ${entry.decidedBy}`) +
        (entry.onPurpose ? ', on purpose' : ''),
    reserve || goal || entry.loadout,
    `${weighed}${entry.openLines > 0 ? `, ${entry.openLines} open` : ''}${built}`,
  ]
})
</script>

<template>
  <article class="card">
    <div class="who">
      <NuxtLink
        :to="`/builds/${entry.id}/parts`"
        class="name"
      >{{ entry.name }}</NuxtLink>
      <small class="soft">{{ entry.craftClass || 'no class yet' }}</small>
      <small
        v-if="entry.pinned || entry.tags.length > 0"
        class="tags"
      ><b v-if="entry.pinned">pinned</b><span
        v-for="tag in entry.tags"
        :key="tag"
      >{{ tag }}</span></small>
    </div>
    <MiniStrip
      v-if="!entry.reference"
      :entry="entry"
      class="mini"
    />
    <div
      v-else
      class="mini soft whole"
    >
      <img
        v-if="entry.reference.pictureIds[0]"
        :src="`/api/pictures/${entry.reference.pictureIds[0]}`"
        :alt="`Picture of ${entry.name}`"
        loading="lazy"
      >
      <span>{{ entry.reference.note || 'Known only as a whole, to compare with.' }}</span>
    </div>
    <div class="mass">
      <div class="figure value">
        {{ gramsFigure(massG, spread, entry.limitG) }}<small> g<template v-if="spread > 0"> ± {{ spreadFigure(spread) }}</template></small>
        <InOunces :grams="massG" />
      </div>
      <VerdictMark
        v-if="entry.word"
        :word="entry.word as VerdictWord"
      />
    </div>
    <div class="facts-list">
      <div
        v-for="fact in facts"
        :key="fact"
      >
        {{ fact }}
      </div>
      <div
        v-if="entry.shares.length > 0"
        class="soft"
      >
        shares parts with {{ sharesWords }}
      </div>
    </div>
    <div class="ways">
      <el-button
        v-if="!entry.archived"
        link
        type="primary"
        class="away"
        :class="{ ticked }"
        :disabled="isFull && !ticked"
        :aria-pressed="ticked"
        :aria-label="`Compare ${entry.name}`"
        @click="ticked = !ticked"
      >
        {{ ticked ? '✓ Compare' : 'Compare' }}
      </el-button>
      <template v-if="!entry.archived">
        <el-button
          link
          type="primary"
          class="away"
          :aria-label="`${entry.pinned ? 'Unpin' : 'Pin'} ${entry.name}`"
          @click="emit('pin', !entry.pinned)"
        >
          {{ entry.pinned ? 'Unpin' : 'Pin' }}
        </el-button>
        <el-button
          link
          type="primary"
          class="away"
          :aria-label="`Tags of ${entry.name}`"
          @click="emit('tag')"
        >
          Tags
        </el-button>
      </template>
      <el-button
        link
        type="primary"
        class="away"
        :aria-label="`${entry.archived ? 'Bring back' : 'Put away'} ${entry.name}`"
        @click="emit('putAway', !entry.archived)"
      >
        {{ entry.archived ? 'Bring back' : 'Put away' }}
      </el-button>
      <el-button
        v-if="entry.archived"
        link
        type="primary"
        class="away"
        :aria-label="`Delete ${entry.name} for good`"
        @click="emit('remove')"
      >
        Delete …
      </el-button>
    </div>
  </article>
</template>

<style scoped>
.whole {
  display: flex;
  gap: 12px;
  align-items: center;
}
.whole img {
  width: 84px;
  height: 63px;
  flex: none;
  object-fit: cover;
  border-radius: 6px;
  border: 1px solid var(--line);
}
.whole span {
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.card {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr) 178px 196px auto;
  gap: 20px;
  align-items: center;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 10px;
  padding: 14px 22px;
  margin-bottom: 10px;
  position: relative;
  content-visibility: auto;
  contain-intrinsic-size: auto 92px;
}
.card:hover {
  border-color: var(--edge);
}
.name {
  font: 600 20px/1.2 var(--serif);
  color: var(--ink);
  text-decoration: none;
  display: block;
}
.name::after {
  content: '';
  position: absolute;
  inset: 0;
  border-radius: 10px;
}
.card:focus-within {
  border-color: var(--plum-text);
}
.who small {
  font-size: 12px;
}
.who .tags {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
  margin-top: 3px;
  font-size: 11px;
}
.tags span {
  background: var(--selection);
  color: var(--ink);
  border-radius: 9px;
  padding: 0 7px;
}
.tags b {
  color: var(--plum-text);
  font-weight: 600;
}
.value {
  font-size: 23px;
  line-height: 1.15;
  letter-spacing: -0.8px;
  white-space: nowrap;
}
.value small {
  font-size: 13px;
  letter-spacing: 0;
  color: var(--ink-soft);
}
.facts-list {
  font-size: 12.5px;
}
.facts-list div:last-child {
  color: var(--ink-soft);
}
.ways {
  display: grid;
  grid-template-columns: auto auto;
  justify-items: start;
  align-items: center;
  gap: 2px 10px;
  min-width: 150px;
}
.ways .away {
  padding-block: 0;
  line-height: 1.25;
}
.away {
  position: relative;
  font-size: 12px;
  font-weight: 500;
  opacity: 0;
}
.card:hover .away,
.away:focus-visible,
.away:focus-within,
.away.ticked {
  opacity: 1;
}
.away.ticked {
  font-weight: 700;
}
@media screen and (max-width: 760px) {
  .card {
    grid-template-columns: 1fr auto;
    gap: 8px 12px;
    padding: 14px;
    contain-intrinsic-size: auto 190px;
  }
  .mini {
    grid-column: 1 / -1;
    order: 3;
  }
  .facts-list {
    grid-column: 1 / -1;
    order: 4;
    font-size: 14px;
  }
  .ways {
    order: 5;
    grid-column: 1 / -1;
    display: flex;
  }
  .away {
    opacity: 1;
    font-size: 14px;
    justify-self: start;
  }
}
</style>

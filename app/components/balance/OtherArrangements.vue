<script setup lang="ts">
import {
  arrangementsOf,
  cameraArrangements,
  standoffArrangements,
  type Arrangement,
  type CameraArrangement,
  type ArrangementOutcome,
  type StandoffArrangement,
} from '#core/aircraft/balance'
import type { Command } from '#core/changes/commands'
import { fixed, signed } from '#core/text/display'

/** Ways to carry the pack, places of the camera, lengths of standoffs, side by side: how each hangs, turns and stands. */
const store = useBuildStore()
/** Counted only for those who look. */
const isOpen = ref(false)

interface Row extends ArrangementOutcome {
  readonly words: string
  readonly isNow: boolean
  readonly more: string
  readonly commands: readonly Command[]
}
interface Part {
  readonly title: string
  readonly rows: readonly Row[]
}
const packWords = ({ side, turnDeg }: Arrangement) => `Pack ${side}, ${turnDeg === 0 ? 'along' : 'across'}`
function cameraWords({ byMm }: CameraArrangement): string {
  if (byMm === 0) return 'Camera where it is'
  return `Camera ${Math.abs(byMm)} mm ${byMm > 0 ? 'forward' : 'back'}`
}
const clearWords = ({ clearDeg }: CameraArrangement) =>
  clearDeg === null ? '' : `no prop seen from ${fixed(clearDeg, 1)}°`
/** The frame's room is as high as its standoffs are long; a pack that was placed goes with the plate. */
function standoffCommands({ frameId, lengthMm, place }: StandoffArrangement): Command[] {
  const properties = { ...store.lineOf(frameId)?.properties, freeHeightMm: lengthMm }
  return [
    { type: 'lines.change', changes: [{ id: frameId, fields: { properties } }] },
    ...(place ? [{ type: 'places.put' as const, pieces: [place] }] : []),
  ]
}
const doIt = ({ commands }: Row) => commands.every(command => store.run(command))
const parts = computed((): readonly Part[] => {
  const { build, choice, estimates } = store
  if (!build || !isOpen.value) return []
  const packs = arrangementsOf(build, choice, estimates).map((row): Row => ({
    ...row,
    words: packWords(row),
    more: '',
    commands: [{ type: 'places.pack', side: row.side, turnDeg: row.turnDeg }],
  }))
  const cameras = cameraArrangements(build, choice, estimates).map((row): Row => ({
    ...row,
    words: cameraWords(row),
    isNow: row.byMm === 0,
    more: clearWords(row),
    commands: [{ type: 'places.put', pieces: [row.place] }],
  }))
  const standoffs = standoffArrangements(build, choice, estimates).map((row): Row => ({
    ...row,
    words: `Standoffs of ${row.lengthMm} mm`,
    more: row.isNow || row.moreG === null ? '' : `${signed(row.moreG, 2)} g by their length`,
    commands: standoffCommands(row),
  }))
  return [
    { title: 'The pack', rows: packs },
    { title: 'The camera', rows: cameras },
    { title: 'The standoffs', rows: standoffs },
  ].filter(({ rows }) => rows.length > 1)
})
function hangs({ slide, inProps }: ArrangementOutcome): string {
  if (inProps) return 'in the props'
  if (!slide) return '–'
  return slide.missesMm < 0.05
    ? 'hangs true'
    : `${fixed(Math.abs(slide.remainsMm), 1)} mm ${slide.remainsMm < 0 ? 'tail-heavy' : 'nose-heavy'}`
}
const isGood = (row: ArrangementOutcome) => !row.inProps && row.slide !== null && row.slide.missesMm < 0.05
</script>

<template>
  <details @toggle="isOpen = ($event.target as HTMLDetailsElement).open">
    <summary>Other arrangements</summary>
    <p class="soft">
      <template v-if="isOpen && parts.length === 0">
        There is neither a pack on board, nor a camera, nor a stack with an upper plate and known heights.
      </template>
      <template v-else>
        Each with the pack slid to where it hangs best on the tray, and all else as it is.
      </template>
    </p>
    <table
      v-if="parts.length > 0"
      v-stacks
      class="answers-table"
    >
      <thead>
        <tr>
          <th><span class="visually-hidden">Arrangement</span></th><th>Best it hangs</th><th class="right">
            Above the props, mm
          </th><th class="right">
            <TermTip word="Radius of gyration">
              Roll · pitch · yaw, mm
            </TermTip>
          </th><th class="right">
            High, mm
          </th><th>
            <span class="visually-hidden">Choose it</span>
          </th>
        </tr>
      </thead>
      <tbody
        v-for="part in parts"
        :key="part.title"
      >
        <tr
          v-for="row in part.rows"
          :key="row.words"
          :class="{ now: row.isNow }"
        >
          <td class="words">
            {{ row.words }}<small v-if="row.more">{{ row.more }}</small>
          </td><td :class="isGood(row) ? 'word-clear' : 'word-close'">
            {{ hangs(row) }}
          </td><td class="right figure">
            {{ row.abovePropsMm === null ? '–' : fixed(row.abovePropsMm, 1) }}
          </td><td class="right figure">
            {{ row.gyrationMm.map(mm => fixed(mm, 1)).join(' ') }}
          </td><td class="right figure">
            {{ fixed(row.highMm, 0) }}
          </td><td class="right">
            <span
              v-if="row.isNow"
              class="soft"
            >so it is</span><el-button
              v-else
              link
              type="primary"
              :aria-label="`Do it: ${row.words}`"
              @click="doIt(row)"
            >
              Do it
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.right.figure {
  font-size: 12px;
  white-space: nowrap;
}
.words,
.word-clear,
.word-close {
  white-space: nowrap;
}
.words small {
  white-space: normal;
}
td small {
  display: block;
  color: var(--ink-soft);
}
@media not screen and (max-width: 760px) {
  tbody + tbody tr:first-child td {
    padding-top: 12px;
  }
}
.now {
  background: var(--selection);
}
</style>

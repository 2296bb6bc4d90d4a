<script setup lang="ts">
import {
  askedOfJoint,
  fixingsSchedule,
  isJointInDoubt,
  newJoint,
  type AskedOfJoint,
  type JointPlan,
  type SaidJoint,
} from '#core/aircraft/fit'
import { makeLine, makeMass } from '#core/model/ledger'
import { measureOf, textOf } from '#core/model/properties'
import { fixed, signed, figure } from '#core/text/display'

const store = useBuildStore()
const drawer = useDrawerStore()
onMounted(() => {
  if (!drawer.loaded) void drawer.load()
})
const openId = ref<string | null>(null)
const joints = computed(() => store.build!.fit?.joints ?? [])
/** Lengths of a thread in the drawer or already on this build. */
const atHand = (thread: string) =>
  [
    ...drawer.parts.filter(p => p.slot === 'screw' && drawer.left(p) > 0),
    ...store.build!.lines.filter(l => l.slot === 'screw'),
  ]
    .filter(p => textOf(p, 'thread') === thread)
    .map(p => measureOf(p, 'lengthMm'))
    .filter(length => length !== undefined)
const schedule = computed(() => fixingsSchedule(joints.value, atHand))

function save(next: readonly JointPlan[]) {
  store.run({ type: 'fit.set', fields: { joints: next } })
}
const headWords = computed(() =>
  joints.value.length === 0
    ? 'No joints yet: say where screws hold something, and the safe lengths follow.'
    : `${joints.value.length === 1 ? 'One joint' : `${joints.value.length} joints`}, ` +
      `${fixed(schedule.value.massG, 2)} g of ` +
      `screws${schedule.value.open.length > 0 ? ' in those wholly said' : ''}`,
)
function put(joint: JointPlan) {
  save(joints.value.map(one => (one.id === joint.id ? joint : one)))
}
function add() {
  const joint = newJoint(newId(), joints.value, store.overview?.counted ?? [])
  save([...joints.value, joint])
  openId.value = joint.id
}
const askedWords: Record<AskedOfJoint, string> = {
  count: 'how many screws',
  thread: 'their thread',
  head: 'their head',
  material: 'their material',
  clampedMm: 'what they clamp',
  engagementMm: 'how much thread should hold',
  freeDepthMm: 'the depth that is free',
  beyond: 'what lies beyond',
}
function openWords(joint: JointPlan): string {
  return isJointInDoubt(joint)
    ? 'It was saved as 16 × M2 button, 3 mm clamped and 2.4 mm free, which every new joint once came ' +
      'as. If that is so, say so; otherwise write what it is.'
    : `Still to say: ${askedOfJoint(joint)
        .map(key => askedWords[key])
        .join(', ')}.`
}
/** Lines of the schedule's screws become worked out grams of the ledger. */
function book(joint: SaidJoint, massG: number) {
  const line = joint.lineId ? store.lineOf(joint.lineId) : undefined
  const mass = makeMass({
    versionId: newId(),
    evidence: 'worked out',
    valueG: massG / joint.count,
    resolutionG: 0.001,
    origin: `fixings: ${joint.name}`,
  })
  const properties = {
    thread: joint.thread,
    head: joint.head,
    material: joint.material,
    ...(joint.lengthMm === null ? {} : { lengthMm: joint.lengthMm }),
  }
  if (line) {
    store.run({ type: 'lines.change', changes: [{ id: line.id, fields: { mass, quantity: joint.count, properties } }] })
    return
  }
  const id = newId()
  const length = joint.lengthMm ?? schedule.value.rows.find(r => r.joint.id === joint.id)?.soldMm
  if (
    store.run({
      type: 'lines.add',
      lines: [
        makeLine({
          id,
          slot: 'screw',
          name: `${joint.thread} × ${length} ${joint.head}, ${joint.material}`,
          quantity: joint.count,
          mass,
          note: joint.name,
          properties: { ...properties, ...(length == null ? {} : { lengthMm: length }) },
        }),
      ],
      beforeId: null,
    })
  )
    put({ ...joint, lineId: id, lengthMm: length ?? null })
}
</script>

<template>
  <div class="fixings">
    <p class="head">
      <span>{{ headWords }}</span><el-button
        type="primary"
        @click="add"
      >
        New joint
      </el-button>
    </p>
    <article
      v-for="joint in schedule.open"
      :key="joint.id"
      class="open"
      :data-joint="joint.id"
    >
      <p class="said">
        <b>{{ joint.name }}</b> <span class="word soft">Not all said</span> {{ openWords(joint) }}
      </p>
      <div class="edit">
        <JointFields
          :joint="joint"
          @change="put"
        /><div class="foot">
          <el-button
            v-if="isJointInDoubt(joint)"
            type="primary"
            @click="put({ ...joint, said: true })"
          >
            That is how it is
          </el-button><el-button @click="save(joints.filter(j => j.id !== joint.id))">
            Take the joint out
          </el-button>
        </div>
      </div>
    </article>
    <article
      v-for="row in schedule.rows"
      :key="row.joint.id"
      :class="{ bad: row.verdict === 'too long' || row.verdict === 'too short' }"
      :data-joint="row.joint.id"
    >
      <div class="row">
        <div
          class="rule"
          aria-hidden="true"
          :title="`${figure(row.shortestMm!, 2)} to ${figure(row.longestMm!, 2)} mm`"
        >
          <svg
            width="150"
            height="34"
          ><g :transform="`scale(${150 / Math.max(16, row.longestMm + 4)},1)`"><rect
            x="0"
            y="8"
            :width="row.joint.clampedMm"
            height="14"
            class="clamped"
          /><rect
            :x="row.joint.clampedMm"
            y="8"
            :width="row.joint.freeDepthMm"
            height="14"
            class="free"
          /><rect
            v-if="row.longestMm >= row.shortestMm"
            :x="row.shortestMm"
            y="4"
            :width="Math.max(0.2, row.longestMm - row.shortestMm)"
            height="3"
            class="safe"
          /><rect
            v-if="row.joint.lengthMm"
            x="0"
            y="13"
            :width="row.joint.lengthMm"
            height="4"
            class="screw"
          /></g></svg>
        </div>
        <div class="said">
          <b>{{ row.joint.name }}</b> <span class="soft">{{ row.joint.count }} ×
            {{ row.joint.thread }}<template v-if="row.joint.lengthMm"> × {{ figure(row.joint.lengthMm, 2) }}</template>
            {{ row.joint.head }}, {{ row.joint.material }}</span>
          <p>
            <span
              class="word"
              :class="row.verdict === 'fits' ? 'word-clear' : row.verdict === 'not chosen' ? 'soft' : 'word-over'"
            >{{ { 'fits': 'Fits', 'too long': 'Too long', 'too short': 'Too short', 'not chosen': 'Not chosen' }[row.verdict] }}</span>
            {{ row.words }} <template v-if="row.washerMm !== null">
              None of that length at hand: a washer or nut of {{ figure(row.washerMm!, 2) }} mm under the head of the next longer one.
            </template>
          </p>
        </div>
        <div class="grams">
          <b
            v-if="row.massG !== null"
            class="figure"
          >{{ fixed(row.massG, 2) }} g</b><el-button
            v-if="(row.verdict === 'too long' || row.verdict === 'too short') && row.soldMm !== null"
            @click="put({ ...row.joint, lengthMm: row.soldMm, lineId: null })"
          >
            Take × {{ figure(row.soldMm!, 2) }}
          </el-button><el-button
            link
            type="primary"
            :aria-expanded="openId === row.joint.id"
            @click="openId = openId === row.joint.id ? null : row.joint.id"
          >
            {{ openId === row.joint.id ? 'Close' : 'Edit' }}
          </el-button>
        </div>
      </div>
      <div
        v-if="openId === row.joint.id"
        class="edit"
      >
        <JointFields
          :joint="row.joint"
          @change="put"
        />
        <table
          v-if="row.materials.length > 0"
          class="swap"
        >
          <thead>
            <tr>
              <th>In another material</th><th class="right">
                Grams
              </th><th class="right">
                Change
              </th><th />
            </tr>
          </thead><tbody>
            <tr
              v-for="m in row.materials"
              :key="m.material"
            >
              <td>{{ m.material }}</td><td class="figure right">
                {{ fixed(m.massG, 2) }}
              </td><td
                class="figure right"
                :class="m.savesG > 0 ? 'word-clear' : 'word-over'"
              >
                {{ signed(-m.savesG, 2) }}
              </td><td class="soft">
                {{ m.note }}
              </td>
            </tr>
          </tbody>
        </table>
        <div class="foot">
          <el-button
            v-if="row.massG !== null"
            @click="book(row.joint, row.massG)"
          >
            Book {{ fixed(row.massG, 2) }} g as worked out
          </el-button><el-button @click="save(joints.filter(j => j.id !== row.joint.id))">
            Take the joint out
          </el-button>
        </div>
      </div>
      <p
        v-if="row.notes.length > 0"
        class="soft notes"
      >
        {{ row.notes.join(' ') }}
      </p>
    </article>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
article {
  border-top: 1px solid var(--line);
  padding: 8px 10px;
}
article.bad {
  background: color-mix(in srgb, var(--beyond) 40%, transparent);
}
.row {
  display: grid;
  grid-template-columns: 150px 1fr auto;
  gap: 14px;
  align-items: center;
}
.said p {
  margin: 2px 0 0;
}
.word {
  font-weight: 600;
}
.grams {
  display: grid;
  justify-items: end;
  gap: 3px;
}
.grams b {
  font-size: 15px;
}
.notes {
  margin: 3px 0 0 164px;
  font-size: 12px;
}
.clamped {
  fill: var(--g-frame);
}
.free {
  fill: var(--free);
}
.safe {
  fill: var(--clear);
}
.screw {
  fill: var(--ink);
}
.edit {
  background: var(--paper);
  border-radius: 8px;
  padding: 12px;
  margin: 8px 0;
}
.swap {
  border-collapse: collapse;
  margin: 10px 0;
  font-size: 12.5px;
}
.swap td,
.swap th {
  padding: 2px 12px 2px 0;
  text-align: left;
}
.swap .right {
  text-align: right;
}
.swap th {
  font-weight: 500;
  color: var(--ink-soft);
}
.foot {
  display: flex;
  gap: 8px;
}
@media screen and (max-width: 760px) {
  .row {
    grid-template-columns: 1fr;
  }
  .notes {
    margin-left: 0;
  }
  .grams {
    justify-items: start;
  }
}
.open .said {
  margin: 2px 0 6px;
}
.open .edit {
  margin: 0;
}
.edit .foot {
  margin-top: 10px;
}
</style>

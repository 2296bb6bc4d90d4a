<script setup lang="ts">
import { beyondThings, fixingsSchedule, type JointPlan } from '#core/fit'
import { measureOf, textOf } from '#core/properties'
import { screwForms, materialsFor } from '#core/workings'
import { isNotRead, readNumber } from '#core/units'
import { fixed, signed } from '#core/display'
import { jointSchema } from '#shared/schemas/fit'

const store = useBuildStore()
const drawer = useDrawerStore()
onMounted(() => { if (!drawer.loaded) void drawer.load() })
const problem = ref('')
const openId = ref<string | null>(null)
const joints = computed(() => store.build!.fit?.joints ?? [])
/** Lengths of a thread in the drawer or already on this build. */
const atHand = (thread: string) => [...drawer.parts.filter(p => p.slot === 'screw' && drawer.left(p) > 0), ...store.build!.lines.filter(l => l.slot === 'screw')].filter(p => textOf(p, 'thread') === thread).map(p => measureOf(p, 'lengthMm')).filter(length => length !== undefined)
const schedule = computed(() => fixingsSchedule(joints.value, atHand))
const screwLines = computed(() => store.build!.lines.filter(line => line.slot === 'screw'))
const threads = [...new Set(screwForms.map(form => form.thread))]
const headsOf = (thread: string) => screwForms.filter(form => form.thread === thread).map(form => form.head)
const materials = materialsFor('screw').map(m => m.name)

function save(next: readonly JointPlan[]) { store.run({ type: 'fit.set', fields: { joints: next } }) }
function change(joint: JointPlan, fields: Partial<JointPlan>) {
  const parsed = jointSchema.safeParse({ ...joint, ...fields })
  problem.value = parsed.success ? '' : parsed.error.issues[0]!.message
  if (parsed.success) save(joints.value.map(one => one.id === joint.id ? parsed.data : one))
}
function measure(joint: JointPlan, key: 'count' | 'clampedMm' | 'engagementMm' | 'freeDepthMm' | 'lengthMm', event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (text.trim() === '' && key === 'lengthMm') { change(joint, { lengthMm: null }); return }
  const read = readNumber(text)
  if (isNotRead(read)) problem.value = read.problem
  else change(joint, { [key]: read.value })
}
function takeLine(joint: JointPlan, id: string) {
  const line = store.lineOf(id)
  change(joint, { lineId: line?.id ?? null, ...(line ? { lengthMm: measureOf(line, 'lengthMm') ?? joint.lengthMm, thread: textOf(line, 'thread') ?? joint.thread, head: textOf(line, 'head') ?? joint.head, material: textOf(line, 'material') ?? joint.material } : {}) })
}
function add() {
  const id = newId()
  save([...joints.value, { id, name: 'Motors on the arms', count: 16, thread: 'M2', head: 'button', material: 'alloy steel', clampedMm: 3, engagementMm: 2, freeDepthMm: 2.4, beyond: 'windings', into: 'aluminium', lengthMm: null, lineId: null }])
  openId.value = id
}
/** Lines of the schedule's screws become worked out grams of the ledger. */
function book(joint: JointPlan, massG: number) {
  const line = joint.lineId ? store.lineOf(joint.lineId) : undefined
  const mass = { versionId: newId(), evidence: 'worked out' as const, valueG: massG / joint.count, valueCount: 1, resolutionG: 0.001, pieceReadingsG: null, halfRangeG: null, ownSpreadG: null, basis: 'as fitted' as const, origin: `fixings: ${joint.name}`, weighing: null }
  const properties = { thread: joint.thread, head: joint.head, material: joint.material, ...(joint.lengthMm === null ? {} : { lengthMm: joint.lengthMm }) }
  if (line) { store.run({ type: 'lines.change', changes: [{ id: line.id, fields: { mass, quantity: joint.count, properties } }] }); return }
  const id = newId()
  const length = joint.lengthMm ?? schedule.value.rows.find(r => r.joint.id === joint.id)?.soldMm
  if (store.run({ type: 'lines.add', lines: [{ id, slot: 'screw', name: `${joint.thread} × ${length} ${joint.head}, ${joint.material}`, quantity: joint.count, mass, listing: null, state: 'fitted', role: 'airframe', removable: false, priceEachCents: null, note: joint.name, tie: null, insteadOf: null, pack: null, edition: 0, further: [], properties: { ...properties, ...(length == null ? {} : { lengthMm: length }) }, partId: null, feed: null }], beforeId: null })) change(joint, { lineId: id, lengthMm: length ?? null })
}
</script>

<template>
  <div class="fixings">
    <p class="head"><span>{{ schedule.rows.length === 0 ? 'No joints yet: say where screws hold something, and the safe lengths follow.' : `${schedule.rows.length} joints, ${fixed(schedule.massG, 2)} g of screws` }}</span><button type="button" class="first" @click="add">New joint</button></p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <article v-for="row in schedule.rows" :key="row.joint.id" :class="{ bad: row.verdict === 'too long' || row.verdict === 'too short' }" :data-joint="row.joint.id">
      <div class="row">
        <div class="rule" aria-hidden="true" :title="`${row.shortestMm} to ${row.longestMm} mm`">
          <svg width="150" height="34"><g :transform="`scale(${150 / Math.max(16, row.longestMm + 4)},1)`"><rect x="0" y="8" :width="row.joint.clampedMm" height="14" class="clamped" /><rect :x="row.joint.clampedMm" y="8" :width="row.joint.freeDepthMm" height="14" class="free" /><rect v-if="row.longestMm >= row.shortestMm" :x="row.shortestMm" y="4" :width="Math.max(0.2, row.longestMm - row.shortestMm)" height="3" class="safe" /><rect v-if="row.joint.lengthMm" x="0" y="13" :width="row.joint.lengthMm" height="4" class="screw" /></g></svg>
        </div>
        <div class="said">
<b>{{ row.joint.name }}</b> <span class="soft">{{ row.joint.count }} × {{ row.joint.thread }}<template v-if="row.joint.lengthMm"> × {{ row.joint.lengthMm }}</template> {{ row.joint.head }}, {{ row.joint.material }}</span>
          <p><span class="word" :class="row.verdict === 'fits' ? 'word-clear' : row.verdict === 'not chosen' ? 'soft' : 'word-over'">{{ { 'fits': 'Fits', 'too long': 'Too long', 'too short': 'Too short', 'not chosen': 'Not chosen' }[row.verdict] }}</span> {{ row.words }} <template v-if="row.washerMm !== null">None of that length at hand: a washer or nut of {{ row.washerMm }} mm under the head of the next longer one.</template></p>
        </div>
        <div class="grams"><b v-if="row.massG !== null" class="figure">{{ fixed(row.massG, 2) }} g</b><button v-if="(row.verdict === 'too long' || row.verdict === 'too short') && row.soldMm !== null" type="button" @click="change(row.joint, { lengthMm: row.soldMm, lineId: null })">Take × {{ row.soldMm }}</button><button type="button" class="plain" :aria-expanded="openId === row.joint.id" @click="openId = openId === row.joint.id ? null : row.joint.id">{{ openId === row.joint.id ? 'Close' : 'Edit' }}</button></div>
      </div>
      <div v-if="openId === row.joint.id" class="edit">
        <div class="fields six">
          <label class="field two">Joint<EditField :value="row.joint.name" @change="change(row.joint, { name: ($event.target as HTMLInputElement).value })" /></label>
          <label class="field">Screws<EditField :value="row.joint.count" class="figure" @change="measure(row.joint, 'count', $event)" /></label>
          <label class="field">Thread<select :value="row.joint.thread" @change="change(row.joint, { thread: ($event.target as HTMLSelectElement).value, head: headsOf(($event.target as HTMLSelectElement).value).includes(row.joint.head) ? row.joint.head : headsOf(($event.target as HTMLSelectElement).value)[0]! })"><option v-for="t in threads" :key="t">{{ t }}</option></select></label>
          <label class="field">Head<select :value="row.joint.head" @change="change(row.joint, { head: ($event.target as HTMLSelectElement).value })"><option v-for="h in headsOf(row.joint.thread)" :key="h">{{ h }}</option></select></label>
          <label class="field">Material<select :value="row.joint.material" @change="change(row.joint, { material: ($event.target as HTMLSelectElement).value })"><option v-for="m in materials" :key="m">{{ m }}</option></select></label>
          <label class="field">Clamped, mm<EditField :value="row.joint.clampedMm" class="figure" @change="measure(row.joint, 'clampedMm', $event)" /></label>
          <label class="field">Thread to hold, mm<EditField :value="row.joint.engagementMm" class="figure" @change="measure(row.joint, 'engagementMm', $event)" /></label>
          <label class="field">Free depth, mm<EditField :value="row.joint.freeDepthMm" class="figure" @change="measure(row.joint, 'freeDepthMm', $event)" /></label>
          <label class="field">Beyond it<select :value="row.joint.beyond" @change="change(row.joint, { beyond: ($event.target as HTMLSelectElement).value as JointPlan['beyond'] })"><option v-for="b in beyondThings" :key="b">{{ b }}</option></select></label>
          <label class="field">Bites into<EditField :value="row.joint.into" @change="change(row.joint, { into: ($event.target as HTMLInputElement).value })" /></label>
          <label class="field">Screw length, mm<EditField :value="row.joint.lengthMm" class="figure" @change="measure(row.joint, 'lengthMm', $event)" /></label>
          <label class="field two">Screws of line<select :value="row.joint.lineId ?? ''" @change="takeLine(row.joint, ($event.target as HTMLSelectElement).value)"><option value="">none</option><option v-for="line in screwLines" :key="line.id" :value="line.id">{{ line.name }}</option></select></label>
        </div>
        <table v-if="row.materials.length > 0" class="swap"><thead><tr><th>In another material</th><th class="right">Grams</th><th class="right">Change</th><th /></tr></thead><tbody><tr v-for="m in row.materials" :key="m.material"><td>{{ m.material }}</td><td class="figure right">{{ fixed(m.massG, 2) }}</td><td class="figure right" :class="m.savesG > 0 ? 'word-clear' : 'word-over'">{{ signed(-m.savesG, 2) }}</td><td class="soft">{{ m.note }}</td></tr></tbody></table>
        <div class="foot"><button v-if="row.massG !== null" type="button" @click="book(row.joint, row.massG)">Book {{ fixed(row.massG, 2) }} g as worked out</button><button type="button" @click="save(joints.filter(j => j.id !== row.joint.id))">Take the joint out</button></div>
      </div>
      <p v-if="row.notes.length > 0" class="soft notes">{{ row.notes.join(' ') }}</p>
    </article>
  </div>
</template>

<style scoped>
.head { display: flex; justify-content: space-between; align-items: center; gap: 12px; }
article { border-top: 1px solid var(--line); padding: 8px 10px; } article.bad { background: color-mix(in srgb, var(--beyond) 40%, transparent); }
.row { display: grid; grid-template-columns: 150px 1fr auto; gap: 14px; align-items: center; } .said p { margin: 2px 0 0; } .word { font-weight: 600; }
.grams { display: grid; justify-items: end; gap: 3px; } .grams b { font-size: 15px; } .notes { margin: 3px 0 0 164px; font-size: 12px; }
.clamped { fill: var(--g-frame); } .free { fill: var(--free); } .safe { fill: var(--clear); } .screw { fill: var(--ink); }
.edit { background: var(--paper); border-radius: 8px; padding: 12px; margin: 8px 0; } .six { grid-template-columns: repeat(6, 1fr); } .six .two { grid-column: span 2; }
.swap { border-collapse: collapse; margin: 10px 0; font-size: 12.5px; } .swap td, .swap th { padding: 2px 12px 2px 0; text-align: left; } .swap .right { text-align: right; } .swap th { font-weight: 500; color: var(--ink-soft); } .foot { display: flex; gap: 8px; }
@media (max-width: 760px) { .row { grid-template-columns: 1fr; } .notes { margin-left: 0; } .six { grid-template-columns: 1fr 1fr; } .grams { justify-items: start; } }
</style>

<script setup lang="ts">
import { makePart, type Part } from '#core/parts/drawer'
import { makeMass, type Slot } from '#core/model/ledger'
import { isNotRead, readCents, readGrams, readNumber } from '#core/text/units'
import { kitSchema, partSchema } from '#shared/schemas/drawer'

const open = defineModel<boolean>({ required: true })
const drawer = useDrawerStore()
const scales = useScalesStore()
interface Piece {
  key: string
  slot: Slot
  name: string
  count: string
  grams: string
  weighed: boolean
  missing: string
  bag: string
}
const blank = (): Piece => ({
  key: newId(),
  slot: 'screw',
  name: '',
  count: '1',
  grams: '',
  weighed: false,
  missing: '',
  bag: '',
})
const name = ref('')
const price = ref('')
const link = ref('')
const leavesOut = ref('')
const pieces = ref<Piece[]>([])
const problem = ref('')
watch(
  open,
  now => {
    if (!now) return
    name.value = price.value = link.value = leavesOut.value = problem.value = ''
    pieces.value = [blank(), blank(), blank()]
  },
  { immediate: true },
)

/** The pieces as parts, or a sentence about the first row that cannot be. */
function partsOf(kitId: string): Part[] | { problem: string } {
  const parts: Part[] = []
  for (const [i, piece] of pieces.value.filter(p => p.name.trim() !== '').entries()) {
    const at = `Row ${i + 1}: `
    const count = readNumber(piece.count)
    const missing = readNumber(piece.missing || '0')
    const grams = piece.grams.trim() === '' ? null : readGrams(piece.grams)
    if (isNotRead(count) || isNotRead(missing)) return { problem: `${at}how many is a whole number.` }
    if (grams && isNotRead(grams)) return { problem: at + grams.problem }
    const read = grams && !isNotRead(grams) ? grams : null
    const taken =
      read &&
      scales.typed(
        makeMass({
          versionId: newId(),
          evidence: piece.weighed ? 'weighed' : 'listed',
          valueG: read.massG,
          resolutionG: read.stepG,
          basis: 'as supplied',
          origin: 'from a kit',
        }),
      )
    if (taken && 'problem' in taken) return { problem: at + taken.problem }
    const part = makePart({
      id: newId(),
      slot: piece.slot,
      name: piece.name.trim(),
      owned: count.value,
      missing: missing.value,
      kitId,
      bag: piece.bag.trim(),
      listing: read && !piece.weighed ? { valueG: read.massG, resolutionG: read.stepG } : null,
      mass: taken?.mass ?? null,
    })
    const parsed = partSchema.safeParse(part)
    if (!parsed.success) return { problem: at + parsed.error.issues[0]!.message }
    parts.push(part)
  }
  return parts
}
async function keep() {
  const cents = readCents(price.value)
  if (isNotRead(cents)) {
    problem.value = cents.problem
    return
  }
  const kit = kitSchema.safeParse({
    id: newId(),
    name: name.value.trim(),
    priceCents: cents.cents,
    link: link.value.trim(),
    note: '',
    leavesOut: leavesOut.value.trim(),
  })
  if (!kit.success) {
    problem.value = kit.error.issues[0]!.message
    return
  }
  const parts = partsOf(kit.data.id)
  if ('problem' in parts) {
    problem.value = parts.problem
    return
  }
  if (parts.length === 0) {
    problem.value = 'Name at least one kind of piece that was in it.'
    return
  }
  if (await drawer.putKit(kit.data, parts)) open.value = false
  else problem.value = drawer.problem
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="A kit or set came"
    width="min(900px, 96vw)"
    top="6vh"
  >
    <p>One purchase that becomes many pieces. The price stays with the kit; each kind of piece goes into the drawer.</p>
    <div class="fields four">
      <label class="field two">Name<el-input
        v-model="name"
        maxlength="120"
      /></label><label class="field">Price<el-input
        v-model="price"
        class="figure"
        inputmode="decimal"
      /></label><label class="field">Where from<el-input
        v-model="link"
        maxlength="200"
      /></label>
      <label class="field four-wide">What the kit leaves out<el-input
        v-model="leavesOut"
        maxlength="2000"
        placeholder="motor screws, strap"
      /></label>
    </div>
    <table v-stacks>
      <thead><tr><th>Kind</th><th>Piece</th><th>Came</th><th>Grams each</th><th>Weighed</th><th>Missing</th><th>Bag</th></tr></thead>
      <tbody>
        <tr
          v-for="piece in pieces"
          :key="piece.key"
        >
          <td>
            <PickOne
              v-model="piece.slot"
              label="Kind of piece"
              :options="slotChoices"
            />
          </td>
          <td>
            <el-input
              v-model="piece.name"
              aria-label="Piece"
              maxlength="120"
            />
          </td><td>
            <el-input
              v-model="piece.count"
              class="figure"
              aria-label="How many pieces"
              inputmode="numeric"
            />
          </td><td>
            <el-input
              v-model="piece.grams"
              class="figure"
              aria-label="Grams of each piece"
              inputmode="decimal"
            />
          </td>
          <td>
            <el-checkbox
              v-model="piece.weighed"
              aria-label="These grams were weighed"
            />
          </td><td>
            <el-input
              v-model="piece.missing"
              class="figure"
              aria-label="Missing pieces"
              inputmode="numeric"
            />
          </td><td>
            <el-input
              v-model="piece.bag"
              aria-label="Bag"
              maxlength="200"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <el-button
      link
      type="primary"
      @click="pieces.push(blank())"
    >
      Another kind of piece
    </el-button>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <div class="foot">
      <el-button @click="open = false">
        Leave it
      </el-button><el-button
        type="primary"
        @click="keep"
      >
        Put the pieces into the drawer
      </el-button>
    </div>
  </el-dialog>
</template>

<style scoped>
.four {
  grid-template-columns: repeat(4, 1fr);
  margin-bottom: 10px;
}
.two {
  grid-column: span 2;
}
.four-wide {
  grid-column: 1 / -1;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  font-size: 12px;
  color: var(--ink-soft);
}
td {
  padding: 2px 4px 2px 0;
}
td .el-input {
  width: 100%;
}
td .figure {
  max-width: 74px;
}
.foot {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
@media screen and (max-width: 760px) {
  td .figure {
    max-width: none;
  }
}
</style>

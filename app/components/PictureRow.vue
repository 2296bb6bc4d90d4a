<script setup lang="ts">
/** Pictures of one thing: shown small, opened large, added and taken out. */
const props = defineProps<{
  /** What they show, in words. */
  of: string
  ids: readonly string[]
  most: number
  words: string
  pathOf: (id: string) => string
  /** Sends a picture; its id comes back when it lies on the disk. */
  keep: (file: File, signal: AbortSignal) => Promise<string>
  /**
   * Asked when a picture is chosen: what takes its id in when it has come. By then another thing may be on view, or none.
   * Throws a sentence where it cannot.
   */
  holder: () => (id: string) => unknown
}>()
const emit = defineEmits<{ change: [ids: readonly string[]] }>()
const problem = ref('')
/** Pictures chosen that have not come yet, and all of that choice. */
const sending = ref(0)
const wanted = ref(0)
/** Of what is being sent: another one as soon as that is stopped. */
let sendings = new AbortController()
function stop() {
  sendings.abort()
  sendings = new AbortController()
}
const unreadable = ref<ReadonlySet<string>>(new Set())
const numbered = (i: number) => (props.ids.length > 1 ? `, ${i + 1} of ${props.ids.length}` : '')

let isGone = false
onBeforeUnmount(() => {
  isGone = true
})
/** One after another: each is added to those that are there when it has come. */
let last: Promise<unknown> = Promise.resolve()
function add(file: File) {
  problem.value = ''
  if (sending.value === 0) wanted.value = 0
  sending.value++
  wanted.value++
  const { signal } = sendings
  const { keep, most } = props
  const takeIn = props.holder()
  last = last
    .then(async () => {
      if (signal.aborted) return
      if (props.ids.length >= most) throw new Error(`At most ${most} pictures are kept here. Nothing was kept.`)
      await takeIn(await keep(file, signal))
      await nextTick()
    })
    .catch(error => {
      problem.value = sentenceOf(error)
      if (isGone) void tell(`${file.name}: ${problem.value}`)
    })
    .finally(() => {
      sending.value--
    })
}
watch(
  () => props.of,
  () => {
    problem.value = ''
  },
)
</script>

<template>
  <div class="picture-row">
    <figure
      v-for="(id, i) in ids"
      :key="id"
    >
      <a
        :href="pathOf(id)"
        target="_blank"
        rel="noopener"
      ><span
        v-if="unreadable.has(id)"
        class="soft gone"
      >Not on this machine</span><img
        v-else
        :src="pathOf(id)"
        :alt="`Picture of ${of}${numbered(i)}`"
        loading="lazy"
        @error="unreadable = new Set([...unreadable, id])"
      ></a><el-button
        link
        type="primary"
        :aria-label="`Take out the picture of ${of}${numbered(i)}`"
        @click="emit('change', ids.filter(other => other !== id))"
      >
        Take out
      </el-button>
    </figure>
    <FileChoose
      class="choose"
      accept="image/*"
      many
      :words="sending ? 'Sending …' : words"
      :disabled="sending > 0 || ids.length >= most"
      @file="add"
    />
    <WorkProgress
      v-if="sending > 0"
      :words="wanted === 1 ? 'Sending a picture' : 'Sending pictures'"
      :done="wanted - sending"
      :of="wanted"
      @stop="stop"
    />
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.picture-row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: start;
  margin-bottom: 10px;
}
figure {
  margin: 0;
  display: grid;
  justify-items: start;
}
img,
.gone {
  width: 116px;
  height: 87px;
  border-radius: 6px;
  border: 1px solid var(--line);
}
img {
  object-fit: cover;
}
.gone {
  display: grid;
  place-items: center;
  padding: 6px;
  font-size: 12px;
}
.problem {
  flex-basis: 100%;
  margin: 0;
}
@media screen and (max-width: 760px) {
  .choose :deep(.el-button) {
    min-height: 48px;
  }
}
</style>

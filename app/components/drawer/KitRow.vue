<script setup lang="ts">
import { Close } from '@element-plus/icons-vue'
import { centsFigure } from '#core/text/display'
import type { Kit } from '#core/parts/drawer'

const props = defineProps<{ kit: Kit }>()
const drawer = useDrawerStore()
const shelf = useShelfStore()
const { settings } = storeToRefs(useSettingsStore())
onMounted(() => {
  if (shelf.entries.length === 0)
    shelf.load().catch(error => {
      said.value = sentenceOf(error)
    })
})
const pieces = computed(() => drawer.parts.filter(part => part.kitId === props.kit.id))
const left = computed(() => pieces.value.filter(part => drawer.left(part) > 0).length)
const target = ref('')
const said = ref('')
const busy = ref(false)

async function place() {
  const build = shelf.entries.find(b => b.id === target.value)
  if (!build || busy.value) return
  busy.value = true
  const kinds = left.value
  const kept = await drawer.placeKit(build.id, props.kit)
  said.value = kept
    ? `${kinds === 1 ? 'One kind of piece is' : `${kinds} kinds of pieces are`} on ${build.name} now.`
    : drawer.problem
  drawer.problem = ''
  busy.value = false
}
</script>

<template>
  <div class="kit">
    <b>{{ kit.name }}</b><template v-if="kit.priceCents !== null">
      {{ `, ${centsFigure(kit.priceCents)} ${settings.currency}` }}
    </template>
    <SureButton
      :icon="Close"
      :words="`Forget the kit ${kit.name}`"
      :question="`Forget “${kit.name}”? Its pieces stay; the kit does not come back.`"
      @sure="drawer.removeKit(kit.id)"
    />
    <p class="soft">
      {{
        pieces.length === 1 ? 'One kind of piece' : `${pieces.length} kinds of pieces`
      }}{{ left < pieces.length ? `, ${left} in the drawer` : '' }}.<template v-if="kit.leavesOut">
        Leaves out: {{ kit.leavesOut.replace(/\.$/, '') }}.
      </template>
    </p>
    <el-form
      v-if="left > 0"
      class="place"
      @submit.prevent="place"
    >
      <PickOne
        v-model="target"
        :label="`Build for the kit ${kit.name}`"
        :options="shelf.entries.filter(e => !e.reference).map((b) => ({ value: b.id, label: b.name }))"
        placeholder="which build"
      />
      <el-button
        native-type="submit"
        :disabled="target === '' || busy"
      >
        Put all of it on
      </el-button>
    </el-form>
    <p
      v-if="said"
      role="status"
    >
      {{ said }}
    </p>
  </div>
</template>

<style scoped>
.kit {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
.kit p {
  margin: 2px 0;
}
.place {
  display: flex;
  gap: 6px;
}
.place select {
  flex: 1;
  min-width: 0;
}
</style>

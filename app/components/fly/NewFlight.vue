<script setup lang="ts">
import type { Flight } from '#core/aircraft/flown'
import { styles, type Style } from '#core/aircraft/power'
import type { InputInstance } from 'element-plus'

/** Notes a flight: its minutes are enough. */
const emit = defineEmits<{ noted: [id: string]; close: [] }>()
const store = useBuildStore()
const { note, packs, plan } = useFlying()
const time = ref('')
const landed = ref('')
const putBack = ref('')
const packId = ref(store.choice.packLineId ?? '')
const setupId = ref(store.choice.setupId)
const style = ref<Style>(plan.value.style)
const problems = reactive({ time: '', landed: '', putBack: '' })
const first = useTemplateRef<InputInstance>('first')
onMounted(() => first.value?.focus())
const setups = computed(() => store.build!.setups.map(({ id, name }) => ({ value: id, label: name })))

async function keep() {
  const cells = store.build!.lines.find(({ id }) => id === packId.value)?.pack?.cells
  const landing = readLanding(landed.value, cells, null)
  const mah = readOptional(putBack.value, 'mAh')
  problems.landed = 'problem' in landing ? landing.problem : ''
  problems.putBack = 'problem' in mah ? mah.problem : ''
  if ('problem' in landing || 'problem' in mah) return
  const choice = { setupId: setupId.value, packLineId: packId.value || null }
  const more: Partial<Flight> = { landing: landing.value, putBackMah: mah.value }
  const { problem, field, id } = await note(choice, style.value, time.value, more)
  problems.time = field === 'landing' || field === 'putBackMah' ? '' : problem
  problems.landed = field === 'landing' ? problem : ''
  problems.putBack = field === 'putBackMah' ? problem : ''
  if (id === null) return
  time.value = landed.value = putBack.value = ''
  emit('noted', id)
  first.value?.focus()
}
</script>

<template>
  <el-form
    class="new-flight"
    label-position="top"
    aria-label="New flight"
    @submit.prevent="keep"
    @keydown.esc="emit('close')"
  >
    <FormField
      label="Flown"
      :problem="problems.time"
    >
      <el-input
        ref="first"
        v-model="time"
        placeholder="3:20"
        class="figure"
      />
    </FormField>
    <PickOne
      v-if="packs.length > 0"
      v-model="packId"
      field="Pack"
      :options="packs"
    />
    <PickOne
      v-if="setups.length > 1"
      v-model="setupId"
      field="Set-up"
      :options="setups"
    />
    <PickOne
      v-model="style"
      field="Style"
      :options="styles"
    />
    <FormField
      label="Landed with, V"
      :problem="problems.landed"
    >
      <el-input
        v-model="landed"
        placeholder="if you know"
        inputmode="decimal"
        class="figure"
      />
    </FormField>
    <FormField
      label="Put back, mAh"
      :problem="problems.putBack"
    >
      <el-input
        v-model="putBack"
        placeholder="later"
        inputmode="decimal"
        class="figure"
      />
    </FormField>
    <div class="acts">
      <el-button
        type="primary"
        native-type="submit"
      >
        Note it
      </el-button><el-button @click="emit('close')">
        Done
      </el-button>
    </div>
  </el-form>
</template>

<style scoped>
.new-flight {
  display: grid;
  grid-template-columns: 92px repeat(auto-fit, minmax(104px, 1fr));
  gap: 0 12px;
  align-items: start;
  padding: 10px 14px 12px;
  margin-bottom: 12px;
  background: var(--aside);
  border-radius: 8px;
}
.acts {
  display: flex;
  gap: 4px;
  padding-top: 19px;
}
.acts :deep(.el-button) {
  margin: 0;
}
@media screen and (max-width: 760px) {
  .new-flight {
    grid-template-columns: 1fr 1fr;
  }
  .acts {
    grid-column: 1 / -1;
    padding: 0 0 12px;
  }
}
</style>

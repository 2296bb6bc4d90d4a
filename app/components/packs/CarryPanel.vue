<script setup lang="ts">
import { fixed } from '#core/text/display'
import { carryOf, type LoadoutCell } from '#core/aircraft/flight'
import { withSetup } from '#core/mass/loadout'
import { packLabel, type LoadoutChoice } from '#core/model/ledger'

const props = defineProps<{ choice: LoadoutChoice }>()
const emit = defineEmits<{ cell: [cell: LoadoutCell] }>()
const store = useBuildStore()
const { cells, cards, withDrawer } = useLoadouts()
const like = computed(
  () =>
    cells.value.find(cell => cell.choice.packLineId === props.choice.packLineId)?.pack.pack ??
    cells.value[0]?.pack.pack ??
    null,
)
const carry = computed(() =>
  like.value && cards.value.some(card => card.limit)
    ? carryOf(store.build!, props.choice, like.value, cells.value, cards.value, store.estimates)
    : null,
)
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const setup = computed(() => store.build!.setups.find(s => s.id === props.choice.setupId)?.name ?? '')
</script>

<template>
  <template v-if="carry && like">
    <h3>What capacity could I carry?</h3>
    <p
      v-if="carry.roomG === null"
      class="soft"
    >
      {{ capital(withSetup(setup)) }} no pack at all would be clear.
    </p>
    <template v-else>
      <p>
        {{ capital(withSetup(setup)) }} a weighed pack of up to <b class="figure">{{ fixed(carry.roomG, 1) }} g</b>
        stays clear.<template v-if="carry.typicalMah">
          Typical {{ like.cells }}S packs of that weight hold {{ fixed(carry.typicalMah[0], 0) }} to
          {{ fixed(carry.typicalMah[1], 0) }} mAh ({{ fixed(carry.mahPerG![0], 1) }} to
          {{ fixed(carry.mahPerG![1], 1) }} mAh/g).
        </template>
      </p>
      <p v-if="carry.best">
        The most you {{ carry.best.source === 'on the build' ? 'have on this build' : 'could take' }} is <el-button
          link
          type="primary"
          @click="emit('cell', carry.best)"
        >
          {{ packLabel(carry.best.pack) }}
        </el-button>, {{ fixed(carry.best.pack.pack!.capacityMah, 0) }} mAh<template v-if="!withDrawer">
          {{ ' (the drawer is not looked at)' }}
        </template>.
      </p>
    </template>
  </template>
</template>

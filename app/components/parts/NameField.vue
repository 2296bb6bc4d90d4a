<script setup lang="ts">
import type { AutocompleteInstance } from 'element-plus'
import type { Offer } from '#core/deciding/choosing'
import { slotFacts, type Line, type Slot } from '#core/model/ledger'

/**
 * The name of a line, with what may be meant offered below: parts of the drawer, lines of other builds, typical classes.
 * `pick` brings the line that was meant, with one piece of it. Enter is heard outside only where nothing was picked by it.
 */
defineProps<{
  modelValue: string
  slotName: Slot
  label?: string
  /** Offers what is owned for the slot as soon as the field has the focus. */
  eager?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [text: string]; 'pick': [line: Line, offer: Offer] }>()

const { offers, lineOf } = useOffers()
const field = useTemplateRef<AutocompleteInstance>('field')
const problem = ref('')
const root = useTemplateRef<HTMLElement>('root')
const inner = () => root.value?.querySelector('input') ?? null
defineExpose({ focus: () => inner()?.focus(), select: () => inner()?.select() })

/**
 * The library says of its list more than is so: that the frame around it is a list too, and that something in it is
 * pointed at when nothing is.
 */
const listClass = `of-${useId()}`
function sayTrue() {
  if ((field.value?.highlightedIndex ?? -1) < 0) inner()?.removeAttribute('aria-activedescendant')
  document.getElementsByClassName(listClass)[0]?.setAttribute('role', 'presentation')
}
onMounted(sayTrue)
watch(() => [field.value?.highlightedIndex, field.value?.activated, field.value?.suggestions], sayTrue, { flush: 'post' })

async function pick(offer: Offer) {
  problem.value = ''
  try {
    const line = await lineOf(offer, 1)
    if (line) emit('pick', line, offer)
    else problem.value = 'That line is no longer there.'
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
/** The library’s field would take Home and End for its list even where none is open. */
let isPicking = false
function before(event: KeyboardEvent) {
  isPicking = (field.value?.highlightedIndex ?? -1) >= 0
  if (event.key === 'Home' || event.key === 'End') event.stopPropagation()
}
/** Enter picks what is pointed at in the list; otherwise the name is as it was typed, and the list need not open again. */
function after(event: KeyboardEvent) {
  if (event.key !== 'Enter') return
  if (isPicking) event.stopPropagation()
  else field.value?.close()
}
</script>

<template>
  <span
    ref="root"
    class="name-field"
    @keydown.capture="before"
  >
    <span
      class="inside"
      @keydown="after"
    >
      <el-autocomplete
        ref="field"
        :model-value="modelValue"
        :fetch-suggestions="typed => offers(typed, slotName)"
        :trigger-on-focus="eager ?? false"
        :debounce="90"
        :aria-label="label"
        value-key="name"
        autocomplete="off"
        hide-loading
        placement="bottom-start"
        :popper-class="`offers ${listClass}`"
        @update:model-value="emit('update:modelValue', String($event))"
        @select="pick($event as Offer)"
      >
        <template #default="{ item }">
          <span
            class="offer"
            @mousedown.prevent
          >
            <span>{{ item.name }}</span>
            <span class="detail">{{ slotFacts[(item as Offer).slot].label.toLowerCase() }} · {{ item.detail }}</span>
          </span>
        </template>
      </el-autocomplete>
    </span>
    <span
      v-if="problem"
      class="problem"
      role="alert"
    >{{ problem }}</span>
  </span>
</template>

<style scoped>
.name-field,
.inside {
  display: block;
}
.offer {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  padding: 5px 12px;
  line-height: 1.4;
  font-size: 13px;
  color: var(--ink);
}
.detail {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>

<script setup lang="ts" generic="V extends string | number">
import type { SelectInstance } from 'element-plus'

/**
 * One of a list. Above {@link longList} choices it can be searched by typing. `none` names the choice of nothing, which
 * stands first and gives ''; `ownWords` lets the builder type what the list does not have.
 */
interface Choice {
  value: V
  label: string
  group?: string
}
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  modelValue?: V | '' | null
  options: readonly (V | Choice)[]
  /** Words above the list; without them `label` names it. */
  field?: string
  label?: string
  none?: string
  /** What stands there while nothing is chosen. */
  placeholder?: string
  ownWords?: boolean
  disabled?: boolean
  /** Its words stand beside it instead of above. */
  inline?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: V | ''] }>()

const longList = 8
const id = useId()
const valueId = `${id}-value`
const isCoarse = useMediaQuery('(pointer: coarse)')
const choices = computed((): { value: V | ''; label: string; group?: string }[] => {
  const all = props.options.map(one => (typeof one === 'object' ? one : { value: one, label: String(one) }))
  return props.none === undefined ? all : [{ value: '' as const, label: props.none }, ...all]
})
const groupOf = (one: { group?: string }) => one.group ?? ''
const groups = computed(() => {
  const names = new Set(choices.value.map(groupOf))
  return names.size > 1 ? [...names].map(name => ({ name, list: choices.value.filter(one => groupOf(one) === name) })) : null
})
const isSearched = computed(() => props.ownWords || (props.options.length > longList && !isCoarse.value))
const shown = computed(
  () => choices.value.find(one => one.value === props.modelValue)?.label ?? (props.modelValue ? String(props.modelValue) : ''),
)

const select = useTemplateRef<SelectInstance>('select')
defineExpose({ focus: () => select.value?.focus() })
// The library keeps what is chosen beside its field; who cannot see it hears it as the field's description.
onMounted(() => {
  const root = select.value?.$el as HTMLElement | undefined
  root?.querySelector('input[role=combobox]')?.setAttribute('aria-describedby', valueId)
})
</script>

<template>
  <component
    :is="field === undefined ? 'span' : 'div'"
    v-bind="$attrs"
    class="pick-one"
    :class="{ field: field !== undefined && !inline, inline }"
  >
    <label
      v-if="field !== undefined"
      :for="id"
    >{{ field }}</label>
    <el-select
      :id
      ref="select"
      :model-value="modelValue"
      :aria-label="label"
      :placeholder="placeholder ?? ''"
      :disabled
      :filterable="isSearched"
      :allow-create="ownWords"
      :default-first-option="isSearched"
      :empty-values="none === undefined ? ['', null, undefined] : [null, undefined]"
      :persistent="false"
      :show-arrow="false"
      :offset="4"
      @update:model-value="emit('update:modelValue', $event)"
    >
      <template #label>
        <span :id="valueId">{{ shown }}</span>
      </template>
      <template v-if="groups">
        <el-option-group
          v-for="{ name, list } in groups"
          :key="name"
          :label="name"
        >
          <el-option
            v-for="one in list"
            :key="one.value"
            :value="one.value"
            :label="one.label"
          />
        </el-option-group>
      </template>
      <template v-else>
        <el-option
          v-for="one in choices"
          :key="one.value"
          :value="one.value"
          :label="one.label"
        />
      </template>
    </el-select>
  </component>
</template>

<script setup lang="ts">
import dayjs from 'dayjs'
import updateLocale from 'dayjs/plugin/updateLocale'

/** A day as `2026-11-28`, '' for none; typed or chosen from the month. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ modelValue: string; field: string; label?: string; latest?: string; inline?: boolean }>()
const emit = defineEmits<{ 'update:modelValue': [day: string] }>()
const { settings } = storeToRefs(useSettingsStore())
const format = { 'day-month-year': 'DD.MM.YYYY', 'month-day-year': 'MM/DD/YYYY', 'year-month-day': 'YYYY-MM-DD' }
const asked = { 'day-month-year': 'day.month.year', 'month-day-year': 'month/day/year', 'year-month-day': 'year-month-day' }
dayjs.extend(updateLocale)
watchEffect(() => {
  dayjs.updateLocale('en', { weekStart: { monday: 1, saturday: 6, sunday: 7 }[settings.value.firstWeekday] })
})
const id = useId()
// The month that opens is a dialog without a name of its own.
const monthClass = `month-of-${id}`
async function nameMonth(isOpen: boolean) {
  await nextTick()
  if (isOpen)
    document.getElementsByClassName(monthClass)[0]?.setAttribute('aria-label', `${props.label ?? props.field}: day`)
}
const isTooLate = (day: Date) => props.latest !== undefined && localDay(day) > props.latest
</script>

<template>
  <div
    v-bind="$attrs"
    :class="inline ? 'inline' : 'field'"
  >
    <label :for="id">{{ field }}</label>
    <el-date-picker
      :id
      :model-value="modelValue"
      type="date"
      :format="format[settings.days]"
      value-format="YYYY-MM-DD"
      :placeholder="asked[settings.days]"
      :aria-label="label"
      :disabled-date="isTooLate"
      :show-arrow="false"
      :popper-class="monthClass"
      @visible-change="nameMonth"
      @update:model-value="emit('update:modelValue', $event ?? '')"
    />
  </div>
</template>

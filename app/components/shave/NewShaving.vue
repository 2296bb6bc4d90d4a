<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { makeShaving, shavingKinds, type ShavingKind } from '#core/deciding/shave'
import { nameSchema } from '#core/text/schemas'
import { isNotRead, readNumber, withoutUnit } from '#core/text/units'

/** Writes down what could come off: a few words are enough. */
const emit = defineEmits<{ made: [id: string] }>()
const store = useBuildStore()
const draft = reactive({ what: '', grams: '', kind: 'other' as ShavingKind })
const problems = ref<FieldProblems>({})
const what = useTemplateRef<InputInstance>('what')
function add() {
  const named = nameSchema('What is done').safeParse(draft.what.trim())
  const grams = draft.grams.trim() === '' ? { value: 0 } : readNumber(withoutUnit(draft.grams, 'g'))
  const wrongGrams = isNotRead(grams)
    ? `Grams off: ${grams.problem}`
    : Math.abs(grams.value) > 1000
      ? 'Grams off are from −1000 to 1000.'
      : undefined
  problems.value = { what: named.success ? undefined : named.error.issues[0]!.message, grams: wrongGrams }
  if (wrongGrams !== undefined || !named.success || isNotRead(grams)) return
  const shaving = makeShaving({
    id: newId(),
    what: named.data,
    kind: draft.kind,
    gramsG: draft.kind === 'put on' ? -Math.abs(grams.value) : grams.value,
  })
  if (!store.run({ type: 'shaving.put', shaving })) return
  Object.assign(draft, { what: '', grams: '' })
  emit('made', shaving.id)
}
useSingleKeys({ new: () => what.value?.focus() })
</script>

<template>
  <el-form
    class="new"
    @submit.prevent="add"
  >
    <FormField
      class="what"
      label=""
      :problem="problems.what"
    >
      <el-input
        ref="what"
        v-model="draft.what"
        placeholder="What could be shaved?"
        aria-label="What is done"
      />
    </FormField><PickOne
      v-model="draft.kind"
      label="Kind"
      :options="shavingKinds"
    /><FormField
      class="grams"
      label=""
      :problem="problems.grams"
    >
      <el-input
        v-model="draft.grams"
        class="figure"
        inputmode="decimal"
        :placeholder="draft.kind === 'put on' ? 'grams on' : 'grams off'"
        aria-label="Grams off"
      />
    </FormField><el-button
      type="primary"
      native-type="submit"
    >
      New shaving <KeyHint does="new" />
    </el-button>
  </el-form>
</template>

<style scoped>
.new {
  display: flex;
  align-items: start;
  gap: 6px;
  margin-bottom: 8px;
  flex-wrap: wrap;
}
.new .what {
  flex: 1;
  min-width: 200px;
}
.grams {
  width: 104px;
}
.grams.is-error {
  width: 230px;
}
@media screen and (max-width: 760px) {
  kbd {
    display: none;
  }
  .new .what {
    flex-basis: 100%;
  }
}
</style>

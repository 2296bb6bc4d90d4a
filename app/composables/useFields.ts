import type { FormInstance } from 'element-plus'

/**
 * A form whose fields say under them what is wrong: before it is sent by `check`, after that what the server says of one
 * of `keys`. Its `fields` is the form itself, for the template; `problem` is what concerns none of the fields.
 */
export function useFields(keys: readonly string[], check: () => FieldProblems) {
  const fields = shallowRef<FormInstance | null>(null)
  const sent = ref<Record<string, string>>({})
  const problem = ref('')
  const busy = ref(false)
  /** Looked through just now: a second press meanwhile is the same one. */
  let looking = false

  function clear() {
    problem.value = ''
    sent.value = {}
    fields.value?.clearValidate()
  }

  /** Does `work` where nothing is wrong, else goes to the first field that is. True when it was done. */
  async function send(work: () => Promise<unknown>): Promise<boolean> {
    if (looking) return false
    looking = true
    problem.value = ''
    sent.value = {}
    const wrong = await fields.value!.validate().then(
      () => null,
      (found: object) => Object.keys(found),
    )
    looking = false
    if (wrong) {
      const first = wrong[0] === undefined ? undefined : fields.value!.getField(wrong[0])
      first?.$el?.querySelector<HTMLElement>('input, textarea')?.focus()
      return false
    }
    // What is wrong with none of the fields above is said under the form.
    problem.value = Object.entries(check()).find(([key, said]) => said !== undefined && !keys.includes(key))?.[1] ?? ''
    if (problem.value) return false
    busy.value = true
    try {
      await work()
      return true
    } catch (error) {
      const field = error instanceof ApiProblem ? fieldAmong(keys, error.problem.field) : null
      if (field) sent.value = { [field]: sentenceOf(error) }
      else problem.value = sentenceOf(error)
      return false
    } finally {
      busy.value = false
    }
  }
  return { fields, rules: rulesFrom(keys, check), sent, problem, busy, clear, send }
}

/** Rows chosen to be changed at once: one by one, or all between the last one and another. */
export function useChosen<Row extends { readonly id: string }>(rows: MaybeRefOrGetter<readonly Row[]>) {
  const asked = ref<ReadonlySet<string>>(new Set())
  let last: string | null = null
  /** What was chosen and is still there, in the order shown. */
  const chosen = computed(() => toValue(rows).filter(({ id }) => asked.value.has(id)))

  function toggle(id: string) {
    const next = new Set(asked.value)
    if (!next.delete(id)) next.add(id)
    asked.value = next
    last = id
  }
  /** Chooses all from the last one to this one. */
  function reach(id: string) {
    const all = toValue(rows)
    const [from, to] = [all.findIndex(row => row.id === (last ?? id)), all.findIndex(row => row.id === id)]
    if (from < 0 || to < 0) {
      toggle(id)
      return
    }
    asked.value = new Set([...asked.value, ...all.slice(Math.min(from, to), Math.max(from, to) + 1).map(row => row.id)])
  }
  function clear() {
    asked.value = new Set()
    last = null
  }
  function all() {
    asked.value = new Set(toValue(rows).map(row => row.id))
  }
  return { chosen, isChosen: (id: string) => asked.value.has(id), toggle, reach, clear, all }
}

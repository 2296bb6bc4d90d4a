/** The tour goes over the ledger of the open build, or of the first one on the shelf. */
export function useTour() {
  const store = useBuildStore()
  const shelf = useShelfStore()
  const { touring } = useShell()
  const buildId = computed(() => store.build?.id ?? shelf.entries.find(entry => !entry.reference)?.id ?? null)

  async function begin() {
    if (!buildId.value) return
    await navigateTo(`/builds/${buildId.value}/parts`)
    await until(() => store.overview).toBeTruthy()
    touring.value = true
  }
  return { canBegin: computed(() => buildId.value !== null), begin }
}

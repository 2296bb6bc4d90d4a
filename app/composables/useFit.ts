import { fitReport, type FitReport } from '#core/aircraft/fit'

/** The fit of the open build; counted anew a moment after an edit, so that typing never waits for it. */
export const useFit = createSharedComposable(() => {
  const store = useBuildStore()
  const { settings } = storeToRefs(useSettingsStore())
  const report = shallowRef<FitReport | null>(null)
  const count = () => {
    report.value =
      store.build && !store.build.reference ? fitReport(store.build, store.choice, settings.value.gear) : null
  }
  watch(() => store.build?.id, count, { immediate: true })
  watchDebounced([() => store.build, () => store.choice, () => settings.value.gear], count, { debounce: 60 })
  return { report }
})

import { placeOutcomes } from '#core/aircraft/balance'
import type { LoadoutChoice } from '#core/model/ledger'
import { fitReport, type FitReport } from '#core/aircraft/fit'

/** The fit of the open build; counted anew a moment after an edit, so that typing never waits for it. */
export const useFit = createSharedComposable(() => {
  const store = useBuildStore()
  const { settings } = storeToRefs(useSettingsStore())
  const report = shallowRef<FitReport | null>(null)
  const count = () => {
    const { build, choice, estimates } = store
    // Places that nobody has said prove nothing: a build without any is not laid out for it.
    const further =
      build?.places && (build.places.pieces.length > 0 || build.places.packSide === 'below')
        ? (one: LoadoutChoice) => placeOutcomes(build, one, estimates)
        : undefined
    report.value = build && !build.reference ? fitReport(build, choice, settings.value.gear, further) : null
  }
  watch(() => store.build?.id, count, { immediate: true })
  watchDebounced([() => store.build, () => store.choice, () => settings.value.gear], count, { debounce: 60 })
  return { report }
})

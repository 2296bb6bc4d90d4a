import { onScopeDispose, ref, shallowRef, watch } from 'vue'

/** The longest that is waited for a picture, ms: a page that is not shown draws none. Our choice. */
const longestMs = 100

/**
 * What a side of the page shows of something that `keyOf` tells apart: another one comes once the picture that shows the
 * choice is drawn, so that a press is answered before all that hangs on it is made anew. The same one changes at once, and
 * so does nothing.
 */
export function useAfterPaint<T>(wanted: () => T | null, keyOf: (of: T) => string) {
  const shown = shallowRef(wanted())
  const late = ref(false)
  let cancel: () => void = () => undefined
  watch(wanted, next => {
    cancel()
    const take = () => {
      cancel()
      shown.value = wanted()
      late.value = false
    }
    if (!next || !shown.value || keyOf(next) === keyOf(shown.value)) {
      take()
      return
    }
    late.value = true
    let soon: ReturnType<typeof setTimeout> | undefined
    const frame = requestAnimationFrame(() => {
      soon = setTimeout(take)
    })
    const atLatest = setTimeout(take, longestMs)
    cancel = () => {
      cancelAnimationFrame(frame)
      clearTimeout(soon)
      clearTimeout(atLatest)
      cancel = () => undefined
    }
  })
  onScopeDispose(() => cancel())
  return { shown, late }
}

/** A stream that breaks off and is back within this is not said to be lost, ms: browsers open it again by themselves. Our choice. */
const graceMs = 2500

interface Breaks {
  /** It broke off this moment, and may be back the next. */
  readonly paused?: () => void
  /** It did not come back. */
  readonly lost?: () => void
  readonly back?: () => void
}

/**
 * A stream of server-sent events, open while the page can be seen: a browser allows few connections to one place, and
 * tabs in the background must not use them up. `handlers` are by event name.
 */
export function useEventStream(
  path: MaybeRefOrGetter<string | null>,
  handlers: Record<string, (data: string) => void>,
  breaks: Breaks = {},
) {
  const visibility = useDocumentVisibility()
  let source: EventSource | null = null
  let missing: ReturnType<typeof setTimeout> | null = null

  function isBack() {
    if (missing === null) return
    clearTimeout(missing)
    missing = null
    breaks.back?.()
  }
  function isMissing() {
    if (missing !== null) return
    breaks.paused?.()
    missing = setTimeout(() => breaks.lost?.(), graceMs)
  }
  function close() {
    source?.close()
    source = null
    isBack()
  }
  watch(
    [() => toValue(path), visibility],
    ([wanted, visible]) => {
      close()
      if (wanted === null || visible === 'hidden') return
      source = new EventSource(wanted)
      for (const [name, handle] of Object.entries(handlers))
        source.addEventListener(name, event => handle((event as MessageEvent<string>).data))
      source.addEventListener('open', isBack)
      source.addEventListener('error', isMissing)
    },
    { immediate: true },
  )
  onScopeDispose(close)
}

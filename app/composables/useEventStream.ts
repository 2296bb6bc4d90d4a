/**
 * A stream of server-sent events, open while the page can be seen: a browser allows few connections to one place, and
 * tabs in the background must not use them up. `handlers` are by event name; `lost` is called when the stream breaks off.
 */
export function useEventStream(
  path: MaybeRefOrGetter<string | null>,
  handlers: Record<string, (data: string) => void>,
  lost: () => void = () => {},
) {
  const visibility = useDocumentVisibility()
  let source: EventSource | null = null

  function close() {
    source?.close()
    source = null
  }
  watch(
    [() => toValue(path), visibility],
    ([wanted, visible]) => {
      close()
      if (wanted === null || visible === 'hidden') return
      source = new EventSource(wanted)
      for (const [name, handle] of Object.entries(handlers))
        source.addEventListener(name, event => handle((event as MessageEvent<string>).data))
      source.addEventListener('error', lost)
    },
    { immediate: true },
  )
  onScopeDispose(close)
}

import { layoutOf } from '#core/aircraft/balance'

/** Says what another frame does to where everything sits: some pieces stay, the rest sits as usual on the new one. */
export function useFrameChange() {
  const store = useBuildStore()
  const frame = computed(() => {
    const line = store.build?.lines.find(one => one.slot === 'frame' && one.state === 'fitted')
    return line ? { id: line.id, name: line.name, of: store.build!.id } : null
  })
  watch(frame, (now, before) => {
    if (!now || !before || now.of !== before.of || now.id === before.id) return
    const { pieces } = layoutOf(store.build!, store.choice, store.estimates)
    const kept = pieces.filter(piece => !piece.isAssumed).length
    void tell(
      `${now.name} holds the motors now. ${pieces.length - kept} pieces sit where they usually do on it` +
        `${kept === 0 ? '.' : `; ${kept} stay where you put them.`}`,
    )
  })
}

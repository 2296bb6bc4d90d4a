/**
 * Keeps what is selected in the address (`?name=id`), and the other way round. The address follows a moment later: what it
 * says while it is still following is our own past, not a wish, and must not move the selection back.
 */
export function useSelectionInAddress(name: string, selected: Ref<string | null>) {
  const route = useRoute()
  const router = useRouter()
  let following = 0
  const inAddress = () => (typeof route.query[name] === 'string' ? route.query[name] : null)

  onMounted(() => {
    if (inAddress() !== null) selected.value = inAddress()
  })
  watch(inAddress, id => {
    if (following === 0 && id !== null) selected.value = id
  })
  watch(selected, async id => {
    if (following === 0 && inAddress() === id) return
    following++
    try {
      await router.replace({ query: { ...route.query, [name]: id ?? undefined } })
    } finally {
      following--
    }
  })
}

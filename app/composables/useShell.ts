/** What is open above the pages: find-anything and the list of keys. */
const findOpen = ref(false)
const keysOpen = ref(false)

export function useShell() {
  return { findOpen, keysOpen }
}

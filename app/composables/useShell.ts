/** What is open above the pages: find-anything and the list of keys; what is said over all of them. */
const findOpen = ref(false)
const keysOpen = ref(false)
const said = ref('')
/** The tour over the screen of a build. */
const touring = ref(false)

export function useShell() {
  return { findOpen, keysOpen, said, touring }
}

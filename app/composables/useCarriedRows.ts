/** Rows of a parts list that were brought to the shelf: the build begun for them takes them up. */
const rows = shallowRef('')

export function useCarriedRows() {
  return {
    carry: (text: string) => {
      rows.value = text
    },
    takeUp: () => {
      const text = rows.value
      rows.value = ''
      return text
    },
  }
}

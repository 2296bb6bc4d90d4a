/**
 * `v-stacks` on a table: on a narrow screen its rows stand as cards, every cell with the words of its column's head
 * before it. The heads are read where they stand, so that nobody has to say them twice.
 */
export default defineNuxtPlugin(({ vueApp }) => {
  vueApp.directive<HTMLTableElement>('stacks', {
    mounted: label,
    updated: label,
    getSSRProps: () => ({}),
  })
})

function label(table: HTMLTableElement) {
  table.classList.add('stacks')
  const heads = [...(table.tHead?.rows[0]?.cells ?? [])].map(
    head => head.querySelector('input')?.value ?? head.textContent?.trim() ?? '',
  )
  for (const body of [...table.tBodies, table.tFoot])
    for (const row of body?.rows ?? []) {
      let column = 0
      for (const cell of row.cells) {
        const head = column === 0 || cell.colSpan > 1 ? '' : (heads[column] ?? '')
        if (cell.dataset.head !== head) cell.dataset.head = head
        column += cell.colSpan
      }
    }
}

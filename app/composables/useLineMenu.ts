import { gramsWithSpread } from '#core/text/display'
import { lineTitle } from '~/utils/words'
import type { Line } from '#core/model/ledger'
import { sheetColumns, type SheetColumn } from '#shared/sheet/edit-cell'
import type { RowAction } from '~/components/RowMenu.vue'

/** What the sheet does to the line that has the focus. */
export interface LineDoing {
  readonly edit: () => void
  readonly move: (by: -1 | 1) => void
  readonly duplicate: () => void
  readonly toggleOff: () => void
  readonly choose: () => void
  readonly handOver: () => void
}

/** What a line of the ledger offers on the secondary button. `cellWords` gives what stands in a cell of it. */
export function useLineMenu(doing: LineDoing, cellWords: (line: Line, column: SheetColumn) => string) {
  const store = useBuildStore()
  const address = (line: Line) =>
    new URL(`/builds/${store.build!.id}/parts?line=${line.id}`, window.location.href).toString()
  const totalWords = () =>
    gramsWithSpread(store.overview!.massG, store.overview!.spreadG, store.overview!.binding?.limitG)

  function remove(line: Line) {
    store.selectedId = null
    if (store.run({ type: 'lines.delete', ids: [line.id] }))
      void tell(`“${lineTitle(line)}” is deleted.`, { words: 'Take back', act: () => store.step('undo') })
  }
  return (line: Line, column: SheetColumn): RowAction[] => [
    { words: 'Edit the cell', key: 'Enter', act: doing.edit },
    { words: 'Weigh it', act: () => navigateTo(`/builds/${store.build!.id}/weigh?line=${line.id}`) },
    ...(line.state === 'candidate'
      ? [{ words: 'Fit it', act: () => store.run({ type: 'line.fit', id: line.id }) }]
      : [{ words: line.state === 'off' ? 'Bring back' : 'Take off', key: 'Del', act: doing.toggleOff }]),
    { words: 'Duplicate', key: 'Ctrl D', act: doing.duplicate },
    { words: 'Move up', key: 'Alt ↑', act: () => doing.move(-1) },
    { words: 'Move down', key: 'Alt ↓', act: () => doing.move(1) },
    { words: 'Into the drawer, or another build …', act: doing.handOver },
    { words: 'Choose it, for several at once', key: 'Space', act: doing.choose },
    { words: 'Copy the cell', apart: true, act: () => copyText(cellWords(line, column)) },
    {
      words: 'Copy the row',
      act: () =>
        copyText(sheetColumns.map(each => cellWords(line, each)).join('\t'), `Copied: the row of ${lineTitle(line)}`),
    },
    { words: 'Copy the total with its ±', act: () => copyText(totalWords()) },
    { words: 'Copy a link to this line', act: () => copyText(address(line), 'Copied: a link to this line') },
    { words: 'Delete', apart: true, act: () => remove(line) },
  ]
}

import { useSortable } from '@vueuse/integrations/useSortable'
import type { SortableEvent } from 'sortablejs'

/**
 * Rows that can be dragged by their handle into another order, with mouse, pen or finger. The rows themselves are
 * moved by the page once the change is taken: what the drag did to the document is put back first, so that a refused
 * move leaves everything where it was.
 */
export function useReorder(
  list: MaybeRefOrGetter<HTMLElement | null | undefined>,
  { handle, rows, moved }: { handle: string; rows: string; moved: (from: number, to: number) => unknown },
) {
  return useSortable(() => toValue(list), [], {
    handle,
    draggable: rows,
    animation: 120,
    forceFallback: true,
    fallbackTolerance: 4,
    delay: 180,
    delayOnTouchOnly: true,
    ghostClass: 'dragged-to',
    dragClass: 'dragged',
    watchElement: true,
    onUpdate(event: SortableEvent) {
      const { item, from, oldDraggableIndex, newDraggableIndex, oldIndex } = event
      if (oldDraggableIndex === undefined || newDraggableIndex === undefined || oldIndex === undefined) return
      item.remove()
      from.insertBefore(item, from.children[oldIndex] ?? null)
      moved(oldDraggableIndex, newDraggableIndex)
    },
  })
}

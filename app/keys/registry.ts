/** One key of the application: what it does, where it works, how it is written on buttons and in the list of keys. */
export interface Shortcut {
  readonly place: Place
  /** As a browser names it, letters small. A letter holds with and without shift, unless `shift` says which. */
  readonly key: string
  readonly shift?: boolean
  /** As it is shown. */
  readonly label: string
  readonly what: string
}

export const places = ['Everywhere', 'At the scale', 'At a step', 'In the sheet'] as const
export type Place = (typeof places)[number]

/** Keys that act where no field has the focus: each belongs to the page that has something for it. */
export const shortcuts = {
  weigh: { place: 'Everywhere', key: 'w', label: 'W', what: 'weigh' },
  find: { place: 'Everywhere', key: '/', label: '/', what: 'find a build, line, pack, card or station' },
  new: { place: 'Everywhere', key: 'n', label: 'N', what: 'new line; on the Shelf: start a build' },
  undo: { place: 'Everywhere', key: 'z', shift: false, label: 'Z', what: 'take back the last change; Ctrl Z as well' },
  redo: {
    place: 'Everywhere',
    key: 'z',
    shift: true,
    label: 'Shift Z',
    what: 'do it again; Ctrl Shift Z or Ctrl Y as well',
  },
  help: { place: 'Everywhere', key: '?', label: '?', what: 'this list' },
  take: { place: 'At the scale', key: ' ', label: 'Space', what: 'take the reading' },
  zero: { place: 'At the scale', key: 't', label: 'T', what: 'zero the scale' },
  pieces: {
    place: 'At the scale',
    key: 'c',
    label: 'C',
    what: 'several pieces: one, all together, one after another',
  },
  skip: { place: 'At the scale', key: 'ArrowRight', label: '→', what: 'skip to the next line' },
  back: { place: 'At the scale', key: 'ArrowLeft', label: '←', what: 'back to the one before' },
  again: { place: 'At the scale', key: 'b', label: 'B', what: 'weigh the last one again' },
  next: { place: 'At a step', key: 'ArrowRight', label: '→', what: 'Assemble: next step' },
  previous: { place: 'At a step', key: 'ArrowLeft', label: '←', what: 'Assemble: the step before' },
  tick: { place: 'At a step', key: 'd', label: 'D', what: 'Assemble: tick the step; Shave: do the next one' },
} as const satisfies Readonly<Record<string, Shortcut>>
export type Does = keyof typeof shortcuts

/** How a key is written on the button that does the same. */
export const keyLabel = (does: Does): string => shortcuts[does].label

interface Press {
  readonly key: string
  readonly shiftKey: boolean
}

/** What a press of a key does, of what `handled` can do here; null where it is nothing of that. */
export function actionOf({ key, shiftKey }: Press, handled: readonly Does[]): Does | null {
  const pressed = key.length === 1 ? key.toLowerCase() : key
  const means = ({ key: own, shift }: Shortcut) => own === pressed && (shift === undefined || shift === shiftKey)
  return handled.find(does => means(shortcuts[does])) ?? null
}

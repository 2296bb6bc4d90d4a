import type { SlideRow } from './report'

/** A mark of the tape: where the front of a pack goes. */
export interface TapeMark {
  /** Behind the tray’s front edge, mm. */
  readonly atMm: number
  readonly pack: string
  /** Names of the set-ups it is flown with there. */
  readonly setups: readonly string[]
  /** In which row under the tape its words stand, so that none covers another’s. */
  readonly row: number
}
/** A strip of tape for the tray, to be cut out and stuck on. */
export interface Tape {
  readonly lengthMm: number
  readonly marks: readonly TapeMark[]
  /** Loadouts that do not hang true wherever the pack lies on the tray. */
  readonly beyond: readonly { readonly pack: string; readonly setup: string; readonly missesMm: number }[]
  readonly rows: number
}

/** Marks of one pack nearer than this are one mark, mm: a hand lays no pack closer. Our choice. */
const sameMarkMm = 0.5
/** A slide that misses by less hangs true, mm. */
const reachedMm = 0.05

/**
 * The tape of a build: the marks of every pack and set-up, from the tray’s front edge back. `wordsMm` says how long the
 * words of a mark are, mm. Null while nobody has said how long the tray is.
 */
export function tapeOf(
  table: readonly SlideRow[],
  setups: readonly { readonly id: string; readonly name: string }[],
  trayLengthMm: number | null,
  wordsMm: (mark: Omit<TapeMark, 'row'>) => number,
): Tape | null {
  if (trayLengthMm === null) return null
  const cells = table.flatMap(({ label, cells }) =>
    cells.flatMap(({ choice, slide }) =>
      slide && slide.frontAtMm !== null
        ? [
            {
              pack: label,
              setup: setups.find(one => one.id === choice.setupId)?.name ?? '',
              slide,
              at: slide.frontAtMm,
            },
          ]
        : [],
    ),
  )
  const marks: { atMm: number; pack: string; setups: string[] }[] = []
  for (const { pack, setup, slide, at } of [...cells].sort((a, b) => a.at - b.at)) {
    if (slide.missesMm >= reachedMm) continue
    const near = marks.find(mark => mark.pack === pack && Math.abs(mark.atMm - at) < sameMarkMm)
    if (near) near.setups.push(setup)
    else marks.push({ atMm: at, pack, setups: [setup] })
  }
  // From the tail on: words stand to the right of their line, and a line goes down to its words left of all lines before it.
  const placed: TapeMark[] = []
  for (const mark of marks.toReversed()) {
    const end = mark.atMm + wordsMm(mark)
    const rows = Math.max(-1, ...placed.map(({ row }) => row)) + 1
    const isFree = (row: number) => placed.every(other => other.row < row || other.atMm >= end)
    const row = Array.from({ length: rows }, (_, n) => n).find(isFree) ?? rows
    placed.unshift({ ...mark, row })
  }
  return {
    lengthMm: trayLengthMm,
    marks: placed,
    beyond: cells
      .filter(({ slide }) => slide.missesMm >= reachedMm)
      .map(({ pack, setup, slide }) => ({ pack, setup, missesMm: slide.missesMm })),
    rows: Math.max(-1, ...placed.map(({ row }) => row)) + 1,
  }
}

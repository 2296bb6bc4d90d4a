import { figure } from '../../text/display'
import type { GroundGear } from '../../aircraft/fit'
import type { Build, Line, Slot } from '../../model/ledger'
import { listOf, measureOf, outputsOf, providersOf, textOf } from '../../model/properties'
import { spreadG } from '../../maths/estimate'
import type { LineEstimates } from '../../mass/loadout'
import type { Overview } from '../../mass/report'

/** What the choices so far ask of a step, with the name of what asks it. */
export interface Force {
  readonly says: string
  readonly by: string
}

/** Where a step stands: nothing there, only typical parts of a class, or parts somebody has named. */
export type StepStanding = 'open' | 'typical' | 'chosen'

/** One step of choosing an aircraft's parts, in the order in which one choice narrows the next. */
export interface OrderStep {
  readonly key: string
  readonly label: string
  readonly slots: readonly Slot[]
  readonly lines: readonly Line[]
  /** A part of another step that does this work as well, where it has none of its own. */
  readonly within: string | null
  readonly standing: StepStanding
  /** Grams it counts with now; 0 while it has none. */
  readonly massG: number
  /** How sure that is: half of its 95 % interval. */
  readonly spreadG: number
  /** The most it may weigh under the binding card and the reserve, all else as it is; null without a limit by weight. */
  readonly leavesG: number | null
  readonly forces: readonly Force[]
}

const steps = [
  { key: 'frame', label: 'Frame', slots: ['frame'] },
  { key: 'drive', label: 'Motors and props', slots: ['motor', 'propeller'] },
  { key: 'board', label: 'Board', slots: ['board', 'speed controller'] },
  { key: 'video', label: 'Video', slots: ['camera', 'video transmitter'] },
  { key: 'radio', label: 'Radio', slots: ['receiver'] },
  { key: 'pack', label: 'Pack', slots: ['pack'] },
] as const satisfies readonly { key: string; label: string; slots: readonly Slot[] }[]
type StepKey = (typeof steps)[number]['key']

type Says = (line: Line) => string | null
/** A sentence with a measure of the line, where it has been said. */
const told =
  (key: string, words: (value: string) => string, digits = 2): Says =>
  line => {
    const value = measureOf(line, key)
    return value === undefined ? null : words(figure(value, digits))
  }
const holes =
  (key: string, words: string): Says =>
  line => {
    const patterns = listOf(line, key)
    return patterns && patterns.length > 0 ? `${words} ${patterns.join(' or ')}` : null
  }
const named =
  (key: string, words: string): Says =>
  line => {
    const text = textOf(line, key)
    return text ? `${words} ${text}` : null
  }
const feeds: Says = line => {
  const outputs = outputsOf(line)
  return outputs.length === 0
    ? null
    : `feeds of ${outputs.map(({ volts, amps }) => `${figure(volts, 1)} V${amps === null ? '' : ` ${figure(amps, 1)} A`}`).join(', ')}`
}
const cellRange: Says = line => {
  const [least, most] = [measureOf(line, 'cellsMin'), measureOf(line, 'cellsMax')]
  if (least === undefined && most === undefined) return null
  if (least === most) return `${figure(least!, 0)} cells`
  return least === undefined
    ? `at most ${figure(most!, 0)} cells`
    : most === undefined
      ? `at least ${figure(least, 0)} cells`
      : `${figure(least, 0)} to ${figure(most, 0)} cells`
}
const cellsOfPack: Says = ({ pack }) => (pack ? `${pack.cells} cells, ${pack.chemistry}` : null)
const propRoom: Says = line =>
  told('ductMm', value => `props for a duct of ${value} mm`)(line) ??
  told('propMaxMm', value => `props of at most ${value} mm`)(line)

/** What a part that has been chosen asks of the steps it meets. The rules are those the fit is checked by. */
const asks: readonly { readonly of: StepKey; readonly by: readonly Slot[]; readonly says: Says }[] = [
  { of: 'frame', by: ['propeller'], says: told('diameterMm', value => `room for props of ${value} mm`) },
  { of: 'frame', by: ['motor'], says: holes('pattern', 'arms drilled') },
  { of: 'frame', by: ['board', 'speed controller'], says: holes('pattern', 'board holes') },
  { of: 'frame', by: ['camera'], says: told('widthMm', value => `room for a camera ${value} mm wide`) },
  { of: 'drive', by: ['frame'], says: propRoom },
  { of: 'drive', by: ['frame'], says: holes('motorPatterns', 'motor holes') },
  { of: 'drive', by: ['pack'], says: cellsOfPack },
  { of: 'drive', by: ['board', 'speed controller'], says: cellRange },
  {
    of: 'drive',
    by: ['board', 'speed controller'],
    says: told('ampsContinuous', value => `at most ${value} A a motor`),
  },
  { of: 'board', by: ['frame'], says: holes('boardPatterns', 'holes') },
  { of: 'board', by: ['frame'], says: told('freeHeightMm', value => `${value} mm between the plates`) },
  { of: 'board', by: ['motor'], says: told('maxCurrentA', value => `at least ${value} A a motor`) },
  { of: 'board', by: ['pack'], says: cellsOfPack },
  { of: 'board', by: ['receiver'], says: named('radioFamily', 'speaks') },
  { of: 'video', by: ['frame'], says: told('cameraWidthMm', value => `camera ${value} mm wide`) },
  { of: 'video', by: ['board'], says: named('videoFamily', 'video') },
  { of: 'video', by: ['board'], says: feeds },
  { of: 'radio', by: ['board'], says: named('radioFamily', 'the board’s own:') },
  { of: 'radio', by: ['board'], says: feeds },
  { of: 'pack', by: ['motor', 'board', 'speed controller'], says: cellRange },
  { of: 'pack', by: ['power lead'], says: named('plug', 'plug') },
  { of: 'pack', by: ['frame'], says: told('trayLengthMm', value => `tray ${value} mm long`, 0) },
]
/** What the gear on the ground asks, by step. */
const asksOfGround = (gear: GroundGear): readonly { readonly of: StepKey; readonly says: string }[] => [
  ...(gear.videoFamily ? [{ of: 'video' as const, says: `video ${gear.videoFamily}` }] : []),
  ...(gear.radioFamily ? [{ of: 'radio' as const, says: `speaks ${gear.radioFamily}` }] : []),
  ...(gear.chargerCells === null
    ? []
    : [{ of: 'pack' as const, says: `at most ${gear.chargerCells} cells to charge` }]),
]

const isChosen = ({ mass }: Line) => mass !== null && mass.evidence !== 'typical'

function standingOf(lines: readonly Line[]): StepStanding {
  if (lines.length === 0 || lines.some(line => line.mass === null)) return 'open'
  return lines.every(isChosen) ? 'chosen' : 'typical'
}

interface Given {
  readonly build: Build
  readonly overview: Overview
  readonly estimates: LineEstimates
  readonly gear: GroundGear
}

/**
 * The order of choosing: frame, motors and props, board, video, radio, pack. Each step says what the limit leaves for it
 * with everything else as it stands, and what parts that were chosen already ask of it; typical parts ask nothing, since
 * nobody has chosen them. The pack is the one of the loadout looked at.
 */
export function choosingOrder({ build, overview, estimates, gear }: Given): OrderStep[] {
  const { binding } = overview
  const roomG =
    binding?.limitG == null || binding.card.comparator === 'none'
      ? null
      : binding.limitG - build.aim.reserveG - binding.massG
  const flown = overview.counted
  return steps.map(({ key, label, slots }) => {
    const lines = flown.filter(line => (slots as readonly Slot[]).includes(line.slot))
    const within = lines.length > 0 ? undefined : slots.flatMap(slot => providersOf(flown, slot)).find(isChosen)
    const sum = estimates.sum(lines)
    const forces = [
      ...asks
        .filter(ask => ask.of === key)
        .flatMap(({ by, says }) =>
          flown
            .filter(line => by.includes(line.slot) && isChosen(line))
            .flatMap(line => {
              const said = says(line)
              return said === null ? [] : [{ says: said, by: line.name }]
            }),
        ),
      ...asksOfGround(gear)
        .filter(ask => ask.of === key)
        .map(({ says }) => ({ says, by: 'your gear on the ground' })),
    ]
    return {
      key,
      label,
      slots,
      lines,
      within: within?.name ?? null,
      standing: within ? 'chosen' : standingOf(lines),
      massG: sum.valueG,
      spreadG: spreadG(sum),
      // What another part does as well has no room of its own.
      leavesG: roomG === null || within ? null : roomG + sum.valueG,
      forces,
    }
  })
}

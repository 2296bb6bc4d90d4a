/** What can be found on a flight. */
export const findingKinds = [
  'vibration in the picture',
  'wash-out',
  'oscillation',
  'motor heat',
  'board heat',
  'transmitter heat',
  'picture breaks up',
  'lost link',
  'failsafe',
  'crash',
  'damage',
  'other',
] as const
export type FindingKind = (typeof findingKinds)[number]

/** Something that was changed because of a finding. */
export interface Tried {
  readonly id: string
  /** Local day and time. */
  readonly at: string
  readonly what: string
  /** The entry of the build's journal it stands for; null where it changed nothing of the ledger. */
  readonly revision: number | null
}

/** Something found on a flight or at the bench, with what became of it. */
export interface FlightFinding {
  readonly id: string
  readonly buildId: string
  readonly flightId: string | null
  /** Local day and time. */
  readonly foundAt: string
  readonly kind: FindingKind
  /** How bad, 0 to 3. */
  readonly severity: number
  readonly distanceM: number | null
  /** Seconds into the flight. */
  readonly atS: number | null
  readonly suspectLineId: string | null
  /** Its name then. */
  readonly suspect: string
  /** After a crash: lines of parts that were hurt. */
  readonly damagedLineIds: readonly string[]
  readonly note: string
  readonly lesson: string
  readonly tried: readonly Tried[]
  /** Since when it is gone; null while it is open. */
  readonly goneAt: string | null
  readonly pictureIds: readonly string[]
}

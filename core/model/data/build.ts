import type { Properties } from './properties'
import type { Slot } from './slots'

/** How a mass is known, from the least to the most sure. */
export const evidences = ['guess', 'typical', 'listed', 'worked out', 'twin', 'weighed'] as const
export type Evidence = (typeof evidences)[number]
/** What a builder can say of grams; a twin of a piece that was weighed elsewhere comes about by copying a build. */
export const saidEvidences = evidences.filter(evidence => evidence !== 'twin')

/** fitted counts; candidate could go there instead; off is taken away but kept on record. */
export const lineStates = ['fitted', 'candidate', 'off'] as const
export type LineState = (typeof lineStates)[number]

/** airframe always flies; fitting and payload fly when the chosen set-up names them. */
export const roles = ['airframe', 'fitting', 'payload'] as const
export type Role = (typeof roles)[number]

/** Whether a mass is of the part as it came (full leads, plugs, case) or as it sits on the craft. */
export const bases = ['as supplied', 'as fitted'] as const
export type Basis = (typeof bases)[number]

/** How a mass was weighed on one of the builder's scales; kept with the mass for good. */
export interface Weighing {
  readonly takenAt: string
  readonly scaleId: string
  readonly scaleName: string
  /** The check that was in force, null when the scale was never checked. */
  readonly checkId: string | null
  readonly method: WeighingMethod
  /** Raw displays, grams, in the order taken. */
  readonly displaysG: readonly number[]
  /** What was shown with the tare on the pan; null without a tare. */
  readonly tare: { readonly id: string; readonly name: string; readonly displayG: number } | null
  /** Signed causes of the mass's `valueG`, in grams, by key. */
  readonly contributions: Readonly<Record<string, number>>
  /** The version of the grams this weighing took the place of. */
  readonly supersedes: string | null
}
export const weighingMethods = [
  'on the pan',
  'one by one',
  'by difference',
  'in lifts',
  'typed',
  'booked difference',
  'forecast difference',
] as const
export type WeighingMethod = (typeof weighingMethods)[number]

/**
 * One version of a line's grams. Never changed once made: a change of grams is a new version.
 * `valueG` is the mass of `valueCount` pieces as read, listed or typed.
 */
export interface Mass {
  readonly versionId: string
  readonly evidence: Evidence
  readonly valueG: number
  /** How many pieces `valueG` is the mass of: 1 for "each", more for all on the pan together. */
  readonly valueCount: number
  /** Step of the last digit typed or displayed, grams. */
  readonly resolutionG: number
  /** Pieces weighed one by one, grams each; `valueG` is then their mean. Null when it was one reading. */
  readonly pieceReadingsG: readonly number[] | null
  /** Half the range of the class, grams of `valueCount` pieces; only for typical masses. */
  readonly halfRangeG: number | null
  /** The builder's own ± at 95 %, grams for the whole line; overrides the default pedigree. */
  readonly ownSpreadG: number | null
  readonly basis: Basis
  /** Where the version came from, in words ("typed", "class typical", "parts list"). */
  readonly origin: string
  /** The weighing on a scale of the builder's own; null for what was typed. */
  readonly weighing: Weighing | null
}

/** What a listing promises for one piece, kept when the part is weighed later. */
export interface Listing {
  readonly valueG: number
  readonly resolutionG: number
}

export const chemistries = ['LiPo', 'LiHV', 'Li-ion'] as const
export type Chemistry = (typeof chemistries)[number]

/** What a flight pack is apart from its grams. */
export interface PackFacts {
  readonly label: string
  readonly cells: number
  readonly chemistry: Chemistry
  readonly capacityMah: number
  readonly cRating: number | null
  readonly plug: string
}

/** Some of what a pack is. */
export type PackSoFar = Partial<PackFacts>

/**
 * Where a device's power comes from: the pack, its balance lead, or a line; with the name of that line's regulated
 * output, empty for the pack's own volts handed on.
 */
export interface Feed {
  readonly from: string
  readonly output: string
}

/**
 * A weighing of a line beside the estimate it stands on: one more observation of the same piece. `of` is what the line
 * was when it became another piece; null while it is still the piece that was weighed.
 */
export interface FurtherWeighing {
  readonly mass: Mass
  readonly of: { readonly quantity: number; readonly mass: Mass } | null
}

/** One row of a build's ledger. */
export interface Line {
  readonly id: string
  readonly slot: Slot
  readonly name: string
  readonly quantity: number
  /** The estimate it stands on. Null while nobody has said what it weighs. */
  readonly mass: Mass | null
  /**
   * Which piece the line is: one more each time it became another one (cut, shaved, another part, another number of
   * pieces); the same while it only becomes better known.
   */
  readonly edition: number
  /** Weighings of it beside `mass`, in the order taken. */
  readonly further: readonly FurtherWeighing[]
  readonly listing: Listing | null
  readonly state: LineState
  readonly role: Role
  /** Comes off without tools or by choice: left out where a rule card does not count removable accessories. */
  readonly removable: boolean
  readonly priceEachCents: number | null
  readonly note: string
  /** Lines that carry the same word travel together (a camera with its mount, cable, filter and card). */
  readonly tie: string | null
  /** For a candidate: the id of the line it could replace. */
  readonly insteadOf: string | null
  /** What pack it is; null while nobody has said all of it: then neither minutes nor amps are told of it. */
  readonly pack: PackFacts | null
  /** What is written of a pack that nobody has said whole; offered when it is asked about, and nothing rests on it. */
  readonly packSoFar: PackSoFar | null
  /** What the part really is, by the property keys of its slot; null while nobody has said. */
  readonly properties: Properties | null
  /** The part of the drawer this line is; its grams are kept the same while neither is changed for itself. */
  readonly partId: string | null
  /** Where its power comes from; null where it is the usual one or not known. */
  readonly feed: Feed | null
  /** Pictures of it, by which they are fetched; they lie as files on the machine that runs the application. */
  readonly pictureIds: readonly string[]
}

/** A named choice of the optional lines: which fittings and which payload are on. */
export interface Setup {
  readonly id: string
  readonly name: string
  readonly lineIds: readonly string[]
}

/** What the estimate of a line is made from. */
export type Weighed = Pick<Line, 'slot' | 'quantity' | 'mass'>

/**
 * What of a line was on the pan: enough to know what was expected of it then, whatever becomes of the line. While the line
 * is the same edition, what is known of it now is known of what was on the pan. Weighings from before there were editions
 * have none: they are of the line's present piece while it has the same grams.
 */
export type Subject = Weighed & Pick<Line, 'id'> & { readonly edition?: number | undefined }

/** In the place of a scale: what was said of a craft as a whole, which nobody has weighed here. */
export const saidOfCraft = 'said-of-the-craft'
export const observationStates = ['taken in', 'held', 'set aside'] as const

/** A weighing of more than one line: a stage, the dry aircraft, everything. */
export interface Observation {
  readonly id: string
  readonly title: string
  readonly takenAt: string
  readonly scaleId: string
  readonly scaleName: string
  readonly checkId: string | null
  readonly displaysG: readonly number[]
  readonly tareDisplayG: number | null
  /** Corrected display, grams. */
  readonly valueG: number
  /** Signed causes of the weighing itself: how the display departs from what was on the pan. */
  readonly contributions: Readonly<Record<string, number>>
  readonly subjects: readonly Subject[]
  /** Only what is taken in says something about the lines. */
  readonly state: (typeof observationStates)[number]
  /** Pictures of it: the craft on the pan, the display. */
  readonly pictureIds: readonly string[]
}

export interface Aim {
  readonly purpose: string
  readonly purposeKind: 'recreation' | 'other'
  readonly places: readonly string[]
  readonly cardIds: readonly string[]
  readonly reserveG: number
  /** One-sided confidence a verdict asks for, 0.5 to 0.9999. */
  readonly confidence: number
  readonly goalDryG: number | null
  readonly goalMinutes: number | null
  readonly goalPriceCents: number | null
}

/** A ready-made or older craft known only as a whole, to compare with. */
export interface ReferenceCraft {
  readonly massG: number
  readonly spreadG: number
  readonly thrustG: number | null
  readonly priceCents: number | null
  readonly minutes: number | null
  readonly note: string
  readonly pictureIds: readonly string[]
}

/**
 * One aircraft, planned or real. Immutable: a change makes a new one that shares what did not change. Its fields stand
 * where they are kept and changed: each folder of `core/slices` adds its own.
 */
export interface Build {
  readonly id: string
}

import { slotsOfClass } from '../../parts/catalogue'
import { inDrawer, priceEachCents, type Kit, type Part, type Placement } from '../../parts/drawer'
import { blankFit, fixingsSchedule, isSaidJoint } from '../../aircraft/fit'
import { isPresentPiece, slotFacts, slotNamed, type Build, type Line, type Slot } from '../../model/ledger'
import { measureOf, providersOf, textOf } from '../../model/properties'

/** Why something is on the list. */
export type BuyReason = 'not owned yet' | 'needed, no line' | 'tool or consumable' | 'crash spare'

export interface BuyRow {
  readonly reason: BuyReason
  readonly slot: Slot | null
  readonly name: string
  readonly wanted: number
  readonly inDrawer: number
  readonly toBuy: number
  readonly priceEachCents: number | null
  readonly priceCents: number | null
  readonly why: string
}

export interface BuyOptions {
  readonly tools: boolean
  readonly spares: boolean
}

/** What is known besides the build: the kits the drawer remembers, and the radio family of the hand controller. */
export interface BuySurroundings {
  readonly kits: readonly Kit[]
  readonly radioFamily: string
}

/**
 * A line the builder has in the hand: linked to a part of which all pieces claimed by builds are there, weighed, or on board
 * when the craft was weighed with it.
 */
function isOwned(line: Line, build: Build, part: Part | undefined, placements: readonly Placement[]): boolean {
  if (part && part.owned > 0) return shortOf(line, part, placements) === 0
  if (line.mass?.evidence === 'weighed') return part === undefined
  return build.observations.some(
    one =>
      one.state === 'taken in' &&
      one.subjects.some(subject => isPresentPiece(subject, line) && subject.quantity >= line.quantity),
  )
}

/** Where pieces are, with this build as it is now: what is kept of it may be some edits old. */
function placementsNow({ id, name, lines }: Build, placements: readonly Placement[]): Placement[] {
  const own = lines.flatMap(({ id: lineId, partId, quantity, state }) =>
    partId === null ? [] : [{ partId, buildId: id, buildName: name, lineId, quantity, state }],
  )
  return [...placements.filter(one => one.buildId !== id), ...own]
}

/** How many pieces of a line are not there: builds claim more of its part than is left of what came. */
function shortOf({ quantity }: Line, part: Part, placements: readonly Placement[]): number {
  return Math.min(quantity, Math.max(0, -inDrawer(part, placements)))
}

const tools = [
  ['Solder, thin, with flux core', 'for every joint'],
  ['Heat-shrink, two widths', 'over every splice'],
  ['Current limiter or fused lead', 'for the first power-up'],
  ['Thread-lock, medium', 'metal into metal'],
  ['Hex drivers for the threads used', 'and gentle torque'],
  ['Isopropyl alcohol and a brush', 'flux off, before any coating'],
  ['Goggles for the eyes and a dust mask', 'for cutting and drilling carbon'],
] as const

/** How many of what breaks first a builder keeps for a season. */
const spares: readonly (readonly [Slot, number])[] = [
  ['propeller', 8],
  ['motor', 1],
  ['strap', 1],
  ['aerial', 1],
]

/** What flies wants, by slot, with the reason; what a craft of its class has besides comes from the class. */
const whatFlies: readonly (readonly [
  slot: Slot,
  name: string,
  why: string,
  count: number,
  when: (fitted: readonly Line[]) => boolean,
])[] = [
  ['receiver', 'Receiver', 'nothing on board hears the hand controller', 1, fitted => hasSlot(fitted, 'motor')],
  [
    'video transmitter',
    'Video transmitter',
    'nothing sends the camera’s picture',
    1,
    fitted => hasSlot(fitted, 'camera'),
  ],
  [
    'aerial',
    'Aerial for the transmitter',
    'never powered without one',
    1,
    fitted => hasSlot(fitted, 'video transmitter'),
  ],
  [
    'power lead',
    'Power lead',
    'nothing joins the pack to the board',
    1,
    fitted => hasSlot(fitted, 'board') || hasSlot(fitted, 'speed controller'),
  ],
  [
    'strap',
    'Strap',
    'holds the pack',
    1,
    fitted => fitted.some(line => line.slot === 'pack' && (line.pack?.cells ?? 0) >= 2),
  ],
  ['propeller', 'Propellers', 'one a motor', 4, fitted => hasSlot(fitted, 'motor')],
  ['pack', 'Pack', 'nothing to fly on', 1, fitted => hasSlot(fitted, 'motor')],
  [
    'capacitor',
    'Capacitor',
    'takes the spikes off a supply of three cells or more',
    1,
    fitted => fitted.some(line => line.slot === 'pack' && (line.pack?.cells ?? 0) >= 3),
  ],
  [
    'screw',
    'Screws',
    'nothing holds the motors; say the joints in Fit for their length',
    1,
    fitted => hasSlot(fitted, 'motor') && hasSlot(fitted, 'frame'),
  ],
]
const hasSlot = (lines: readonly Line[], slot: Slot) => lines.some(line => line.slot === slot)

/** Slots a craft of this class has and this build has nothing for. */
function missingOfClass(build: Build, fitted: readonly Line[]): Slot[] {
  return [...(slotsOfClass(build.craftClass) ?? [])].filter(
    slot => slot !== 'other' && providersOf(fitted, slot).length === 0,
  )
}

/** What a kit leaves out, as its own words name it. */
const leftOut = (kit: Kit) =>
  kit.leavesOut
    .split(/[,;\n]/)
    .map(word => word.trim())
    .filter(word => word !== '')

/**
 * What still has to be bought for a build: fitted lines that are not owned, what flies and has no line, what the kits it is
 * made of leave out, and by choice tools and crash spares; each minus what the drawer holds. A piece of the drawer is given
 * out once; pieces of a kit nobody owns yet are bought as that kit, at its price.
 */
export function toBuy(
  build: Build,
  parts: readonly Part[],
  kept: readonly Placement[],
  options: BuyOptions,
  { kits, radioFamily }: BuySurroundings = { kits: [], radioFamily: '' },
): BuyRow[] {
  const placements = placementsNow(build, kept)
  const byId = new Map(parts.map(part => [part.id, part]))
  const left = new Map(parts.map(part => [part.id, Math.max(0, inDrawer(part, placements))]))
  const fitted = build.lines.filter(line => line.state === 'fitted')

  function row(
    reason: BuyReason,
    slot: Slot | null,
    name: string,
    wanted: number,
    each: number | null,
    why: string,
    matches: (part: Part) => boolean,
  ): BuyRow {
    let held = 0
    let price = each
    for (const part of parts) {
      if (!matches(part)) continue
      price ??= priceEachCents(part)
      const given = Math.min(left.get(part.id)!, wanted - held)
      left.set(part.id, left.get(part.id)! - given)
      held += given
    }
    const toBuyNow = wanted - held
    return {
      reason,
      slot,
      name,
      wanted,
      inDrawer: held,
      toBuy: toBuyNow,
      priceEachCents: price,
      priceCents: price === null ? null : price * toBuyNow,
      why,
    }
  }
  const alike = (line: Line) => (part: Part) =>
    part.slot === line.slot && (part.id === line.partId || part.name.toLowerCase() === line.name.toLowerCase())
  const kitOf = (line: Line) => kits.find(kit => kit.id === partOf(line)?.kitId)
  const partOf = (line: Line) => (line.partId ? byId.get(line.partId) : undefined)
  const missing = fitted.filter(line => line.slot !== 'other' && !isOwned(line, build, partOf(line), placements))
  // Pieces that are sold in a kit and have no price of their own are bought as the kit, while none of them has come.
  const inKit = (line: Line) => line.priceEachCents === null && kitOf(line) !== undefined && !partOf(line)!.owned
  const rows = missing
    .filter(line => !inKit(line))
    .map(line => {
      const part = partOf(line)
      const short = part?.owned ? shortOf(line, part, placements) : line.quantity
      return row(
        'not owned yet',
        line.slot,
        line.name,
        short,
        line.priceEachCents,
        short < line.quantity ? `${line.quantity - short} of ${line.quantity} are there` : '',
        alike(line),
      )
    })
  for (const kit of new Set(missing.filter(inKit).map(line => kitOf(line)!))) {
    const pieces = missing.filter(line => inKit(line) && kitOf(line) === kit).map(line => line.name)
    rows.push(row('not owned yet', null, kit.name, 1, kit.priceCents, `a kit, with ${pieces.join(', ')}`, () => false))
  }

  const need = (slot: Slot, name: string, why: string, count = 1) =>
    rows.push(row('needed, no line', slot, name, count, null, why, part => part.slot === slot))
  const has = (slot: Slot) => providersOf(fitted, slot).length > 0
  const joints = (build.fit ?? blankFit).joints
  for (const [slot, name, why, count, when] of whatFlies) {
    if (!when(fitted) || has(slot) || (slot === 'screw' && joints.length > 0)) continue
    need(slot, slot === 'receiver' && radioFamily !== '' ? `${name}, ${radioFamily}` : name, why, count)
  }
  for (const slot of missingOfClass(build, fitted)) {
    if (!rows.some(one => one.reason === 'needed, no line' && one.slot === slot))
      need(
        slot,
        slotFacts[slot].label,
        `a craft of the class “${build.craftClass}” has one`,
        slotFacts[slot].usualCount,
      )
  }
  for (const kit of kits.filter(one => fitted.some(line => byId.get(line.partId ?? '')?.kitId === one.id))) {
    for (const word of leftOut(kit)) {
      const named = slotNamed(word)
      const slot = named === 'other' ? null : named
      if (
        slot !== null
          ? has(slot) || rows.some(one => one.slot === slot)
          : fitted.some(line => line.name.toLowerCase() === word.toLowerCase())
      )
        continue
      rows.push(
        row(
          'needed, no line',
          slot,
          word,
          1,
          null,
          `left out of ${kit.name}`,
          part => slot !== null && part.slot === slot,
        ),
      )
    }
    for (const part of parts.filter(one => one.kitId === kit.id && one.missing > 0)) {
      rows.push(
        row(
          'needed, no line',
          part.slot,
          part.name,
          part.missing,
          priceEachCents(part),
          `missing from the bag of ${kit.name}`,
          () => false,
        ),
      )
    }
  }
  for (const joint of joints) {
    if (!isSaidJoint(joint)) continue
    const schedule = fixingsSchedule([joint]).rows[0]!
    const fits = (line: Line | Part) =>
      line.slot === 'screw' &&
      textOf(line, 'thread') === joint.thread &&
      (measureOf(line, 'lengthMm') ?? -1) >= schedule.shortestMm - 1e-9 &&
      (measureOf(line, 'lengthMm') ?? 1e9) <= schedule.longestMm + 1e-9
    if (joint.lineId && schedule.verdict === 'fits') continue
    if (fitted.some(fits)) continue
    if (schedule.soldMm === null) continue
    rows.push(
      row(
        'needed, no line',
        'screw',
        `${joint.thread} × ${schedule.soldMm} ${joint.head}, ${joint.material}`,
        joint.count,
        null,
        joint.name,
        fits,
      ),
    )
  }
  if (options.spares) {
    for (const [slot, count] of spares) {
      const line = fitted.find(l => l.slot === slot)
      if (line) rows.push(row('crash spare', slot, line.name, count, line.priceEachCents, 'breaks first', alike(line)))
    }
  }
  if (options.tools)
    for (const [name, why] of tools)
      rows.push({
        reason: 'tool or consumable',
        slot: null,
        name,
        wanted: 1,
        inDrawer: 0,
        toBuy: 1,
        priceEachCents: null,
        priceCents: null,
        why,
      })
  return rows.filter(r => r.toBuy > 0)
}

/** Words compared without number and case: “Straps” is “strap”. */

/** Sum of the prices that are known, and how many rows have none. */
export function buyTotal(rows: readonly BuyRow[]): { readonly cents: number; readonly unpriced: number } {
  return {
    cents: rows.reduce((sum, r) => sum + (r.priceCents ?? 0), 0),
    unpriced: rows.filter(r => r.priceCents === null).length,
  }
}

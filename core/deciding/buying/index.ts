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
  surroundings: BuySurroundings = { kits: [], radioFamily: '' },
): BuyRow[] {
  const list = new BuyList(build, parts, kept, surroundings)
  list.addLines()
  list.addWhatFlies()
  list.addOfClass()
  list.addLeftOut()
  list.addFixings()
  if (options.spares) list.addSpares()
  if (options.tools) list.addTools()
  return list.rows.filter(row => row.toBuy > 0)
}

/** What is wanted, before the drawer is looked at. */
interface Want {
  readonly reason: BuyReason
  readonly slot: Slot | null
  readonly name: string
  readonly count: number
  readonly eachCents?: number | null
  readonly why: string
  /** Parts of the drawer that will do; none where it is bought all the same. */
  readonly matches?: (part: Part) => boolean
}

/** Lengths are compared with this tolerance, mm: decimal figures must compare as they do on paper. */
const toleranceMm = 1e-9

class BuyList {
  readonly rows: BuyRow[] = []
  private readonly fitted: readonly Line[]
  private readonly placements: readonly Placement[]
  private readonly byId: ReadonlyMap<string, Part>
  /** What is left of each part in the drawer, once given out. */
  private readonly left: Map<string, number>

  constructor(
    private readonly build: Build,
    private readonly parts: readonly Part[],
    kept: readonly Placement[],
    private readonly surroundings: BuySurroundings,
  ) {
    this.placements = placementsNow(build, kept)
    this.byId = new Map(parts.map(part => [part.id, part]))
    this.left = new Map(parts.map(part => [part.id, Math.max(0, inDrawer(part, this.placements))]))
    this.fitted = build.lines.filter(line => line.state === 'fitted')
  }

  /** Fitted lines that are not owned; pieces of a kit of which none has come are bought as the kit. */
  addLines(): void {
    const missing = this.fitted.filter(
      line => line.slot !== 'other' && !isOwned(line, this.build, this.partOf(line), this.placements),
    )
    for (const line of missing) if (!this.comesInKit(line)) this.addLine(line)
    const inKits = missing.filter(line => this.comesInKit(line))
    for (const kit of new Set(inKits.map(line => this.kitOf(line)!))) {
      const pieces = inKits.filter(line => this.kitOf(line) === kit).map(line => line.name)
      const why = `a kit, with ${pieces.join(', ')}`
      this.add({ reason: 'not owned yet', slot: null, name: kit.name, count: 1, eachCents: kit.priceCents, why })
    }
  }

  addWhatFlies(): void {
    const { radioFamily } = this.surroundings
    for (const [slot, name, why, count, when] of whatFlies) {
      if (!when(this.fitted) || this.has(slot) || (slot === 'screw' && this.joints.length > 0)) continue
      this.need(slot, slot === 'receiver' && radioFamily !== '' ? `${name}, ${radioFamily}` : name, why, count)
    }
  }

  addOfClass(): void {
    const why = `a craft of the class “${this.build.craftClass}” has one`
    for (const slot of missingOfClass(this.build, this.fitted))
      if (!this.rows.some(row => row.reason === 'needed, no line' && row.slot === slot))
        this.need(slot, slotFacts[slot].label, why, slotFacts[slot].usualCount)
  }

  /** What the kits it is made of leave out by their own words, and what was missing from their bags. */
  addLeftOut(): void {
    const used = this.surroundings.kits.filter(kit => this.fitted.some(line => this.partOf(line)?.kitId === kit.id))
    for (const kit of used) {
      for (const word of leftOut(kit)) this.addWord(word, `left out of ${kit.name}`)
      for (const part of this.parts.filter(one => one.kitId === kit.id && one.missing > 0))
        this.add({
          reason: 'needed, no line',
          slot: part.slot,
          name: part.name,
          count: part.missing,
          eachCents: priceEachCents(part),
          why: `missing from the bag of ${kit.name}`,
        })
    }
  }

  /** Screws for the joints that are said and have none that fit. */
  addFixings(): void {
    for (const joint of this.joints) {
      if (!isSaidJoint(joint)) continue
      const { shortestMm, longestMm, verdict, soldMm } = fixingsSchedule([joint]).rows[0]!
      const fits = (line: Line | Part) => {
        const lengthMm = measureOf(line, 'lengthMm')
        return (
          line.slot === 'screw' &&
          textOf(line, 'thread') === joint.thread &&
          lengthMm !== undefined &&
          lengthMm >= shortestMm - toleranceMm &&
          lengthMm <= longestMm + toleranceMm
        )
      }
      if ((joint.lineId && verdict === 'fits') || this.fitted.some(fits) || soldMm === null) continue
      const name = `${joint.thread} × ${soldMm} ${joint.head}, ${joint.material}`
      const { count, name: why } = joint
      this.add({ reason: 'needed, no line', slot: 'screw', name, count, why, matches: fits })
    }
  }

  addSpares(): void {
    for (const [slot, count] of spares) {
      const line = this.fitted.find(l => l.slot === slot)
      if (!line) continue
      const { name, priceEachCents: eachCents } = line
      this.add({ reason: 'crash spare', slot, name, count, eachCents, why: 'breaks first', matches: alike(line) })
    }
  }

  addTools(): void {
    for (const [name, why] of tools) this.add({ reason: 'tool or consumable', slot: null, name, count: 1, why })
  }

  private get joints() {
    return (this.build.fit ?? blankFit).joints
  }
  private partOf(line: Line): Part | undefined {
    return line.partId ? this.byId.get(line.partId) : undefined
  }
  private kitOf(line: Line): Kit | undefined {
    const kitId = this.partOf(line)?.kitId
    return this.surroundings.kits.find(kit => kit.id === kitId)
  }
  /** Sold in a kit without a price of its own, of which no piece has come. */
  private comesInKit(line: Line): boolean {
    return line.priceEachCents === null && this.kitOf(line) !== undefined && !this.partOf(line)!.owned
  }
  private has(slot: Slot): boolean {
    return providersOf(this.fitted, slot).length > 0
  }

  private addLine(line: Line): void {
    const part = this.partOf(line)
    const count = part?.owned ? shortOf(line, part, this.placements) : line.quantity
    const why = count < line.quantity ? `${line.quantity - count} of ${line.quantity} are there` : ''
    const { slot, name, priceEachCents: eachCents } = line
    this.add({ reason: 'not owned yet', slot, name, count, eachCents, why, matches: alike(line) })
  }

  private addWord(word: string, why: string): void {
    const named = slotNamed(word)
    const slot = named === 'other' ? null : named
    const isThere =
      slot === null
        ? this.fitted.some(line => line.name.toLowerCase() === word.toLowerCase())
        : this.has(slot) || this.rows.some(row => row.slot === slot)
    if (isThere) return
    const matches = (part: Part) => slot !== null && part.slot === slot
    this.add({ reason: 'needed, no line', slot, name: word, count: 1, why, matches })
  }

  private need(slot: Slot, name: string, why: string, count: number): void {
    this.add({ reason: 'needed, no line', slot, name, count, why, matches: part => part.slot === slot })
  }

  /** Puts a row on the list, and takes what the drawer has of it. */
  private add({ reason, slot, name, count: wanted, eachCents = null, why, matches = () => false }: Want): void {
    let held = 0
    let priceEach = eachCents
    for (const part of this.parts.filter(matches)) {
      priceEach ??= priceEachCents(part)
      const given = Math.min(this.left.get(part.id)!, wanted - held)
      this.left.set(part.id, this.left.get(part.id)! - given)
      held += given
    }
    const toBuyNow = wanted - held
    const priceCents = priceEach === null ? null : priceEach * toBuyNow
    const row = {
      reason,
      slot,
      name,
      wanted,
      inDrawer: held,
      toBuy: toBuyNow,
      priceEachCents: priceEach,
      priceCents,
      why,
    }
    this.rows.push(row)
  }
}

/** Parts of the drawer that are what a line is: the part it came from, or one of its name. */
const alike = (line: Line) => (part: Part) =>
  part.slot === line.slot && (part.id === line.partId || part.name.toLowerCase() === line.name.toLowerCase())

/** Sum of the prices that are known, and how many rows have none. */
export function buyTotal(rows: readonly BuyRow[]): { readonly cents: number; readonly unpriced: number } {
  return {
    cents: rows.reduce((sum, r) => sum + (r.priceCents ?? 0), 0),
    unpriced: rows.filter(r => r.priceCents === null).length,
  }
}

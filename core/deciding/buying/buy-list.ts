import { blankFit, fixingsSchedule, isSaidJoint } from '../../aircraft/fit'
import { slotFacts, slotNamed, type Build, type Line, type Slot } from '../../model/ledger'
import { measureOf, providersOf, textOf } from '../../model/properties'
import { slotsOfClass } from '../../parts/catalogue'
import { inDrawer, priceEachCents, type Kit, type Part, type Placement } from '../../parts/drawer'
import type { BuyReason, BuyRow, BuySurroundings } from './buy-row'
import { isOwned, placementsNow, shortOf } from './owned'
import { spares, tools, whatFlies } from './what-flies'

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

/** The list while it is made: what is wanted is put on it, and the drawer gives each of its pieces once. */
export class BuyList {
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
